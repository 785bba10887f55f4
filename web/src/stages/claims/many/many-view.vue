<script setup lang="ts">
import { claimScreenAnalysis, claimScreenRows, claimScreenTable, type ClaimScreenRow } from '@verdict/core/analyses';
import { computed } from 'vue';
import { numbers, type ManyColumn } from '../../../workbench/parts/many-column.js';
import ManyPage from '../../../workbench/parts/many-page.vue';
import { useMany } from './use-many.js';

/** Many columns or groups against their own claims. */
const many = useMany();
const { result: found } = many.run;
const finding = computed(() => (found.value ? claimScreenAnalysis.finding(found.value) : []));
const rows = computed(() => (found.value ? claimScreenRows(found.value) : []));
const table = computed(() => {
  const { value: of } = found;
  return of && (() => claimScreenTable(of));
});
/** Rows without a p stay last, whichever way the others stand. */
const COLUMNS: ManyColumn<ClaimScreenRow>[] = [
  numbers('n', 'n', 70, ({ part }) => part.n),
  { prop: 'claimed', label: 'claimed', minWidth: 150 },
  { prop: 'found', label: 'observed', minWidth: 150 },
  numbers('p', 'p', 82, ({ part }) => part.pValue ?? 2),
  numbers('pHolm', 'adjusted p', 112, ({ part }) => part.pHolm ?? 2),
];
const departs = ({ part }: ClaimScreenRow) => (part.pHolm ?? 1) < (found.value?.alpha ?? 0);
</script>

<template>
  <ManyPage
    :many="many"
    :finding="finding"
    :rows="rows"
    :columns="COLUMNS"
    :departs="departs"
    :table="table"
    hint="Click a row to see its claim."
    note="The claims are entered on the card of each column in Readings: a mean or a target, and a standard deviation. With many columns, some differ from their claims by chance. “adjusted p” allows for that (Holm 1979)."
  />
</template>
