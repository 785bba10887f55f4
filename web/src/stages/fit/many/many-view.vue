<script setup lang="ts">
import { screenAnalysis, screenRows, screenTable, type ScreenRow } from '@verdict/core/analyses';
import { computed } from 'vue';
import SmallPlot from '../../../components/small-plot.vue';
import { numbers, type ManyColumn } from '../../../workbench/parts/many-column.js';
import ManyPage from '../../../workbench/parts/many-page.vue';
import { useMany } from './use-many.js';

/** Which of many columns depart from normal, and what describes each best. */
const many = useMany();
const { result: found } = many.run;
const finding = computed(() => (found.value ? screenAnalysis.finding(found.value) : []));
const rows = computed(() => (found.value ? screenRows(found.value) : []));
const table = computed(() => {
  const { value: of } = found;
  return of && (() => screenTable(of));
});
/** Rows without a test stay last, whichever way the others stand. */
const COLUMNS: ManyColumn<ScreenRow>[] = [
  numbers('n', 'n', 64, ({ part }) => part.n),
  numbers('p', 'p', 78, ({ part }) => part.p ?? 2),
  numbers('pHolm', 'adjusted p', 112, ({ part }) => part.pHolm ?? 2),
];
const departs = ({ departs }: ScreenRow) => departs;
</script>

<template>
  <ManyPage
    :many="many"
    :finding="finding"
    :rows="rows"
    :columns="COLUMNS"
    :departs="departs"
    :table="table"
    hint="Click a row to see its plot and test. The line through the dots shows a normal distribution."
    note="With many tests, some give a small p by chance. “adjusted p” allows for that (Holm 1979), and the result uses it. “Rounding explains it” means that the resolution of the instrument explains the departure."
  >
    <el-table-column label="plot" width="58">
      <template #default="{ row }">
        <SmallPlot v-if="row.part.small" :expected="row.part.small.expected" :observed="row.part.small.observed" />
      </template>
    </el-table-column>
    <template #last>
      <el-table-column prop="ruling" label="result" sortable width="112" />
      <el-table-column prop="best" label="best by AICc" sortable min-width="130">
        <template #default="{ row }">
          {{ row.best }}<span v-if="row.others" class="soft"> or {{ row.others }} more</span>
        </template>
      </el-table-column>
    </template>
  </ManyPage>
</template>
