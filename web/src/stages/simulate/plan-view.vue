<script setup lang="ts">
import { planAnalysis, PLAN, POPULATION_FIELDS, planFigures, PLANNED_COLUMNS, planTable } from '@verdict/core/analyses';
import { computed } from 'vue';
import { planPanels } from '../../charts/pictures/simulated-power.js';
import { useStudy } from '../../stores/study.js';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import AnswerPage from '../../workbench/frame/answer-page.vue';
import { useRun } from '../../workbench/run/use-run.js';
import { useStage } from '../../workbench/frame/use-stage.js';
import PopulationEntry from './population-entry.vue';
import { usePopulation } from './use-population.js';

/** How many readings a test needs to notice something. */
const populated = usePopulation();
const store = useStudy();
/** Something to notice, where nothing is said: half an sd. */
const USUAL_SHIFT = 0.5;
const fixed = () => {
  const population = populated.run.request.value;
  return population && { ...population, ...populated.limits.value, alpha: store.study!.alpha };
};
const settled = (settings: Record<string, unknown>) =>
  settings.shift === undefined && settings.shiftInSd === undefined && settings.ratio === undefined
    ? { ...settings, shiftInSd: USUAL_SHIFT }
    : settings;
const run = useRun(planAnalysis, populated.sample, { name: 'plan', fixed, settled, elsewhere: POPULATION_FIELDS });
const stage = useStage({ runs: () => [run], about: populated.about });
const { result, request } = run;
const values = computed(() => request.value ?? undefined);
</script>

<template>
  <AnswerPage
    :analysis="planAnalysis"
    :run="run"
    :stage="stage"
    :keepable="!!result"
    label="Picture of the sizes tried"
    :title="result ? `Sample size for the ${result.name}` : 'sample size'"
    :draw="planPanels"
    :table="planTable"
    :figures="planFigures"
    :heads="PLANNED_COLUMNS"
    hint="Point at a mark to see its probability."
    :why-not="populated.run.whyNot.value"
    :mend="false"
    :subject="populated.subject.value"
    :parts="PLAN.how"
    :values="values"
  >
    <template #above>
      <section class="card entry" aria-label="Question">
        <MethodSentence :run="run" :parts="PLAN.ask" :subject="populated.subject.value" :values="values" />
        <PopulationEntry :populated="populated"
          ><MethodSentence
            class="rest"
            :run="run"
            :parts="PLAN.shift"
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
