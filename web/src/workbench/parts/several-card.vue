<script setup lang="ts" generic="Row extends { name: string }">
import { defineAsyncComponent, ref } from 'vue';
import { local } from '../../language/language.js';
import type { Rows } from '../picture/rows.js';

/** Many columns or groups in a table, a row each, in place of a picture; a row opens its own page. */
defineProps<{
  subject: string;
  rows: readonly Row[];
  /** The table, computed when it is opened. */
  table: (() => Rows) | null;
  whyNot: string | null;
  rowClass: (row: { row: Row }) => string;
  /** By which of the columns it is sorted first. */
  sort: string;
  hint: string;
}>();
const emit = defineEmits<{ open: [name: string] }>();
const TableDialog = defineAsyncComponent(() => import('../picture/table-dialog.vue'));
const tableOpen = ref(false);
</script>

<template>
  <section class="card many" aria-label="Many columns">
    <div class="title">
      <h2>{{ subject }} together</h2>
      <el-button link :disabled="!table" @click="tableOpen = true">Table</el-button>
    </div>
    <p v-if="whyNot">{{ local(whyNot) }}</p>
    <div v-else class="rows">
      <el-table
        :data="[...rows]"
        height="100%"
        size="small"
        :row-class-name="rowClass"
        :default-sort="{ prop: sort, order: 'ascending' }"
        @row-click="(row: Row) => emit('open', row.name)"
      >
        <slot />
      </el-table>
    </div>
    <p class="soft hint">{{ local(hint) }}</p>
    <TableDialog v-if="tableOpen && table" :title="`Table of ${subject}`" :rows="table()" @close="tableOpen = false" />
  </section>
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
