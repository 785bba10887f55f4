<script setup lang="ts">
import {
  outlierScreenAnalysis,
  outlierScreenRows,
  outlierScreenTable,
  type OutlierScreenRow,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { local } from '../../../language/language.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import SeveralCard from '../../../workbench/parts/several-card.vue';
import SeveralChoice from '../../../workbench/parts/several-choice.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useMany } from './use-many.js';

/** Many columns or groups at once, a row each: how many readings the rule of the study names. */
const { column, split, numeric, chosen, subject, cautions, run, stage, change, open } = useMany();
const { result } = run;
const finding = computed(() => (result.value ? outlierScreenAnalysis.finding(result.value) : []));
const rows = computed(() => (result.value ? outlierScreenRows(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => outlierScreenTable(of));
});
const by = (of: (row: OutlierScreenRow) => number) => (a: OutlierScreenRow, b: OutlierScreenRow) => of(a) - of(b);
/** Rows without a p stay last, whichever way the others stand. */
const byP = by(({ part }) => part.test?.pValue ?? 2);
const byShared = by(({ part }) => part.pHolm ?? 2);
const byNamed = by(({ part }) => part.rows?.length ?? -1);
const classOf = ({ row }: { row: OutlierScreenRow }) => (row.part.rows?.length ? 'departs' : '');
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
        hint="Click a row to see its outliers."
        @open="open"
      >
        <el-table-column prop="name" :label="split ? split.name : 'column'" sortable min-width="140">
          <template #default="{ row }">
            <el-button link class="name" @click.stop="open(row.name)">{{ row.name }}</el-button>
            <span v-if="row.reason" class="soft reason" :title="row.reason">{{ local(row.reason) }}</span>
          </template>
        </el-table-column>
        <el-table-column prop="n" label="n" sortable :sort-method="by(({ part }) => part.n)" align="right" width="70" />
        <el-table-column prop="farthest" label="most extreme" min-width="170" />
        <el-table-column prop="p" label="p" sortable :sort-method="byP" align="right" width="82" />
        <el-table-column prop="pHolm" label="adjusted p" sortable :sort-method="byShared" align="right" width="92" />
        <el-table-column prop="names" label="flagged" sortable :sort-method="byNamed" min-width="110" />
      </SeveralCard>
    </template>
    <template #figures>
      <SeveralChoice v-model="chosen" :split="!!split" :numeric="numeric" />
      <p class="soft">
        With many columns, some contain extreme readings by chance. “adjusted p” allows for that (Holm 1979): readings
        are flagged if it is below the significance level.
      </p>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="subject" :change="change" />
    </template>
  </StageFrame>
</template>

<style scoped>
p {
  margin: 0;
  font-size: 13px;
}
</style>
