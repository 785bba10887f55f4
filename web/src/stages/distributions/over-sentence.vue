<script setup lang="ts">
import { FAMILIES, familyByName, rangeWords, type Family } from '@verdict/core/distributions';
import { computed } from 'vue';
import { local } from '../../language/language.js';
import FigureField from './figure-field.vue';
import { usualTexts, type Draft, type Faults } from './question.js';
import SentenceChoice from '../../components/fields/sentence-choice.vue';
import SentenceNumber from '../../components/fields/sentence-number.vue';

/** What else the picture shows: a second family, the readings of a column, the other view, its own ends. */
const props = defineProps<{
  draft: Draft;
  faults: Faults;
  columns: readonly { id: string; name: string }[];
  windowFault: string;
}>();
const emit = defineEmits<{ change: [patch: Partial<Draft>] }>();

const own = computed(() => familyByName(props.draft.family));
/** Counts are laid over counts, measures over measures. */
const offered = computed(() => FAMILIES.filter(({ discrete }) => discrete === own.value.discrete));
const over = computed<Family | null>(() => (props.draft.over ? familyByName(props.draft.over) : null));
function setOver(name: string): void {
  const overParameters =
    name === '' ? {} : name === props.draft.family ? { ...props.draft.parameters } : usualTexts(familyByName(name));
  emit('change', { over: name, overParameters });
}
const setParameter = (name: string, value: string) =>
  emit('change', { overParameters: { ...props.draft.overParameters, [name]: value } });
</script>

<template>
  <div class="card more" aria-label="The picture" role="group">
    <span class="part">
      Show
      <SentenceChoice
        aria-label="View"
        :model-value="draft.view"
        :options="[
          { value: 'density', text: own.discrete ? 'the probabilities' : 'the density' },
          { value: 'cumulative', text: 'the cumulative distribution' },
        ]"
        @update:model-value="(value) => emit('change', { view: value as Draft['view'] })"
      />
    </span>
    <span class="part">
      from
      <SentenceNumber
        live
        aria-label="Picture from"
        placeholder="automatic"
        :model-value="draft.from"
        @update:model-value="(value) => emit('change', { from: value })"
      />
      to
      <SentenceNumber
        live
        aria-label="Picture to"
        placeholder="automatic"
        :model-value="draft.to"
        @update:model-value="(value) => emit('change', { to: value })"
      />
    </span>
    <span class="part">
      over it
      <SentenceChoice
        aria-label="Second family"
        :model-value="draft.over"
        :options="[
          { value: '', text: 'nothing' },
          ...offered.map((one) => ({
            value: one.family,
            text: one.family === draft.family ? `another ${one.title}` : one.title,
          })),
        ]"
        @update:model-value="(value) => setOver(value)"
      />
      <template v-if="over">
        with
        <span v-for="spec in over.parameters" :key="spec.name" class="pair">
          {{ spec.title }}
          <FigureField
            :label="`${spec.title} of the second family`"
            :value="draft.overParameters[spec.name]"
            :wrong="`o.${spec.name}` in faults"
            :hint="`${spec.meaning}; ${rangeWords(spec)}`"
            @typed="(typed) => setParameter(spec.name, typed)"
          />
        </span>
      </template>
    </span>
    <span v-if="columns.length" class="part">
      under it
      <SentenceChoice
        aria-label="Readings under the curve"
        :model-value="draft.column"
        :options="[
          { value: '', text: 'no readings' },
          ...columns.map((one) => ({ value: one.id, text: `the readings of ${one.name}` })),
        ]"
        @update:model-value="(value) => emit('change', { column: value })"
      />
    </span>
    <span v-if="windowFault" class="said-wrong" role="alert">{{ local(windowFault) }}</span>
  </div>
</template>

<style scoped>
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
  padding: 7px 16px;
  font: 14px/1.75 var(--serif);
}
.pair {
  margin-right: 6px;
  white-space: nowrap;
}
.field {
  margin-left: 4px;
}
</style>
