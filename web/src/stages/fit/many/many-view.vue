<script setup lang="ts">
import { screenAnalysis, screenRows, screenTable, type ScreenRow } from '@verdict/core/analyses';
import { computed, defineAsyncComponent, ref } from 'vue';
import SmallPlot from '../../../components/small-plot.vue';
import MethodSentence from '../../../workbench/method-sentence.vue';
import StageFrame from '../../../workbench/stage-frame.vue';
import { useMany } from './use-many.js';

/** Many columns or groups at once, a row each: which depart from normal, the level shared among them, and what describes each best. */
const TableDialog = defineAsyncComponent(() => import('../../../workbench/table-dialog.vue'));
const { column, split, numeric, chosen, subject, cautions, run, stage, open } = useMany();
const { result } = run;
const tableOpen = ref(false);
const finding = computed(() => (result.value ? screenAnalysis.finding(result.value) : []));
const rows = computed(() => (result.value ? screenRows(result.value) : []));
/** Rows without a test stay last, whichever way the others stand. */
const byP = (of: 'p' | 'pHolm') => (a: ScreenRow, b: ScreenRow) => (a.part[of] ?? 2) - (b.part[of] ?? 2);
const byN = (a: ScreenRow, b: ScreenRow) => a.part.n - b.part.n;
const classOf = ({ row }: { row: ScreenRow }) => (row.departs ? 'departs' : '');
const what = computed(() => (split.value ? split.value.name : 'column'));
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :cautions="cautions" :keepable="!!result">
    <template #picture>
      <section class="card many" aria-label="Many columns">
        <div class="title">
          <h2>{{ subject }} at once</h2>
          <el-button link :disabled="!result" @click="tableOpen = true">Table</el-button>
        </div>
        <p v-if="run.whyNot.value">{{ run.whyNot.value }}</p>
        <div v-else class="rows">
          <el-table
            :data="rows"
            height="100%"
            size="small"
            :row-class-name="classOf"
            :default-sort="{ prop: 'p', order: 'ascending' }"
            @row-click="(row: ScreenRow) => open(row.name)"
          >
            <el-table-column label="plot" width="58">
              <template #default="{ row }">
                <SmallPlot
                  v-if="row.part.small"
                  :expected="row.part.small.expected"
                  :observed="row.part.small.observed"
                />
              </template>
            </el-table-column>
            <el-table-column prop="name" :label="what" sortable min-width="150">
              <template #default="{ row }">
                <el-button link class="name" @click.stop="open(row.name)">{{ row.name }}</el-button>
                <span v-if="row.reason" class="soft reason" :title="row.reason">{{ row.reason }}</span>
              </template>
            </el-table-column>
            <el-table-column prop="n" label="n" sortable :sort-method="byN" align="right" width="64" />
            <el-table-column prop="p" label="p" sortable :sort-method="byP('p')" align="right" width="78" />
            <el-table-column
              prop="pHolm"
              label="p shared"
              sortable
              :sort-method="byP('pHolm')"
              align="right"
              width="92"
            />
            <el-table-column prop="ruling" label="ruling" sortable width="112" />
            <el-table-column prop="best" label="best family" sortable min-width="130">
              <template #default="{ row }">
                {{ row.best }}<span v-if="row.others" class="soft"> or {{ row.others }} more</span>
              </template>
            </el-table-column>
          </el-table>
        </div>
        <p class="soft hint">Click a row for its plot and test. A line through its dots is what a normal one has.</p>
      </section>
      <TableDialog
        v-if="tableOpen && result"
        :title="`Table of ${subject}`"
        :rows="screenTable(result)"
        @close="tableOpen = false"
      />
    </template>
    <template #figures>
      <label v-if="!split && numeric.length > 1" class="chosen"
        >Columns
        <el-select
          v-model="chosen"
          multiple
          collapse-tags
          filterable
          size="small"
          aria-label="Columns that are looked at"
        >
          <el-option v-for="{ id, name } in numeric" :key="id" :value="id" :label="name" />
        </el-select>
      </label>
      <p class="soft">
        Of many tests some find something where there is nothing. “p shared” allows for that: it is compared with the
        level, and by it all rulings stand (Holm 1979). “Rounding alone” says that steps of the instrument explain a
        departure.
      </p>
      <p v-if="!split && numeric.length === 1" class="soft">
        There is one column of numbers. Split it in the bar above to look at its groups.
      </p>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="subject" />
    </template>
  </StageFrame>
</template>

<style scoped>
.many {
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 12px 16px 10px;
}
.title {
  display: flex;
  align-items: baseline;
}
h2 {
  flex: 1;
  margin: 0 0 4px;
  font-size: 15px;
  font-weight: 600;
}
.rows {
  flex: 1;
  min-height: 0;
}
.rows .name.el-button {
  padding: 0;
  border: 0;
  color: var(--ink);
}
.reason {
  display: -webkit-box;
  overflow: hidden;
  font-size: 12px;
  line-height: 1.3;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
:deep(.departs td) {
  background: var(--tint);
}
:deep(.el-table__row) {
  cursor: pointer;
}
.chosen {
  display: flex;
  gap: 10px;
  align-items: center;
  font-size: 13px;
}
p {
  margin: 0;
  font-size: 13px;
}
.hint {
  min-height: 22px;
  margin-top: 2px;
}
@media (max-width: 900px) {
  .many {
    height: 560px;
  }
}
</style>
