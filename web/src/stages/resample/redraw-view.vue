<script setup lang="ts">
import {
  besideWords,
  bootstrapAnalysis,
  BOOTSTRAP,
  bootstrapFigures,
  distributionTable,
  INTERVAL_COLUMNS,
  intervalFigures,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { bootstrapPanels } from '../../charts/pictures/resample.js';
import FigureTable from '../../components/figures/figure-table.vue';
import { useRun } from '../../workbench/run/use-run.js';
import ResamplePage from './resample-page.vue';
import { useAsked } from './use-asked.js';

/** How sure is a figure: the bootstrap. */
const asked = useAsked('bootstrap');
const run = useRun(bootstrapAnalysis, asked.sample, { name: 'redraw', fixed: asked.fixed });
const { result } = run;
const finding = computed(() => (result.value ? bootstrapAnalysis.finding(result.value) : []));
const rows = computed(() => (result.value ? bootstrapFigures(result.value) : []));
const intervals = computed(() => (result.value ? intervalFigures(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => distributionTable(of));
});
</script>

<template>
  <ResamplePage
    :asked="asked"
    :run="run"
    :analysis="bootstrapAnalysis"
    :sentence="BOOTSTRAP"
    by="redrawing"
    :count="result?.replicates ?? 0"
    :steps="run.request.value?.replicates ?? 0"
    :finding="finding"
    :after="result ? besideWords(result) : null"
    :title="result ? `${result.what}, bootstrap` : 'bootstrap'"
    :draw="(chosen) => (result ? bootstrapPanels(result, chosen) : null)"
    :table="table"
    orders="first"
    :heads="{ group: 'of', now: 'in the replicate' }"
    @set="(count) => run.address.set('replicates', count ?? undefined)"
  >
    <div v-if="intervals.length" class="card box"><FigureTable :rows="intervals" :heads="INTERVAL_COLUMNS" /></div>
    <div v-if="rows.length" class="card box"><FigureTable :rows="rows" /></div>
  </ResamplePage>
</template>

<style scoped>
.box {
  padding: 6px 14px;
}
</style>
