<script setup lang="ts">
import {
  conventionWords,
  distributionTable,
  permutationAnalysis,
  PERMUTATION,
  permutationFigures,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { permutationPanels } from '../../charts/pictures/resample.js';
import FigureTable from '../../components/figures/figure-table.vue';
import { useRun } from '../../workbench/run/use-run.js';
import ResamplePage from './resample-page.vue';
import { useAsked } from './use-asked.js';

/** Could chance alone do it: labels, signs or pairs shuffled. */
const asked = useAsked('permutation');
const run = useRun(permutationAnalysis, asked.sample, { name: 'shuffle', fixed: asked.fixed });
const { result, request } = run;
const MOST_COUNTED = 2_000_000;
const canCount = computed(() => (result.value?.arrangements ?? Infinity) <= MOST_COUNTED);
/** All arrangements are gone through. */
const all = computed(() => canCount.value && request.value?.way === 'all');
const finding = computed(() => (result.value ? permutationAnalysis.finding(result.value) : []));
const rows = computed(() => (result.value ? permutationFigures(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => distributionTable(of));
});
const set = (count: number | null) =>
  run.address.setAll(
    count === null
      ? { way: undefined, replicates: undefined }
      : { way: canCount.value ? 'drawn' : undefined, replicates: count },
  );
const heads = computed(() =>
  result.value?.design === 'pairs'
    ? { group: 'second', now: 'paired with' }
    : result.value?.design === 'signs'
      ? { group: 'lies', now: 'now' }
      : { group: 'group', now: 'now in' },
);
</script>

<template>
  <ResamplePage
    :asked="asked"
    :run="run"
    :analysis="permutationAnalysis"
    :sentence="PERMUTATION"
    :by="all ? 'counting' : 'shuffling'"
    :count="all ? (result?.exact?.total ?? 0) : (result?.replicates ?? 0)"
    :steps="all ? null : (request?.replicates ?? 0)"
    :all="canCount"
    :finding="finding"
    :after="result ? conventionWords(result) : null"
    :title="result ? `${result.what}, permutation test` : 'permutation test'"
    :draw="(chosen) => (result ? permutationPanels(result, chosen) : null)"
    :table="table"
    :orders="all ? 'all' : 'first'"
    :heads="heads"
    @set="set"
  >
    <div v-if="rows.length" class="card box"><FigureTable :rows="rows" /></div>
  </ResamplePage>
</template>

<style scoped>
.box {
  padding: 6px 14px;
}
</style>
