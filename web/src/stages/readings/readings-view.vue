<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { groupThousands } from '@verdict/core/format';
import { NO_READINGS, type BlockLayout } from '@verdict/core/readings';
import type { DerivationKind } from '@verdict/core/table';
import { useEventListener, useFileDialog } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import CautionNote from '../../components/caution-note.vue';
import SetAsideDialog from '../../workbench/set-aside/set-aside-dialog.vue';
import { pasted } from '../../files/incoming.js';
import { useKeys } from '../../composables/use-keys.js';
import { useStudy } from '../../stores/study.js';
import ArrangeBar from './arrange/arrange-bar.vue';
import ColumnCard from './column/column-card.vue';
import DerivePanel from './derive/derive-panel.vue';
import FindBar from './table/find-bar.vue';
import ReadingGrid from './table/reading-grid.vue';
import ReshapePanel from './derive/reshape-panel.vue';
import SavePanel from './table/save-panel.vue';
import TableBar, { type ColumnAction, type NewColumnKind, type RowsAction } from './table/table-bar.vue';
import TakePanel from './import/take-panel.vue';
import { emptyColumn, type Cursor, type Range } from './table/table-model.js';
import type { Taking } from './import/take.js';
import { useArrangement } from './arrange/use-arrangement.js';
import { useChosenAside } from './table/use-chosen-aside.js';
import { useColumnProblems } from './column/use-column-problems.js';
import { useWaitingReadings } from '../../composables/use-waiting-readings.js';
import { useIncoming } from './import/use-incoming.js';
import { useSubset } from './arrange/use-subset.js';
import { useTableActions } from './table/use-table-actions.js';

const store = useStudy();
const subjectIndex = store.study?.columns.findIndex(({ id }) => id === store.study?.subject) ?? 0;
// ?row=5&column=… in the address, or ?named=…: the place somebody pointed at elsewhere.
const { query } = useRoute();
const askedRow = Number(query.row);
const askedColumn = store.study?.columns.findIndex(({ id, name }) => id === query.column || name === query.named) ?? -1;
const first: Cursor = {
  row: Number.isInteger(askedRow) && askedRow > 0 ? Math.min(askedRow, store.study?.rowCount ?? 1) : 1,
  column: Math.max(0, askedColumn >= 0 ? askedColumn : subjectIndex),
};
const cursor = ref<Cursor>(first);
const anchor = ref<Cursor>(first);
const grid = ref<InstanceType<typeof ReadingGrid>>();
const ACCEPTED = '.csv,.tsv,.txt,.json,.xlsx,.zip,text/csv';
const dragging = ref(false);
const finding = ref(false);
const arranging = ref(false);
/** What stands in place of the column's card. */
const panel = ref<{ kind: DerivationKind; existing: StudyColumn | null } | 'stack' | 'spread' | 'save' | null>(
  // ?begin=made-up in the address: a study that starts from made-up values.
  query.begin === 'made-up' && store.study?.columns.length === 0 ? { kind: 'made-up', existing: null } : null,
);

const study = computed(() => store.study!);
const columns = computed(() => study.value.columns);
const names = computed(() => columns.value.map(({ name }) => name));
const current = computed(() => columns.value[Math.min(cursor.value.column, columns.value.length - 1)] ?? null);
const aside = computed(() => new Set(study.value.setAside.map(({ column, row }) => `${column}/${row}`)));
const asideHere = computed(() => study.value.setAside.filter(({ column }) => column === current.value?.id));

/** What the table and the cards need of each column; worked out once a column and change. */
const texts = computed(() => Object.fromEntries(columns.value.map(({ id }) => [id, store.textsOf(id)])));
const values = computed(() =>
  Object.fromEntries(
    columns.value.flatMap(({ id }) => (store.derivedOf(id) ? [[id, store.derivedOf(id)!.values]] : [])),
  ),
);
const numeric = computed(() => columns.value.filter(({ kind }) => kind !== 'label'));
const samples = computed(() => Object.fromEntries(numeric.value.map(({ id }) => [id, store.sampleOf(id)!])));
const resolutions = computed(() =>
  Object.fromEntries(Object.entries(samples.value).map(([id, sample]) => [id, sample.resolution])),
);

const { arrangement, rows, arranged, arrangeAgain, asStored } = useArrangement();
const actions = useTableActions(cursor, anchor, rows);
const { range, wholeRows, rowAt, rowsIn, columnsIn, clash, settleClash } = actions;
const problems = useColumnProblems(current);
const incoming = useIncoming();
const { takeSubset } = useSubset();

const sideShown = computed(() => !incoming.current.value && (panel.value !== null || current.value !== null));
const shownCount = computed(() => rows.value?.length ?? study.value.rowCount);
const shownRows = computed(() => Array.from({ length: shownCount.value }, (_, i) => rowAt(i + 1)));
const title = computed(() => {
  const count = (n: number, one: string) => `${groupThousands(n)} ${one}${n === 1 ? '' : 's'}`;
  return `${count(study.value.rowCount, 'row')}, ${count(columns.value.length, 'column')}`;
});
const pasteCursor = computed(() =>
  columns.value.length && !arranged.value
    ? { column: cursor.value.column, row: Math.min(cursor.value.row, study.value.rowCount + 1) }
    : null,
);

/** A text that was pasted into the table: known, it goes in at once; else it is looked at first. */
function onBlock(text: string, into: Range): void {
  if (store.ruled || !actions.pasteKnown(text, into)) incoming.offer(pasted(text), true);
}

async function take(taking: Taking, layout: BlockLayout): Promise<void> {
  const index = columns.value.length;
  const taken = await incoming.take(taking, layout, cursor.value, rowAt);
  if (taken && taking.target === 'new columns') anchor.value = cursor.value = { row: 1, column: index };
}

// Pasted anywhere on the stage, except into a field.
useEventListener('paste', (event: ClipboardEvent) => {
  if ((event.target as HTMLElement).closest?.('input, textarea')) return;
  event.preventDefault();
  incoming.offer(pasted(event.clipboardData?.getData('text/plain') ?? ''), false);
});
// Pasted into a field of one line, or brought along from the list of studies.
const elsewhere = useWaitingReadings();
watch(
  elsewhere.waiting,
  () => {
    const readings = elsewhere.take();
    if (readings !== null) incoming.offer(readings, false);
  },
  { immediate: true },
);
async function pasteByButton(): Promise<void> {
  try {
    incoming.offer(pasted(await navigator.clipboard.readText()), false);
  } catch {
    incoming.refusal.value =
      'The browser does not allow reading the clipboard with a button here. Press Ctrl + V instead.';
  }
}
function onDrop(event: DragEvent): void {
  dragging.value = false;
  void incoming.open(event.dataTransfer?.files[0]);
}
const { open: chooseFile, onChange } = useFileDialog({ accept: ACCEPTED, multiple: false, reset: true });
onChange((files) => void incoming.open(files?.[0]));

function startTyping(): void {
  store.change(emptyColumn(names.value));
  requestAnimationFrame(() => grid.value?.pick(1, columns.value.length - 1));
}
function addColumn(kind: NewColumnKind): void {
  if (kind === 'empty') startTyping();
  else panel.value = kind === 'stack' || kind === 'spread' ? kind : { kind, existing: null };
}
const onColumn = (what: ColumnAction) =>
  ({
    left: () => actions.moveColumn(-1),
    right: () => actions.moveColumn(1),
    duplicate: actions.duplicateColumn,
    remove: actions.removeColumns,
  })[what]();
const onRows = (what: RowsAction) =>
  ({
    above: () => actions.insertRows(false),
    below: () => actions.insertRows(true),
    remove: actions.removeRows,
    fill: () => actions.fillDown(range.value),
    aside: ask,
    back: actions.putBack,
    subset: () => void takeSubset(rowsIn(range.value).length > 1 ? rowsIn(range.value) : shownRows.value),
  })[what]();
function changed(change: Parameters<typeof store.change>[0]): void {
  panel.value = null;
  const before = columns.value.length;
  store.change(change);
  if (columns.value.length > before) goToShown(cursor.value.row, before);
}

/** Where a stored row is shown; 0 where the arrangement leaves it out. */
const placeOf = (row: number) => (rows.value ? rows.value.indexOf(row) + 1 : row);
const goTo = (row: number) => grid.value?.pick(Math.max(1, placeOf(row)), cursor.value.column);
const goToShown = (row: number, column: number) => {
  anchor.value = cursor.value = { row, column };
};
const {
  words: asideWords,
  question: asideQuestion,
  asking: askingReason,
  many,
  ask,
  setAside,
} = useChosenAside(actions);
useKeys({ x: ask });
// In the table letters are written into cells; there these work with Ctrl or Alt.
useEventListener('keydown', (event) => {
  if (event.altKey && event.key.toLowerCase() === 'x') ask();
  else if (event.altKey && event.key === 'Insert') actions.insertRows(false);
  else if (event.altKey && event.key === 'Delete') actions.removeRows();
  else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'f' && columns.value.length)
    finding.value = true;
  else return;
  event.preventDefault();
});
</script>

<template>
  <div class="readings" @dragover.prevent="dragging = true" @dragleave="dragging = false" @drop.prevent="onDrop">
    <div class="main" :class="{ alone: !sideShown }">
      <CautionNote v-if="incoming.refusal.value" lead="Not imported" tone="wrong"
        >{{ incoming.refusal.value }}
        <el-button link @click="incoming.refusal.value = ''">Dismiss</el-button></CautionNote
      >
      <CautionNote v-if="clash" lead="Two edits of one cell" tone="wrong">
        While you were typing “{{ clash.mine }}”, row {{ clash.row }} of
        {{ store.columnById(clash.column)?.name }} became “{{ clash.theirs }}” in another window.
        <el-button size="small" type="primary" @click="settleClash(true)">Write mine</el-button>
        <el-button size="small" @click="settleClash(false)">Keep theirs</el-button>
      </CautionNote>
      <TakePanel
        v-if="incoming.current.value"
        :key="incoming.serial.value"
        :incoming="incoming.current.value"
        :standing="columns"
        :row-count="study.rowCount"
        :cursor="pasteCursor"
        :over="incoming.intoTable.value"
        :progress="incoming.progress.value"
        @take="take"
        @leave="incoming.leave"
        @stop="incoming.stop"
      />
      <section v-else-if="columns.length === 0" class="card empty" :class="{ dragging }">
        <h1>Paste a column of readings.</h1>
        <p>
          Copy it from a spreadsheet and press <kbd>Ctrl</kbd> + <kbd>V</kbd> anywhere on this page. Names, units,
          decimal commas and separators are recognised and shown before anything is stored.
        </p>
        <div>
          <el-button type="primary" @click="pasteByButton">Paste</el-button>
          <el-button @click="chooseFile()">Open a file</el-button>
          <el-button @click="startTyping">Type readings</el-button>
          <el-button @click="addColumn('made-up')">Simulate readings</el-button>
        </div>
        <p class="soft">
          CSV, TSV, a spreadsheet (.xlsx), JSON or a data package (.zip); a file can also be dropped here.
        </p>
      </section>
      <section v-else class="card table" :class="{ dragging }">
        <TableBar
          :title="title"
          :column-name="current?.name ?? ''"
          :aside="wholeRows.length ? asideWords : ''"
          :rows-chosen="Math.max(1, rowsIn(range).length)"
          :locked="store.ruled"
          :arranged="arranged || arranging"
          :finding="finding"
          @open="chooseFile()"
          @paste="pasteByButton"
          @add="addColumn"
          @column="onColumn"
          @rows="onRows"
          @arrange="arranging = !arranging"
          @find="finding = !finding"
          @save="panel = 'save'"
        />
        <FindBar
          v-if="finding"
          :columns="columns"
          :texts="store.textsOf"
          :row-at="rowAt"
          :shown="shownCount"
          :row-count="study.rowCount"
          :from="cursor"
          :place-of="placeOf"
          @go="goToShown"
          @go-to-row="(shown) => grid?.pick(shown, cursor.column)"
          @close="finding = false"
        />
        <ArrangeBar
          v-if="arranging || arranged"
          v-model="arrangement"
          :columns="columns"
          :texts="store.textsOf"
          :shown="shownCount"
          :of="study.rowCount"
          @again="arrangeAgain"
          @close="
            asStored();
            arranging = false;
          "
        />
        <div id="table" class="room">
          <ReadingGrid
            ref="grid"
            v-model:cursor="cursor"
            v-model:anchor="anchor"
            :columns="columns"
            :texts="texts"
            :values="values"
            :row-count="study.rowCount"
            :rows="rows"
            :aside="aside"
            :subject="study.subject"
            :locked="store.ruled"
            :resolutions="resolutions"
            :copy-range="actions.copyRange"
            @write="actions.write"
            @refused="actions.sayClosed"
            @clear="actions.clear"
            @fill-down="actions.fillDown"
            @block="onBlock"
          />
        </div>
      </section>
    </div>
    <aside v-if="sideShown" id="column" class="side" tabindex="-1" aria-label="Column">
      <SavePanel
        v-if="panel === 'save'"
        :chosen="{ columns: columnsIn(range), rows: rowsIn(range) }"
        :shown="shownRows"
        @leave="panel = null"
      />
      <ReshapePanel
        v-else-if="panel === 'stack' || panel === 'spread'"
        :kind="panel"
        :chosen="columnsIn(range)"
        @done="changed"
        @leave="panel = null"
      />
      <DerivePanel
        v-else-if="panel"
        :key="panel.kind"
        :kind="panel.kind"
        :source="store.subject ?? current"
        :existing="panel.existing"
        @done="changed"
        @leave="panel = null"
      />
      <ColumnCard
        v-else-if="current"
        :column="current"
        :columns="columns"
        :sample="samples[current.id] ?? NO_READINGS"
        :cells="texts[current.id] ?? []"
        :aside="asideHere"
        :problems="problems"
        :locked="store.ruled"
        :chosen="wholeRows.length ? '' : asideWords"
        @change="(wanted) => store.change(wanted)"
        @go="goTo"
        @set-aside="ask"
        @derive="panel = { kind: current!.derivation!.kind, existing: current! }"
        @freeze="store.change({ kind: 'freeze-column', column: current!.id })"
      />
    </aside>
    <SetAsideDialog
      :open="askingReason"
      :many="many"
      :what="asideQuestion"
      @done="setAside"
      @leave="askingReason = false"
    />
  </div>
</template>

<style scoped>
.readings {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(300px, 436px);
  gap: 18px;
  height: 100%;
}
.main {
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-height: 0;
}
.main.alone {
  grid-column: 1 / -1;
}
.empty {
  display: grid;
  gap: 4px;
  justify-items: start;
  padding: 60px;
}
.empty h1 {
  margin: 0;
  font: 500 26px var(--serif);
}
.empty p {
  max-width: 60ch;
}
.dragging {
  border-color: var(--green);
  background: var(--tint);
}
.table {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
  overflow: hidden;
}
.room {
  display: flex;
  flex: 1;
  flex-direction: column;
  min-height: 0;
}
.side {
  min-height: 0;
  overflow: auto;
}
@media (max-width: 900px) {
  .readings {
    grid-template-columns: minmax(0, 1fr);
    height: auto;
  }
  .table {
    flex: none;
    height: 460px;
  }
}
</style>
