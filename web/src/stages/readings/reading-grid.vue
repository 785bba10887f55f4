<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { LONGEST_CELL, readCell } from '@verdict/core';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import type { Cursor } from './table-model.js';
import { useCellEditor } from './use-cell-editor.js';

/**
 * The table of readings. Rows are drawn as they scroll into view; one input holds the focus, moves with the cursor and becomes the
 * editor with the first character, so that no key of a fast typist or a gauge is lost.
 */
const props = defineProps<{
  columns: StudyColumn[];
  cells: Record<string, string[]>;
  rowCount: number;
  /** "column/row" of readings that are set aside. */
  aside: ReadonlySet<string>;
  subject: string | null;
  locked: boolean;
  resolutions: Record<string, number | null>;
}>();
const cursor = defineModel<Cursor>('cursor', { required: true });
const emit = defineEmits<{
  edit: [columnId: string, row: number, text: string];
  block: [text: string];
}>();

const ROW = 27;
const scroller = ref<HTMLElement>();
const input = ref<HTMLInputElement>();

const rows = computed(() => props.rowCount + (props.locked ? 0 : 1));
const virtual = useVirtualizer(
  computed(() => ({
    count: rows.value,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: () => ROW,
    overscan: 12,
  })),
);

const column = computed(() => props.columns[cursor.value.column]);
const textAt = (id: string, row: number) => props.cells[id]?.[row - 1] ?? '';
const isWrong = (of: StudyColumn, row: number) =>
  of.kind !== 'label' && readCell(textAt(of.id, row), of).kind === 'text';
const template = computed(() => `68px repeat(${props.columns.length}, minmax(120px, 1fr))`);

function underName(of: StudyColumn): string {
  if (of.kind === 'label') return 'label';
  const step = props.resolutions[of.id];
  const parts = [of.unit, step === null || step === undefined ? '' : String(step)].filter(Boolean);
  return of.kind === 'count' ? 'count' : parts.join(' · ') || 'measure';
}

/** The cursor's input lies over its cell, inside the scrolled sheet. */
const inputStyle = computed(() => {
  const columns = props.columns.length;
  const share = `(100% - 68px) / ${columns}`;
  return {
    top: `${(cursor.value.row - 1) * ROW}px`,
    left: `calc(68px + ${share} * ${cursor.value.column})`,
    width: `calc(${share})`,
    height: `${ROW}px`,
    textAlign: column.value?.kind === 'label' ? ('left' as const) : ('right' as const),
  };
});

watch(cursor, ({ row }) => virtual.value.scrollToIndex(row - 1, { align: 'auto' }));

/** Rows that a page key moves by. */
const pageRows = () => Math.max(1, Math.floor((scroller.value?.clientHeight ?? ROW * 10) / ROW) - 2);
const { editing, draft, commit, onKey, onPaste, onCopy, onFocus } = useCellEditor({
  input,
  cursor,
  textAt: () => (column.value ? textAt(column.value.id, cursor.value.row) : ''),
  size: () => ({ rows: props.rowCount, columns: props.columns.length, page: pageRows() }),
  locked: () => props.locked,
  write: (text) => column.value && emit('edit', column.value.id, cursor.value.row, text),
  block: (text) => emit('block', text),
});

function pick(row: number, index: number): void {
  commit();
  cursor.value = { row, column: index };
  void nextTick(() => {
    input.value?.focus({ preventScroll: true });
    input.value?.select();
  });
}
onMounted(() => cursor.value.row > 1 && virtual.value.scrollToIndex(cursor.value.row - 1, { align: 'center' }));
defineExpose({ pick });
</script>

<template>
  <div
    ref="scroller"
    class="grid"
    role="grid"
    aria-label="Readings"
    :aria-rowcount="rowCount + 1"
    :aria-colcount="columns.length + 1"
    :aria-readonly="locked"
  >
    <div class="sheet" :style="{ minWidth: `${68 + columns.length * 120}px` }">
      <div class="row head" role="row" aria-rowindex="1" :style="{ gridTemplateColumns: template }">
        <span class="corner" role="columnheader"><span class="unseen">row</span></span>
        <span
          v-for="(of, j) in columns"
          :key="of.id"
          role="columnheader"
          class="name"
          :class="{ subject: of.id === subject }"
          :title="of.name"
          @click="pick(cursor.row, j)"
        >
          <b>{{ of.name }}</b>
          <small>{{ underName(of) }}</small>
        </span>
      </div>
      <div class="body" :style="{ height: `${virtual.getTotalSize()}px` }">
        <div
          v-for="item in virtual.getVirtualItems()"
          :key="item.index"
          class="row"
          role="row"
          :aria-rowindex="item.index + 2"
          :style="{ gridTemplateColumns: template, top: `${item.start}px` }"
        >
          <span class="index" role="rowheader">{{ item.index < rowCount ? item.index + 1 : '+' }}</span>
          <span
            v-for="(of, j) in columns"
            :id="`cell-${item.index + 1}-${j}`"
            :key="of.id"
            role="gridcell"
            class="cell"
            :class="{
              words: of.kind === 'label',
              subject: of.id === subject,
              aside: aside.has(`${of.id}/${item.index + 1}`),
              wrong: isWrong(of, item.index + 1),
            }"
            @mousedown.prevent="pick(item.index + 1, j)"
            @dblclick="editing = !locked"
            >{{ textAt(of.id, item.index + 1) }}</span
          >
        </div>
        <input
          v-if="columns.length"
          ref="input"
          v-model="draft"
          class="cursor"
          data-grid-cursor
          :class="{ editing }"
          :readonly="locked"
          :maxlength="LONGEST_CELL"
          :style="inputStyle"
          :aria-label="column ? `${column.name}, row ${cursor.row}` : ''"
          :aria-activedescendant="`cell-${cursor.row}-${cursor.column}`"
          autocomplete="off"
          spellcheck="false"
          @keydown="onKey"
          @input="editing = true"
          @paste="onPaste"
          @copy="onCopy"
          @blur="commit"
          @focus="onFocus"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.grid {
  height: 100%;
  overflow: auto;
  border-top: 1px solid var(--line);
  contain: strict;
}
.row {
  display: grid;
}
.head {
  position: sticky;
  z-index: 3;
  top: 0;
  background: var(--head-cell);
  border-bottom: 1px solid var(--line);
}
.name {
  display: grid;
  padding: 5px 12px;
  border-left: 1px solid var(--line);
  cursor: pointer;
  overflow: hidden;
  white-space: nowrap;
}
.name b {
  overflow: hidden;
  font-size: 12.5px;
  font-weight: 600;
  text-overflow: ellipsis;
}
.name small {
  color: var(--soft);
  font-size: 11px;
}
.name.subject {
  background: var(--tint);
}
.body {
  position: relative;
}
.body .row {
  position: absolute;
  left: 0;
  right: 0;
  height: 27px;
}
.index {
  padding: 4px 12px;
  border-bottom: 1px solid var(--grid-line);
  background: var(--paper);
  color: var(--soft);
  font-size: 11.5px;
  text-align: right;
}
.cell {
  padding: 4px 12px;
  border-left: 1px solid var(--grid-line);
  border-bottom: 1px solid var(--grid-line);
  font: 12.5px/18px var(--mono);
  overflow: hidden;
  text-align: right;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: cell;
}
.cell.words {
  font-family: var(--sans);
  font-size: 13px;
  text-align: left;
}
.cell.subject {
  background: var(--tint);
}
.cell.wrong {
  color: var(--rust);
  box-shadow: inset 3px 0 0 var(--rust);
}
.cell.aside {
  color: var(--soft);
  text-decoration: line-through;
}
.cursor {
  position: absolute;
  z-index: 2;
  border: 2px solid var(--green);
  padding: 0 10px;
  background: transparent;
  color: transparent;
  font: 12.5px/18px var(--mono);
  caret-color: transparent;
  outline: none;
  pointer-events: none;
}
.cursor::selection {
  background: transparent;
}
.cursor.editing {
  background: var(--card);
  color: var(--ink);
  caret-color: var(--ink);
  pointer-events: auto;
}
.cursor.editing::selection {
  background: var(--tint);
}
</style>
