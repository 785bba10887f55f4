<script setup lang="ts" generic="Row extends { name: string; reason?: string | null }">
import type { Piece } from '@verdict/core/road';
import { computed } from 'vue';
import type { FieldValue } from '../run/field-values.js';
import StageFrame from '../frame/stage-frame.vue';
import MethodSentence from '../sentence/method-sentence.vue';
import type { Rows } from '../picture/rows.js';
import type { ManyColumn } from './many-column.js';
import ManyTable from './many-table.vue';
import SeveralChoice from './several-choice.vue';
import type { ManyRun } from './use-several.js';

/** Many columns or groups in a table, a row each, in place of a picture; a row opens its own page. */
const props = defineProps<{
  many: ManyRun;
  finding: readonly Piece[];
  rows: readonly Row[];
  /** After the name. */
  columns: readonly ManyColumn<Row>[];
  /** True where a row stands out. */
  departs: (row: Row) => boolean;
  table: (() => Rows) | null;
  hint: string;
  /** What the table means. */
  note: string;
  change?: (field: string, value: FieldValue) => void;
}>();
const { column, split, all, chosen, subject, cautions, run, stage, open } = props.many;
const heading = computed(() => split.value?.name ?? 'column');
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :cautions="cautions" :keepable="rows.length > 0">
    <template #picture>
      <ManyTable
        :subject="subject"
        :heading="heading"
        :rows="rows"
        :columns="columns"
        :departs="departs"
        :table="table"
        :why-not="run.whyNot.value"
        :hint="hint"
        @open="open"
      >
        <slot />
        <template #last><slot name="last" /></template>
      </ManyTable>
    </template>
    <template #figures>
      <SeveralChoice v-model="chosen" :split="!!split" :numeric="all" />
      <p class="soft">{{ note }}</p>
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
