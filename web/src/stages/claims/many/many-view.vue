<script setup lang="ts">
import { claimScreenAnalysis, claimScreenRows, claimScreenTable, type ClaimScreenRow } from '@verdict/core/analyses';
import { computed } from 'vue';
import { local } from '../../../language/language.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import SeveralCard from '../../../workbench/parts/several-card.vue';
import SeveralChoice from '../../../workbench/parts/several-choice.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useMany } from './use-many.js';

/** Many columns or groups at once, a row each, against their own claims. */
const { column, split, all, chosen, subject, cautions, run, stage, open } = useMany();
const { result } = run;
const finding = computed(() => (result.value ? claimScreenAnalysis.finding(result.value) : []));
const rows = computed(() => (result.value ? claimScreenRows(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => claimScreenTable(of));
});
const by = (of: (row: ClaimScreenRow) => number) => (a: ClaimScreenRow, b: ClaimScreenRow) => of(a) - of(b);
/** Rows without a p stay last, whichever way the others stand. */
const byP = by(({ part }) => part.pValue ?? 2);
const byShared = by(({ part }) => part.pHolm ?? 2);
const classOf = ({ row }: { row: ClaimScreenRow }) =>
  (row.part.pHolm ?? 1) < (result.value?.alpha ?? 0) ? 'departs' : '';
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
        hint="Click a row to see its claim."
        @open="open"
      >
        <el-table-column prop="name" :label="split ? split.name : 'column'" sortable min-width="140">
          <template #default="{ row }">
            <el-button link class="name" @click.stop="open(row.name)">{{ row.name }}</el-button>
            <span v-if="row.reason" class="soft reason" :title="row.reason">{{ local(row.reason) }}</span>
          </template>
        </el-table-column>
        <el-table-column prop="n" label="n" sortable :sort-method="by(({ part }) => part.n)" align="right" width="70" />
        <el-table-column prop="claimed" label="claimed" min-width="150" />
        <el-table-column prop="found" label="observed" min-width="150" />
        <el-table-column prop="p" label="p" sortable :sort-method="byP" align="right" width="82" />
        <el-table-column prop="pHolm" label="adjusted p" sortable :sort-method="byShared" align="right" width="92" />
      </SeveralCard>
    </template>
    <template #figures>
      <SeveralChoice v-model="chosen" :split="!!split" :numeric="all" />
      <p class="soft">
        The claims are entered on the card of each column in Readings: a mean or a target, and a standard deviation.
        With many columns, some differ from their claims by chance. “adjusted p” allows for that (Holm 1979).
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
