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
import AnswerPage from '../../../workbench/frame/answer-page.vue';
import TwoChoice from '../../../workbench/parts/two-choice.vue';
import { useTwo } from './use-two.js';

/** Whether two groups or columns come from one distribution. */
const { column, parts, groupings, names, run, stage, choose } = useTwo();
const { result, request } = run;
const subject = computed(() => `${request.value?.first ?? 'one'} and ${request.value?.second ?? 'another'}`);
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
  <AnswerPage
    :analysis="twoSamplesAnalysis"
    :run="run"
    :stage="stage"
    :empty="!column"
    :keepable="!!result"
    label="Two samples"
    :title="result ? `quantiles of ${subject}` : 'two samples'"
    :draw="twoSamplesPanels"
    :table="twoSamplesTable"
    :figures="twoSamplesTests"
    :heads="TWO_SAMPLES_COLUMNS"
    :shows="`Quantiles of ${subject} against each other.`"
    steps="mark"
    hint="Point at a mark to see its quantiles."
    :why-not="none"
    :asks="!!request"
    :subject="subject"
  >
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
    <template #figures>
      <div v-if="result" class="card box">
        <FigureTable :rows="twoSamplesFigures(result)" :heads="result.samples.map(({ name }) => name)" />
      </div>
    </template>
    <template v-if="request" #before>
      <p v-if="names.length > 1" class="choice">
        Compare
        <TwoChoice :names="names" :chosen="request" called="sample" @choose="choose" />.
      </p>
    </template>
  </AnswerPage>
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
