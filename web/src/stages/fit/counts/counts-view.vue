<script setup lang="ts">
import { COUNT_FIT_FIGURES, countFitAnalysis, countTable } from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { foundFigures } from '@verdict/core/road';
import { computed } from 'vue';
import { countPanels, type CountsAs } from '../../../charts/pictures/counts.js';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';
import { local } from '../../../language/language.js';
import AnswerPage from '../../../workbench/frame/answer-page.vue';
import { useCounts } from './use-counts.js';

/** Whether counts follow a Poisson or another count distribution: observed and expected counts. */
const { column, name, subject, cautions, others, binomial, trials, run, stage, as } = useCounts();
const { result } = run;
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
</script>

<template>
  <AnswerPage
    :analysis="countFitAnalysis"
    :run="run"
    :stage="stage"
    :empty="!column"
    :cautions="cautions"
    label="Counts"
    :title="`${name} observed and expected`"
    :draw="(found) => countPanels(found, name, as)"
    :table="countTable"
    :figures="(found) => foundFigures(COUNT_FIT_FIGURES, [found])"
    :shows="`Observed and expected counts of ${name}.`"
    steps="value"
    hint="Point at a bar to see its values."
    :subject="subject"
  >
    <template #choices>
      <el-segmented v-model="as" size="small" :options="AS" aria-label="Display of the counts" />
    </template>
    <template #figures>
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
      <p v-if="binomial" class="trials">
        Column with the trials of each count:
        <SentenceChoice v-model="trials" aria-label="column of trials" :options="TRIALS" />.
      </p>
    </template>
  </AnswerPage>
</template>

<style scoped>
p {
  margin: 0;
  font-size: 13px;
}
.trials {
  font: 15px/1.75 var(--serif);
}
</style>
