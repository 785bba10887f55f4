<script setup lang="ts">
import {
  curvesAnalysis,
  CURVES,
  POPULATION_FIELDS,
  curvesColumns,
  curvesFigures,
  curvesTable,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { curvesPanels } from '../../charts/pictures/simulated-power.js';
import { useStudy } from '../../stores/study.js';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import AnswerPage from '../../workbench/frame/answer-page.vue';
import { useRun } from '../../workbench/run/use-run.js';
import { useStage } from '../../workbench/frame/use-stage.js';
import PopulationEntry from './population-entry.vue';
import { usePopulation } from './use-population.js';

/** How often tests notice something, or err. */
const populated = usePopulation();
const store = useStudy();
const fixed = () => {
  const population = populated.run.request.value;
  return population && { ...population, ...populated.limits.value, alpha: store.study!.alpha };
};
const run = useRun(curvesAnalysis, populated.sample, { name: 'curves', fixed, elsewhere: POPULATION_FIELDS });
const stage = useStage({ runs: () => [run], about: populated.about });
const { result, request } = run;
const values = computed(() => request.value ?? undefined);
</script>

<template>
  <AnswerPage
    :analysis="curvesAnalysis"
    :run="run"
    :stage="stage"
    :keepable="!!result"
    label="Picture of the curves"
    :title="result ? `Proportion of p below ${result.alpha}` : 'power curves'"
    :draw="curvesPanels"
    :table="curvesTable"
    :figures="curvesFigures"
    :heads="result ? curvesColumns(result) : []"
    hint="Point at a mark to see its proportion. Lines are exact where a formula exists."
    :why-not="populated.run.whyNot.value"
    :mend="populated.from.value !== 'family'"
    :subject="populated.subject.value"
    :parts="CURVES.how"
    :values="values"
  >
    <template #above>
      <section class="card entry" aria-label="Question">
        <PopulationEntry :populated="populated" :mixing="request?.along === 'mixedShare'"
          ><MethodSentence
            class="rest"
            :run="run"
            :parts="CURVES.ask"
            :subject="populated.subject.value"
            :values="values"
        /></PopulationEntry>
      </section>
    </template>
  </AnswerPage>
</template>

<style scoped>
.entry {
  padding: 5px 16px;
}
.rest {
  display: inline;
}
</style>
