<script setup lang="ts">
import { formatFigure, groupThousands } from '@verdict/core/format';
import { alphaSetting } from '@verdict/core/road';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useRoute } from 'vue-router';
import { local } from '../language/language.js';
import { STAGES } from '../stages/stages.js';
import { useStudy } from '../stores/study.js';
import PartsChoice from '../workbench/parts/parts-choice.vue';
import { useLooked } from '../workbench/frame/use-looked.js';
import SentenceChoice from './fields/sentence-choice.vue';
import SentenceNumber from './fields/sentence-number.vue';
import { typedNumber } from './fields/typed-number.js';

/** The subject is chosen once: column and level stand here, above every stage. */
const store = useStudy();
const route = useRoute();
/** Of the stage that is looked at. */
const stage = computed(() => STAGES.find(({ name }) => name === route.name));
const Bar = computed(() => stage.value?.bar && defineAsyncComponent(stage.value.bar));
const levelWrong = ref('');

const looked = useLooked();
const subjects = computed(() =>
  (store.study?.columns ?? []).filter(({ kind, id }) =>
    // A ruled study keeps its subject; labels can still be looked at.
    kind === 'label' ? stage.value?.takesLabels : !store.ruled || id === store.subject?.id,
  ),
);
const ofLabels = computed(() => !!stage.value?.takesLabels && looked.label.value !== null);
const named = ({ name, unit }: { name: string; unit: string }) => (unit ? `${name}, ${unit}` : name);

const readings = computed(() => {
  const sample = ofLabels.value ? looked.sample.value : store.sample;
  if (!sample) return '';
  const n = sample.values.length;
  const what = sample.levels ? (n === 1 ? 'label' : 'labels') : n === 1 ? 'reading' : 'readings';
  const others = [
    sample.setAside ? `${groupThousands(sample.setAside)} set aside` : '',
    sample.missing ? `${groupThousands(sample.missing)} missing` : '',
    sample.unreadable ? `${groupThousands(sample.unreadable)} not a number` : '',
    sample.beyondLimit ? `${groupThousands(sample.beyondLimit)} censored` : '',
  ].filter(Boolean);
  return [`${groupThousands(n)} ${what}`, ...others].join(', ');
});

const limits = computed(() => {
  const column = store.subject;
  if (!column || !store.sample || ofLabels.value) return '';
  const figure = (value: number) => formatFigure(value, 'reading', store.sample!.resolution);
  const { lowerLimit: lower, upperLimit: upper } = column;
  if (lower !== null && upper !== null) return `limits ${figure(lower)} – ${figure(upper)}`;
  if (lower !== null) return `lower limit ${figure(lower)}`;
  return upper !== null ? `upper limit ${figure(upper)}` : '';
});

function setLevel(typed: string): void {
  const level = alphaSetting.safeParse(typedNumber(typed));
  levelWrong.value = level.success ? '' : level.error.issues[0]!.message;
  if (level.success && level.data !== store.study?.alpha) store.change({ kind: 'change-study', alpha: level.data });
}
</script>

<template>
  <section class="bar no-print" aria-label="Subject and significance level">
    <template v-if="subjects.length">
      <label class="soft"
        >Subject
        <SentenceChoice
          aria-label="Subject"
          :model-value="(ofLabels ? looked.label.value?.id : store.study?.subject) ?? ''"
          :disabled="store.ruled && !stage?.takesLabels"
          :options="subjects.map((column) => ({ value: column.id, text: named(column) }))"
          @update:model-value="looked.look"
      /></label>
      <PartsChoice v-if="stage?.splits" />
      <span class="rule"></span>
      <label class="soft"
        >significance level
        <SentenceNumber
          :wrong="!!levelWrong"
          aria-label="Level"
          :disabled="store.ruled"
          :model-value="String(store.study?.alpha)"
          @update:model-value="setLevel"
      /></label>
      <span v-if="levelWrong" class="said-wrong" role="alert">{{ local(levelWrong) }}</span>
      <span class="rule"></span>
      <span class="soft">{{ readings }}</span>
    </template>
    <span v-else class="soft">No number column yet</span>
    <span class="room"></span>
    <component :is="Bar" v-if="Bar" />
    <template v-else>
      <span v-if="store.sample?.resolution && !ofLabels" class="soft"
        >resolution {{ local(String(store.sample.resolution)) }} {{ store.sample.unit }}</span
      >
      <span v-if="limits" class="soft">{{ local(limits) }}</span>
    </template>
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  flex: 0 0 auto;
  min-height: 46px;
  align-items: center;
  gap: 4px 10px;
  padding: 2px 20px;
}
.rule {
  width: 1px;
  height: 15px;
  background: var(--line);
}
.room {
  flex: 1;
}
</style>
