<script setup lang="ts">
import { FAMILIES, familyByName, rangeWords, type Family } from '@verdict/core/distributions';
import { computed } from 'vue';
import FigureField from './figure-field.vue';
import { usualTexts, type Draft, type Faults } from './question.js';

/** What else the picture shows: a second family, the readings of a column, the other view, its own ends. */
const props = defineProps<{
  draft: Draft;
  faults: Faults;
  columns: readonly { id: string; name: string }[];
  windowFault: string;
}>();
const emit = defineEmits<{ change: [patch: Partial<Draft>] }>();

const text = (event: Event) => (event.target as HTMLInputElement).value;
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
      <select
        class="field"
        aria-label="View"
        :value="draft.view"
        @change="emit('change', { view: text($event) as Draft['view'] })"
      >
        <option value="density">{{ own.discrete ? 'the probabilities' : 'the density' }}</option>
        <option value="cumulative">the cumulative curve</option>
      </select>
    </span>
    <span class="part">
      from
      <input
        class="field"
        aria-label="Picture from"
        placeholder="fitting"
        size="7"
        :value="draft.from"
        @input="emit('change', { from: text($event) })"
      />
      to
      <input
        class="field"
        aria-label="Picture to"
        placeholder="fitting"
        size="7"
        :value="draft.to"
        @input="emit('change', { to: text($event) })"
      />
    </span>
    <span class="part">
      over it
      <select class="field" aria-label="Second family" :value="draft.over" @change="setOver(text($event))">
        <option value="">nothing</option>
        <option v-for="one in offered" :key="one.family" :value="one.family">
          {{ one.family === draft.family ? `another ${one.title}` : one.title }}
        </option>
      </select>
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
      <select
        class="field"
        aria-label="Readings under the curve"
        :value="draft.column"
        @change="emit('change', { column: text($event) })"
      >
        <option value="">no readings</option>
        <option v-for="one in columns" :key="one.id" :value="one.id">the readings of {{ one.name }}</option>
      </select>
    </span>
    <span v-if="windowFault" class="said-wrong" role="alert">{{ windowFault }}</span>
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
input.field {
  margin-left: 3px;
}
select.field {
  max-width: 100%;
  field-sizing: content;
}
.pair {
  margin-right: 6px;
  white-space: nowrap;
}
</style>
