<script setup lang="ts">
import type { DerivationKind } from '@verdict/core/table';
import { computed } from 'vue';
import WordMenu from '../../../components/word-menu.vue';

/** What can be done with the table, as words. */
const props = defineProps<{
  title: string;
  columnName: string;
  rowsChosen: number;
  /** Whole rows that are chosen and can be set aside, in words; empty where there are none. */
  aside: string;
  locked: boolean;
  arranged: boolean;
  finding: boolean;
}>();
export type NewColumnKind = DerivationKind | 'empty' | 'stack' | 'spread';
export type ColumnAction = 'left' | 'right' | 'duplicate' | 'remove';
export type RowsAction = 'above' | 'below' | 'remove' | 'fill' | 'aside' | 'back' | 'subset';
const emit = defineEmits<{
  open: [];
  paste: [];
  add: [kind: NewColumnKind];
  column: [what: ColumnAction];
  rows: [what: RowsAction];
  arrange: [];
  find: [];
  save: [];
}>();

const NEW: { id: NewColumnKind; title: string; apart?: boolean }[] = [
  { id: 'empty', title: 'empty' },
  { id: 'formula', title: 'from a formula', apart: true },
  { id: 'standard-score', title: 'standard scores' },
  { id: 'distance', title: 'deviation from the mean' },
  { id: 'rank', title: 'ranks' },
  { id: 'share', title: 'proportion of trials' },
  { id: 'transformed', title: 'transformation (power or logarithm)' },
  { id: 'rounded', title: 'rounded readings' },
  { id: 'made-up', title: 'simulated values', apart: true },
  { id: 'stack', title: 'stacked columns', apart: true },
  { id: 'spread', title: 'a column split by a label' },
];
const column = computed<{ id: ColumnAction; title: string; apart?: boolean }[]>(() => [
  { id: 'left', title: `move ${props.columnName} left` },
  { id: 'right', title: `move ${props.columnName} right` },
  { id: 'duplicate', title: `duplicate ${props.columnName}` },
  { id: 'remove', title: `remove ${props.columnName}`, apart: true },
]);
const rows = computed<{ id: RowsAction; title: string; apart?: boolean }[]>(() => [
  { id: 'above', title: `insert ${props.rowsChosen} above` },
  { id: 'below', title: `insert ${props.rowsChosen} below` },
  { id: 'remove', title: `remove ${props.rowsChosen}` },
  { id: 'fill', title: 'fill the first cell down', apart: true },
  { id: 'aside', title: 'set the chosen readings aside …' },
  { id: 'back', title: 'restore the chosen readings' },
  { id: 'subset', title: 'new study from the shown or chosen rows', apart: true },
]);
</script>

<template>
  <div class="title" role="toolbar" aria-label="Table">
    <h2>{{ title }}</h2>
    <el-button link :aria-pressed="finding" @click="emit('find')">Find</el-button>
    <el-button link :aria-pressed="arranged" @click="emit('arrange')">Arrange</el-button>
    <template v-if="!locked">
      <el-button v-if="aside" link class="offer" @click="emit('rows', 'aside')">Set {{ aside }} aside …</el-button>
      <el-button link @click="emit('open')">Open a file</el-button>
      <el-button link @click="emit('paste')">Paste</el-button>
      <WordMenu title="New column" :items="NEW" @choose="(id) => emit('add', id as NewColumnKind)" />
      <WordMenu v-if="columnName" title="Column" :items="column" @choose="(id) => emit('column', id as ColumnAction)" />
      <WordMenu title="Rows" :items="rows" @choose="(id) => emit('rows', id as RowsAction)" />
    </template>
    <span v-else class="soft">decided: reopen in Verdict to make changes</span>
    <el-button link @click="emit('save')">Save a copy</el-button>
  </div>
</template>

<style scoped>
.title {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
  padding: 10px 16px;
  font-size: 13px;
}
.title .offer {
  --el-button-text-color: var(--green);
}
.title h2 {
  flex: 1;
  margin: 0;
  font-size: 15px;
  font-weight: 600;
  white-space: nowrap;
}
.title button[aria-pressed='true'] {
  --el-button-text-color: var(--green);
}
</style>
