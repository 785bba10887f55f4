<script setup lang="ts">
import { PLAN_COLUMNS, PLANS, plansAnalysis, plansFigures, plansTable } from '@verdict/core/analyses';
import { computed } from 'vue';
import { plansPanels } from '../../charts/pictures/resample.js';
import FigureTable from '../../components/figures/figure-table.vue';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../workbench/picture/picture-card.vue';
import StageFrame from '../../workbench/frame/stage-frame.vue';
import { useRun } from '../../workbench/run/use-run.js';
import { useStage } from '../../workbench/frame/use-stage.js';
import AskedEntry from './asked-entry.vue';
import { useAsked } from './use-asked.js';

/** How much surer larger samples would be. */
const asked = useAsked('bootstrap');
const run = useRun(plansAnalysis, asked.sample, { name: 'plans', fixed: asked.fixed });
const stage = useStage({ runs: () => [run], about: asked.about });
const { result, request } = run;
const finding = computed(() => (result.value ? plansAnalysis.finding(result.value) : []));
const panels = computed(() => result.value && plansPanels(result.value));
const rows = computed(() => (result.value ? plansFigures(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => plansTable(of));
});
const subject = computed(() =>
  request.value ? plansAnalysis.subject!(request.value) : asked.looked.value.name || 'typed counts',
);
const values = computed(() => {
  if (request.value) return request.value;
  const read = plansAnalysis.request.safeParse(run.address.settings.value);
  return read.success ? read.data : undefined;
});
const title = computed(() => (result.value ? `${result.value.what} at larger sample sizes` : 'larger samples'));
const words = computed(() => finding.value.map(({ text }) => text).join(''));
const whyNot = computed(() => {
  const { problem } = asked.counts.fault.value;
  return asked.typed.value && problem ? problem : run.whyNot.value;
});
</script>

<template>
  <StageFrame :runs="stage" :finding="finding" :keepable="!!result">
    <template #above>
      <AskedEntry :asked="asked" :run="run" :sentence="PLANS" :subject="subject" :values="values" />
    </template>
    <template #picture>
      <PictureCard
        label="Picture of larger samples"
        :title="title"
        :panels="panels"
        :words="words"
        :why-not="whyNot"
        :mend="!asked.typed.value"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Point at a line to see its values."
      />
    </template>
    <template #figures>
      <div v-if="rows.length" class="card box"><FigureTable :rows="rows" :heads="PLAN_COLUMNS" /></div>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :parts="PLANS.how" :subject="subject" :values="values" />
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  padding: 6px 14px;
}
</style>
