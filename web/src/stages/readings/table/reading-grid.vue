<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { LONGEST_CELL, readCell } from '@verdict/core/readings';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { useElementSize, useEventListener } from '@vueuse/core';
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import { local, localCell, typedCell } from '../../../language/language.js';
import { isIn, isOneCell, shownDerived, underName, type Cursor, type Range } from './table-model.js';
import { useCellEditor } from './use-cell-editor.js';

/**
 * The table of readings. Rows and columns are drawn as they scroll into view; one input holds the focus, moves with the cursor and
 * becomes the editor with the first character, so that no key of a fast typist or a gauge is lost.
 */
const props = defineProps<{
  columns: StudyColumn[];
  /** Cells as text by column id, worked-out ones in full precision. */
  texts: Record<string, readonly string[]>;
  /** The numbers of derived columns by id, for how they are shown. */
  values: Record<string, Float64Array>;
  rowCount: number;
  /** The stored row of each shown one; null: as stored. */
  rows: Int32Array | null;
  /** "column/row" of readings that are set aside. */
  aside: ReadonlySet<string>;
  subject: string | null;
  locked: boolean;
  resolutions: Record<string, number | null>;
  /** The chosen cells as text for the clipboard. */
  copyRange: (range: Range) => string;
}>();
const cursor = defineModel<Cursor>('cursor', { required: true });
const anchor = defineModel<Cursor>('anchor', { required: true });
const emit = defineEmits<{
  write: [text: string, was: string];
  clear: [range: Range];
  refused: [];
  fillDown: [range: Range];
  block: [text: string, range: Range];
}>();

const ROW = 27;
const INDEX = 68;
const NARROWEST = 118;
/** Columns drawn beyond the visible ones on either side. */
const MARGIN = 2;

const scroller = ref<HTMLElement>();
const input = ref<HTMLInputElement>();
const { width } = useElementSize(scroller);
const scrolled = ref(0);
useEventListener(scroller, 'scroll', () => (scrolled.value = scroller.value?.scrollLeft ?? 0), { passive: true });

const shownRows = computed(() => props.rows?.length ?? props.rowCount);
/** The row after the last one is for writing on; a sorted or filtered table has no place for it. */
const spare = computed(() => (props.locked || props.rows ? 0 : 1));
const rowAt = (shown: number) => props.rows?.[shown - 1] ?? shown;

const virtual = useVirtualizer(
  computed(() => ({
    count: shownRows.value + spare.value,
    getScrollElement: () => scroller.value ?? null,
    estimateSize: () => ROW,
    overscan: 12,
  })),
);

const cellWidth = computed(() => Math.max(NARROWEST, (width.value - INDEX) / Math.max(1, props.columns.length)));
const drawn = computed(() => {
  const from = Math.max(0, Math.floor(scrolled.value / cellWidth.value) - MARGIN);
  const to = Math.ceil((scrolled.value + (width.value || 1200)) / cellWidth.value) + MARGIN;
  return props.columns.slice(from, to).map((shownColumn, i) => ({ one: shownColumn, j: from + i }));
});
const leftOf = (j: number) => `${INDEX + j * cellWidth.value}px`;

const column = computed(() => props.columns[cursor.value.column]);
const textOf = (id: string, row: number) => props.texts[id]?.[row - 1] ?? '';
const sourceResolution = ({ derivation }: StudyColumn) =>
  derivation && 'source' in derivation ? (props.resolutions[derivation.source] ?? null) : null;
/** A stored cell as the reader writes numbers; labels stand as they were written. */
function readerCell(of: StudyColumn, text: string): string {
  if (of.kind === 'label') return text;
  return of.derivation ? local(text) : localCell(text, of);
}
function shown(of: StudyColumn, row: number): string {
  const text = textOf(of.id, row);
  const values = props.values[of.id];
  if (!values) return readerCell(of, text);
  return local(shownDerived(of, text, values, props.resolutions[of.id] ?? null, sourceResolution(of)));
}
function cellClass(of: StudyColumn, row: number) {
  const kind = of.kind === 'label' || of.derivation ? 'number' : readCell(textOf(of.id, row), of).kind;
  return {
    words: of.kind === 'label',
    subject: of.id === props.subject,
    follows: of.derivation !== null,
    aside: props.aside.has(`${of.id}/${row}`),
    wrong: kind === 'text',
    beyond: kind === 'limit',
  };
}

/** Pixels and place of the chosen range and of the cursor's input, inside the scrolled sheet. */
const box = ({ top, bottom, left, right }: Range) => ({
  top: `${(top - 1) * ROW}px`,
  left: leftOf(left),
  width: `${(right - left + 1) * cellWidth.value}px`,
  height: `${(bottom - top + 1) * ROW}px`,
});
const inputStyle = computed(() => {
  const { row, column: j } = cursor.value;
  const align = column.value?.kind === 'label' ? ('left' as const) : ('right' as const);
  return { ...box({ top: row, bottom: row, left: j, right: j }), textAlign: align };
});

function scrollToColumn(j: number): void {
  const view = scroller.value;
  if (!view) return;
  const left = j * cellWidth.value;
  if (left < view.scrollLeft) view.scrollLeft = left;
  const right = INDEX + left + cellWidth.value - view.clientWidth;
  if (right > view.scrollLeft) view.scrollLeft = right;
}
watch(cursor, ({ row, column: j }, before) => {
  if (row !== before.row) virtual.value.scrollToIndex(row - 1, { align: 'auto' });
  if (j !== before.column) scrollToColumn(j);
});

/** Rows that a page key moves by. */
const pageRows = () => Math.max(1, Math.floor((scroller.value?.clientHeight ?? ROW * 10) / ROW) - 2);
const size = () => ({ rows: shownRows.value, columns: props.columns.length, page: pageRows(), spare: spare.value });
const editor = useCellEditor({
  input,
  cursor,
  anchor,
  size,
  textAt: () => (column.value ? textOf(column.value.id, rowAt(cursor.value.row)) : ''),
  shown: (text) => (column.value ? readerCell(column.value, text) : text),
  typed: (text) => (column.value && column.value.kind !== 'label' ? typedCell(text, column.value) : text),
  locked: () => props.locked,
  follows: () => column.value?.derivation !== null,
  write: (text, was) => emit('write', text, was),
  refused: () => emit('refused'),
  clear: (range) => emit('clear', range),
  fillDown: (range) => emit('fillDown', range),
  copy: (range) => props.copyRange(range),
  block: (text, range) => emit('block', text, range),
});
const { editing, draft, commit, onKey, onPaste, onCopy, onCut, onFocus } = editor;
// What is being written goes on its way before the page does; the frame asks while something is on its way.
useEventListener(window, 'beforeunload', commit, { capture: true });
const range = computed(() => editor.range());
/** The focus is in the table: then the way out is said. */
const reached = ref(false);

/** Moves the cursor and takes the focus; with `extend`, the range reaches from where it began. */
function pick(row: number, index: number, extend = false): void {
  commit();
  const to = { row, column: index };
  cursor.value = to;
  if (!extend) anchor.value = to;
  void nextTick(() => {
    input.value?.focus({ preventScroll: true });
    input.value?.select();
  });
}

const dragging = ref(false);
function onPress(event: MouseEvent, row: number, j: number): void {
  dragging.value = event.button === 0;
  pick(row, j, event.shiftKey);
}
function onEnter(row: number, j: number): void {
  if (dragging.value) pick(row, j, true);
}
useEventListener('mouseup', () => (dragging.value = false));
/** The whole row, or every row of a column, from its heading. */
function pickRow(event: MouseEvent, row: number): void {
  pick(row, props.columns.length - 1, true);
  anchor.value = { row: event.shiftKey ? anchor.value.row : row, column: 0 };
}
function pickColumn(j: number): void {
  pick(cursor.value.row, j);
}

onMounted(() => cursor.value.row > 1 && virtual.value.scrollToIndex(cursor.value.row - 1, { align: 'center' }));
defineExpose({ pick });
</script>

<template>
  <div ref="scroller" class="scroller">
    <div class="sheet" :style="{ width: `${INDEX + columns.length * cellWidth}px` }">
      <div
        id="readings-grid"
        role="grid"
        aria-label="Readings"
        aria-multiselectable="true"
        :aria-rowcount="shownRows + 1"
        :aria-colcount="columns.length + 1"
        :aria-readonly="locked"
      >
        <div class="head" role="row" aria-rowindex="1">
          <span class="corner" role="columnheader" aria-colindex="1"><span class="unseen">row</span></span>
          <span
            v-for="{ one, j } in drawn"
            :key="one.id"
            role="columnheader"
            class="name"
            :aria-colindex="j + 2"
            :class="{ subject: one.id === subject }"
            :style="{ left: leftOf(j), width: `${cellWidth}px` }"
            :title="`${one.name}: ${underName(one, columns, resolutions[one.id] ?? null)}`"
            @click="pickColumn(j)"
          >
            <b>{{ one.name }}</b>
            <small>{{ underName(one, columns, resolutions[one.id] ?? null) }}</small>
          </span>
        </div>
        <div class="body" role="rowgroup" :style="{ height: `${virtual.getTotalSize()}px` }">
          <div
            v-for="item in virtual.getVirtualItems()"
            :key="item.index"
            class="row"
            role="row"
            :aria-rowindex="item.index + 2"
            :style="{ top: `${item.start}px` }"
          >
            <span
              class="index"
              role="rowheader"
              aria-colindex="1"
              @mousedown.prevent="pickRow($event, item.index + 1)"
              >{{ item.index < shownRows ? rowAt(item.index + 1) : '+' }}</span
            >
            <span
              v-for="{ one, j } in drawn"
              :id="`cell-${item.index + 1}-${j}`"
              :key="one.id"
              role="gridcell"
              class="cell"
              :aria-colindex="j + 2"
              :aria-selected="isIn(range, item.index + 1, j)"
              :class="cellClass(one, rowAt(item.index + 1))"
              :style="{ left: leftOf(j), width: `${cellWidth}px` }"
              @mousedown.prevent="onPress($event, item.index + 1, j)"
              @mouseenter="onEnter(item.index + 1, j)"
              @dblclick="editor.begin()"
              >{{ shown(one, rowAt(item.index + 1)) }}</span
            >
          </div>
        </div>
      </div>
      <!-- Over the cells, not among them: a field is no part of a grid's rows. -->
      <div class="over">
        <div v-if="columns.length && !isOneCell(range)" class="chosen" :style="box(range)"></div>
        <input
          v-if="columns.length"
          ref="input"
          v-model="draft"
          class="cursor"
          data-grid-cursor
          :class="{ editing }"
          :readonly="locked || column?.derivation !== null"
          :maxlength="LONGEST_CELL"
          :style="inputStyle"
          :aria-label="column ? `${column.name}, row ${rowAt(cursor.row)}` : ''"
          aria-controls="readings-grid"
          aria-describedby="readings-keys"
          :aria-activedescendant="`cell-${cursor.row}-${cursor.column}`"
          autocomplete="off"
          spellcheck="false"
          @keydown="onKey"
          @input="editing = true"
          @paste="onPaste"
          @copy="onCopy"
          @cut="onCut"
          @blur="
            commit();
            reached = false;
          "
          @focus="
            onFocus();
            reached = true;
          "
        />
      </div>
    </div>
  </div>
  <p id="readings-keys" class="keys soft" :class="{ shown: reached }">
    <kbd>Esc</kbd> then <kbd>Tab</kbd> leaves the table
  </p>
</template>

<style scoped>
.scroller {
  flex: 1;
  min-height: 0;
  overflow: auto;
  border-top: 1px solid var(--line);
  contain: strict;
  user-select: none;
}
.head {
  position: sticky;
  z-index: 3;
  top: 0;
  height: 46px;
  background: var(--head-cell);
  border-bottom: 1px solid var(--line);
}
.corner {
  position: sticky;
  z-index: 1;
  left: 0;
  display: block;
  width: 68px;
  height: 100%;
  background: var(--head-cell);
}
.name {
  position: absolute;
  top: 0;
  display: grid;
  height: 45px;
  padding: 5px 12px;
  border-left: 1px solid var(--line);
  cursor: pointer;
  overflow: hidden;
  white-space: nowrap;
}
.name b,
.name small {
  overflow: hidden;
  text-overflow: ellipsis;
}
.name b {
  font-size: 12.5px;
  font-weight: 600;
}
.name small {
  color: var(--soft);
  font-size: 11px;
}
.name.subject {
  background: var(--tint);
}
.sheet,
.body {
  position: relative;
}
.over {
  position: absolute;
  top: 46px;
  left: 0;
}
.keys {
  margin: 0;
  border-top: 1px solid var(--line);
  padding: 3px 12px;
  font-size: 12px;
  visibility: hidden;
}
.keys.shown {
  visibility: visible;
}
.row {
  position: absolute;
  left: 0;
  right: 0;
  height: 27px;
}
.index {
  position: sticky;
  z-index: 1;
  left: 0;
  display: block;
  width: 68px;
  height: 27px;
  padding: 4px 12px;
  border-bottom: 1px solid var(--grid-line);
  background: var(--paper);
  color: var(--soft);
  font-size: 11.5px;
  text-align: right;
  cursor: pointer;
}
.cell {
  position: absolute;
  top: 0;
  height: 27px;
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
.cell.follows {
  color: var(--soft);
}
.cell.wrong {
  color: var(--rust);
  box-shadow: inset 3px 0 0 var(--rust);
}
.cell.beyond {
  color: var(--ochre-text);
  box-shadow: inset 3px 0 0 var(--ochre);
}
.cell.aside {
  color: var(--soft);
  text-decoration: line-through;
}
.chosen {
  position: absolute;
  border: 1px solid var(--green);
  background: color-mix(in srgb, var(--green) 12%, transparent);
  pointer-events: none;
}
.cursor {
  position: absolute;
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
