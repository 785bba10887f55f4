<script setup lang="ts">
import { screenAnalysis, screenRows, screenTable, type ScreenRow } from '@verdict/core/analyses';
import { computed } from 'vue';
import SmallPlot from '../../../components/small-plot.vue';
import { local } from '../../../language/language.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import SeveralCard from '../../../workbench/parts/several-card.vue';
import SeveralChoice from '../../../workbench/parts/several-choice.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useMany } from './use-many.js';

/** Many columns or groups at once, a row each: which depart from normal, the level shared among them, and what describes each best. */
const { column, split, numeric, chosen, subject, cautions, run, stage, open } = useMany();
const { result } = run;
const table = computed(() => {
  const { value: of } = result;
  return of && (() => screenTable(of));
});
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
      <SeveralCard
        :subject="subject"
        :rows="rows"
        :table="table"
        :why-not="run.whyNot.value"
        :row-class="classOf"
        sort="p"
        hint="Click a row to see its plot and test. The line through the dots shows a normal distribution."
        @open="open"
      >
        <el-table-column label="plot" width="58">
          <template #default="{ row }">
            <SmallPlot v-if="row.part.small" :expected="row.part.small.expected" :observed="row.part.small.observed" />
          </template>
        </el-table-column>
        <el-table-column prop="name" :label="what" sortable min-width="150">
          <template #default="{ row }">
            <el-button link class="name" @click.stop="open(row.name)">{{ row.name }}</el-button>
            <span v-if="row.reason" class="soft reason" :title="row.reason">{{ local(row.reason) }}</span>
          </template>
        </el-table-column>
        <el-table-column prop="n" label="n" sortable :sort-method="byN" align="right" width="64" />
        <el-table-column prop="p" label="p" sortable :sort-method="byP('p')" align="right" width="78" />
        <el-table-column
          prop="pHolm"
          label="adjusted p"
          sortable
          :sort-method="byP('pHolm')"
          align="right"
          width="92"
        />
        <el-table-column prop="ruling" label="result" sortable width="112" />
        <el-table-column prop="best" label="best by AICc" sortable min-width="130">
          <template #default="{ row }">
            {{ row.best }}<span v-if="row.others" class="soft"> or {{ row.others }} more</span>
          </template>
        </el-table-column>
      </SeveralCard>
    </template>
    <template #figures>
      <SeveralChoice v-model="chosen" :split="!!split" :numeric="numeric" />
      <p class="soft">
        With many tests, some give a small p by chance. “adjusted p” allows for that (Holm 1979), and the result uses
        it. “Rounding explains it” means that the resolution of the instrument explains the departure.
      </p>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="subject" />
    </template>
  </StageFrame>
</template>

<style scoped>
p {
  margin: 0;
  font-size: 13px;
}
</style>
