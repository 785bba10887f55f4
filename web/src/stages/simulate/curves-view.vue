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
import FigureTable from '../../components/figures/figure-table.vue';
import { useStudy } from '../../stores/study.js';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../workbench/picture/picture-card.vue';
import StageFrame from '../../workbench/frame/stage-frame.vue';
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
const finding = computed(() => (result.value ? curvesAnalysis.finding(result.value) : []));
const panels = computed(() => (result.value ? curvesPanels(result.value) : null));
const rows = computed(() => (result.value ? curvesFigures(result.value) : []));
const heads = computed(() => (result.value ? curvesColumns(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => curvesTable(of));
});
const words = computed(() => finding.value.map(({ text }) => text).join(''));
const values = computed(() => request.value ?? undefined);
const title = computed(() => (result.value ? `Proportion of p below ${result.value.alpha}` : 'power curves'));
</script>

<template>
  <StageFrame :runs="stage" :finding="finding" :keepable="!!result">
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
    <template #picture>
      <PictureCard
        label="Picture of the curves"
        :title="title"
        :panels="panels"
        :words="words"
        :why-not="populated.run.whyNot.value ?? run.whyNot.value"
        :mend="populated.from.value !== 'family'"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Point at a mark to see its proportion. Lines are exact where a formula exists."
      />
    </template>
    <template #figures>
      <div v-if="rows.length" class="card box"><FigureTable :rows="rows" :heads="heads" /></div>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :parts="CURVES.how" :subject="populated.subject.value" :values="values" />
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
