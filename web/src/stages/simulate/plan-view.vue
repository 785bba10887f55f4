<script setup lang="ts">
import { planAnalysis, PLAN, POPULATION_FIELDS, planFigures, PLANNED_COLUMNS, planTable } from '@verdict/core/analyses';
import { computed } from 'vue';
import { planPanels } from '../../charts/pictures/simulated-power.js';
import FigureTable from '../../components/figures/figure-table.vue';
import { useStudy } from '../../stores/study.js';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../workbench/picture/picture-card.vue';
import StageFrame from '../../workbench/frame/stage-frame.vue';
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
const finding = computed(() => (result.value ? planAnalysis.finding(result.value) : []));
const panels = computed(() => (result.value ? planPanels(result.value) : null));
const rows = computed(() => (result.value ? planFigures(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => planTable(of));
});
const words = computed(() => finding.value.map(({ text }) => text).join(''));
const values = computed(() => request.value ?? undefined);
const title = computed(() => (result.value ? `Sample size for the ${result.value.name}` : 'sample size'));
</script>

<template>
  <StageFrame :runs="stage" :finding="finding" :keepable="!!result">
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
    <template #picture>
      <PictureCard
        label="Picture of the sizes tried"
        :title="title"
        :panels="panels"
        :words="words"
        :why-not="populated.run.whyNot.value ?? run.whyNot.value"
        :mend="false"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Point at a mark to see its probability."
      />
    </template>
    <template #figures>
      <div v-if="rows.length" class="card box"><FigureTable :rows="rows" :heads="PLANNED_COLUMNS" /></div>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :parts="PLAN.how" :subject="populated.subject.value" :values="values" />
    </template>
  </StageFrame>
</template>

<style scoped>
.entry {
  padding: 5px 16px;
}
.rest {
  display: inline;
}
.box {
  padding: 6px 14px;
}
</style>
