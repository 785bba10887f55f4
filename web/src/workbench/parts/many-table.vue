<script setup lang="ts" generic="Row extends { name: string; reason?: string | null }">
import { computed, defineAsyncComponent, ref } from 'vue';
import { local } from '../../language/language.js';
import type { Rows } from '../picture/rows.js';
import type { ManyColumn } from './many-column.js';

/** The table of many columns. It is a component of its own, so that the progress of a simulation does not build 200 rows anew. */
const props = defineProps<{
  subject: string;
  /** What the names are names of. */
  heading: string;
  rows: readonly Row[];
  columns: readonly ManyColumn<Row>[];
  departs: (row: Row) => boolean;
  table: (() => Rows) | null;
  whyNot: string | null;
  hint: string;
}>();
const emit = defineEmits<{ open: [name: string] }>();
const TableDialog = defineAsyncComponent(() => import('../picture/table-dialog.vue'));
const tableOpen = ref(false);
const data = computed(() => [...props.rows]);
const classOf = ({ row }: { row: Row }) => (props.departs(row) ? 'departs' : '');
/** By its number, where it has one; by its text otherwise. */
const ordered = computed(() =>
  props.columns.map(({ by, ...one }) => ({
    ...one,
    ...(by ? { sortable: true, sortMethod: (a: Row, b: Row) => by(a) - by(b) } : {}),
  })),
);
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
        :data="data"
        height="100%"
        size="small"
        :row-class-name="classOf"
        :default-sort="{ prop: 'p', order: 'ascending' }"
        @row-click="(row: Row) => emit('open', row.name)"
      >
        <slot />
        <el-table-column prop="name" :label="heading" sortable min-width="140">
          <template #default="{ row }">
            <el-button link class="name" @click.stop="emit('open', row.name)">{{ row.name }}</el-button>
            <span v-if="row.reason" class="soft reason" :title="row.reason">{{ local(row.reason) }}</span>
          </template>
        </el-table-column>
        <el-table-column v-for="one in ordered" :key="one.prop" v-bind="one" />
        <slot name="last" />
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
