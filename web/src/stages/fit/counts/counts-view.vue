<script setup lang="ts">
import { COUNT_FIT_FIGURES, countFitAnalysis, countTable } from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { foundFigures } from '@verdict/core/road';
import { computed } from 'vue';
import { countPanels, type CountsAs } from '../../../charts/pictures/counts.js';
import FigureTable from '../../../components/figures/figure-table.vue';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';
import { local } from '../../../language/language.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useCounts } from './use-counts.js';

/** Do counts follow Poisson, or another family of counts: what was observed and expected counts. */
const { column, name, subject, cautions, others, binomial, trials, run, stage, as } = useCounts();
const { result } = run;
const finding = computed(() => (result.value ? countFitAnalysis.finding(result.value) : []));
const panels = computed(() => result.value && countPanels(result.value, name.value, as.value));
const rows = computed(() => (result.value ? foundFigures(COUNT_FIT_FIGURES, [result.value]) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => countTable(of));
});
const AS: { value: CountsAs; label: string }[] = [
  { value: 'beside', label: 'Side by side' },
  { value: 'hanging', label: 'Hanging rootogram' },
];
const TRIALS = computed(() => [
  { value: '', text: 'no column' },
  ...others.value.map(({ id, name: text }) => ({ value: id, text })),
]);
const families = computed(() => result.value?.families ?? []);
const apart = computed(() => result.value?.apart ?? []);
const titleOf = (family: string) => familyByName(family).title;
const words = computed(
  () =>
    `Observed and expected counts of ${name.value}. ${finding.value.map(({ text }) => text).join('')} Arrow keys step from value to value.`,
);
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :cautions="cautions">
    <template #picture>
      <PictureCard
        label="Counts"
        :title="`${name} observed and expected`"
        :panels="panels"
        :words="words"
        :why-not="run.whyNot.value"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Point at a bar to see its values."
      >
        <template #choices>
          <el-segmented v-model="as" size="small" :options="AS" aria-label="Display of the counts" />
        </template>
      </PictureCard>
    </template>
    <template #figures>
      <div v-if="rows.length" class="card box"><FigureTable :rows="rows" /></div>
      <p v-if="families.length > 1" class="soft">
        By AICc:
        <template v-for="(one, i) in families" :key="one.family"
          >{{ i > 0 ? ', ' : ''
          }}<el-button
            link
            :aria-pressed="one.family === result?.family"
            @click="run.address.set('family', one.family)"
            >{{ titleOf(one.family) }}</el-button
          >
          {{ i === 0 ? 'first' : `+${local(String(Number(one.difference.toPrecision(2))))}` }}</template
        ><template v-if="apart.length"
          >; not ranked, because its limits are estimated from the extremes:
          <el-button
            v-for="one in apart"
            :key="one.family"
            link
            :aria-pressed="one.family === result?.family"
            @click="run.address.set('family', one.family)"
            >{{ titleOf(one.family) }}</el-button
          ></template
        >.
      </p>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="subject" />
      <p v-if="binomial" class="trials">
        Column with the trials of each count:
        <SentenceChoice v-model="trials" aria-label="column of trials" :options="TRIALS" />.
      </p>
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  padding: 6px 14px;
}
p {
  margin: 0;
  font-size: 13px;
}
.trials {
  font: 15px/1.75 var(--serif);
}
</style>
