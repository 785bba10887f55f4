<script setup lang="ts" generic="Row extends { name: string; reason?: string | null }">
import type { Piece } from '@verdict/core/road';
import { computed, defineAsyncComponent, ref } from 'vue';
import { local } from '../../language/language.js';
import type { FieldValue } from '../run/field-values.js';
import StageFrame from '../frame/stage-frame.vue';
import MethodSentence from '../sentence/method-sentence.vue';
import type { Rows } from '../picture/rows.js';
import type { ManyColumn } from './many-column.js';
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
const TableDialog = defineAsyncComponent(() => import('../picture/table-dialog.vue'));
const tableOpen = ref(false);
const { column, split, all, chosen, subject, cautions, run, stage, open } = props.many;
const classOf = ({ row }: { row: Row }) => (props.departs(row) ? 'departs' : '');
/** By its number, where it has one; by its text otherwise. */
const order = ({ by }: ManyColumn<Row>) =>
  by ? { sortable: true, sortMethod: (a: Row, b: Row) => by(a) - by(b) } : {};
const heading = computed(() => split.value?.name ?? 'column');
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :cautions="cautions" :keepable="rows.length > 0">
    <template #picture>
      <section class="card many" aria-label="Many columns">
        <div class="title">
          <h2>{{ subject }} together</h2>
          <el-button link :disabled="!table" @click="tableOpen = true">Table</el-button>
        </div>
        <p v-if="run.whyNot.value">{{ local(run.whyNot.value) }}</p>
        <div v-else class="rows">
          <el-table
            :data="[...rows]"
            height="100%"
            size="small"
            :row-class-name="classOf"
            :default-sort="{ prop: 'p', order: 'ascending' }"
            @row-click="(row: Row) => open(row.name)"
          >
            <slot />
            <el-table-column prop="name" :label="heading" sortable min-width="140">
              <template #default="{ row }">
                <el-button link class="name" @click.stop="open(row.name)">{{ row.name }}</el-button>
                <span v-if="row.reason" class="soft reason" :title="row.reason">{{ local(row.reason) }}</span>
              </template>
            </el-table-column>
            <el-table-column
              v-for="one in columns"
              :key="one.prop"
              :prop="one.prop"
              :label="one.label"
              :width="one.width"
              :min-width="one.minWidth"
              :align="one.align"
              v-bind="order(one)"
            />
            <slot name="last" />
          </el-table>
        </div>
        <p class="soft hint">{{ local(hint) }}</p>
        <TableDialog
          v-if="tableOpen && table"
          :title="`Table of ${subject}`"
          :rows="table()"
          @close="tableOpen = false"
        />
      </section>
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
.rows :deep(.name.el-button) {
  padding: 0;
  border: 0;
  color: var(--ink);
}
.rows :deep(.reason) {
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
