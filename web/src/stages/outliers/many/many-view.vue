<script setup lang="ts">
import {
  outlierScreenAnalysis,
  outlierScreenRows,
  outlierScreenTable,
  type OutlierScreenRow,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { numbers, type ManyColumn } from '../../../workbench/parts/many-column.js';
import ManyPage from '../../../workbench/parts/many-page.vue';
import { useMany } from './use-many.js';

/** Many columns or groups: how many readings the rule of the study flags in each. */
const many = useMany();
const { result: found } = many.run;
const finding = computed(() => (found.value ? outlierScreenAnalysis.finding(found.value) : []));
const rows = computed(() => (found.value ? outlierScreenRows(found.value) : []));
const table = computed(() => {
  const { value: of } = found;
  return of && (() => outlierScreenTable(of));
});
/** Rows without a p stay last, whichever way the others stand. */
const COLUMNS: ManyColumn<OutlierScreenRow>[] = [
  numbers('n', 'n', 70, ({ part }) => part.n),
  { prop: 'farthest', label: 'most extreme', minWidth: 170 },
  numbers('p', 'p', 82, ({ part }) => part.test?.pValue ?? 2),
  numbers('pHolm', 'adjusted p', 112, ({ part }) => part.pHolm ?? 2),
  { prop: 'names', label: 'flagged', minWidth: 110, by: ({ part }) => part.rows?.length ?? -1 },
];
const departs = ({ part }: OutlierScreenRow) => (part.rows?.length ?? 0) > 0;
</script>

<template>
  <ManyPage
    :many="many"
    :finding="finding"
    :rows="rows"
    :columns="COLUMNS"
    :departs="departs"
    :table="table"
    :change="many.change"
    hint="Click a row to see its outliers."
    note="With many columns, some contain extreme readings by chance. “adjusted p” allows for that (Holm 1979): readings are flagged if it is below the significance level."
  />
</template>
