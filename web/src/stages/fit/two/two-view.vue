<script setup lang="ts">
import {
  TWO_SAMPLES_COLUMNS,
  twoSamplesAnalysis,
  twoSamplesFigures,
  twoSamplesTable,
  twoSamplesTests,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { twoSamplesPanels } from '../../../charts/pictures/two-samples.js';
import FigureTable from '../../../components/figures/figure-table.vue';
import { local } from '../../../language/language.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import TwoChoice from '../../../workbench/parts/two-choice.vue';
import { useTwo } from './use-two.js';

/** Two groups or columns against each other: do they come from one distribution? */
const { column, parts, groupings, names, run, stage, choose } = useTwo();
const { result, request } = run;
const finding = computed(() => (result.value ? twoSamplesAnalysis.finding(result.value) : []));
const panels = computed(() => result.value && twoSamplesPanels(result.value));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => twoSamplesTable(of));
});
const subject = computed(() => `${request.value?.first ?? 'one'} and ${request.value?.second ?? 'another'}`);
const words = computed(
  () =>
    `Quantiles of ${subject.value} against each other. ${finding.value.map(({ text }) => text).join('')} Arrow keys step from mark to mark.`,
);
const none = computed(() =>
  parts.parts.value ? null : `Choose two groups of ${column.value?.name ?? 'the subject'}, or two columns.`,
);
/** As many ways to begin as are taken in at a glance; the bar above has them all. */
const OFFERED = 4;
const offers = computed(() => [
  ...groupings.value.map(({ id, name }) => ({ key: id, words: `Groups by ${name}`, take: () => parts.splitBy(id) })),
  ...parts.others.value.map(({ id, name }) => ({ key: id, words: `With ${name}`, take: () => parts.putBeside([id]) })),
]);
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :keepable="!!result">
    <template #words>
      <template v-if="none">
        <p class="none">{{ local(none) }}</p>
        <p v-if="offers.length" class="offers">
          <el-button v-for="{ key, words: said, take } in offers.slice(0, OFFERED)" :key="key" @click="take">{{
            said
          }}</el-button>
        </p>
        <p class="soft">Choose a split or a second column in the bar above.</p>
      </template>
    </template>
    <template #picture>
      <PictureCard
        label="Two samples"
        :title="result ? `quantiles of ${subject}` : 'two samples'"
        :panels="panels"
        :words="words"
        :why-not="none ?? run.whyNot.value"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Point at a mark to see its quantiles."
      />
    </template>
    <template #figures>
      <template v-if="result">
        <div class="card box"><FigureTable :rows="twoSamplesTests(result)" :heads="TWO_SAMPLES_COLUMNS" /></div>
        <div class="card box">
          <FigureTable :rows="twoSamplesFigures(result)" :heads="result.samples.map(({ name }) => name)" />
        </div>
      </template>
    </template>
    <template v-if="request" #sentences>
      <p v-if="names.length > 1" class="choice">
        Compare
        <TwoChoice :names="names" :chosen="request" called="sample" @choose="choose" />.
      </p>
      <MethodSentence :run="run" :subject="subject" />
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  padding: 6px 14px;
}
.choice {
  margin: 0;
  font: 15px/1.75 var(--serif);
}
.none {
  margin: 0;
  font: 400 19px/1.4 var(--serif);
}
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 10px 0 6px;
}
.offers .el-button {
  margin: 0;
}
</style>
