<script setup lang="ts">
import type { Change } from '@verdict/contract';
import { FILE_LIMIT } from '@verdict/contract';
import { groupThousands, problemCells, type ParsedColumn } from '@verdict/core';
import { useEventListener } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import CautionNote from '../../components/caution-note.vue';
import SetAsideDialog from '../../components/set-aside-dialog.vue';
import { useStudy } from '../../stores/study.js';
import ColumnCard from './column-card.vue';
import { readTextFile } from './open-file.js';
import PastePanel from './paste-panel.vue';
import ReadingGrid from './reading-grid.vue';
import { additionOf, emptyColumn, type Cursor } from './table-model.js';

const store = useStudy();
const subjectIndex = store.study?.columns.findIndex(({ id }) => id === store.study?.subject) ?? 0;
// ?row=5 in the address: the place somebody pointed at elsewhere.
const askedRow = Number(useRoute().query.row);
const firstRow = Number.isInteger(askedRow) && askedRow > 0 ? Math.min(askedRow, store.study?.rowCount ?? 1) : 1;
const cursor = ref<Cursor>({ row: firstRow, column: Math.max(0, subjectIndex) });
const grid = ref<InstanceType<typeof ReadingGrid>>();
const chooser = ref<HTMLInputElement>();
/** A text on its way in, with where it came from. */
const incoming = ref<{ text: string; source: string } | null>(null);
const refusal = ref('');
const asideRow = ref<number | null>(null);
const dragging = ref(false);

const study = computed(() => store.study!);
const columns = computed(() => study.value.columns);
const names = computed(() => columns.value.map(({ name }) => name));
const current = computed(() => columns.value[Math.min(cursor.value.column, columns.value.length - 1)] ?? null);
const aside = computed(() => new Set(study.value.setAside.map(({ column, row }) => `${column}/${row}`)));

/** What the cards need of each column; worked out once a column and change. */
const samples = computed(() => Object.fromEntries(columns.value.map(({ id }) => [id, store.sampleOf(id)!])));
const resolutions = computed(() =>
  Object.fromEntries(Object.entries(samples.value).map(([id, sample]) => [id, sample.resolution])),
);
const problems = computed(() => {
  const column = current.value;
  if (!column) return [];
  const cells = store.cells[column.id] ?? [];
  const found = problemCells({ ...column, cells }).map(({ row, text }) => ({ row: row!, text }));
  return found.filter(({ row }) => !aside.value.has(`${column.id}/${row}`));
});
const asideHere = computed(() => study.value.setAside.filter(({ column }) => column === current.value?.id));

function offer(text: string, source: string): void {
  refusal.value = '';
  if (store.ruled) {
    refusal.value = 'This study has its verdict; reopen it before adding readings.';
    return;
  }
  incoming.value = { text, source };
}

function take(parsed: ParsedColumn[]): void {
  const index = columns.value.length;
  store.change(additionOf(parsed));
  incoming.value = null;
  cursor.value = { row: 1, column: index };
}

async function openFile(file: File | undefined): Promise<void> {
  if (!file) return;
  const read = await readTextFile(file, FILE_LIMIT);
  if ('refusal' in read) refusal.value = read.refusal;
  else offer(read.text, file.name);
}

// Pasted anywhere on the stage, except into a field.
useEventListener('paste', (event: ClipboardEvent) => {
  if ((event.target as HTMLElement).closest?.('input, textarea')) return;
  event.preventDefault();
  offer(event.clipboardData?.getData('text/plain') ?? '', 'Pasted readings');
});

async function pasteByButton(): Promise<void> {
  try {
    offer(await navigator.clipboard.readText(), 'Pasted readings');
  } catch {
    refusal.value = 'The browser does not hand over the clipboard to a button here. Press Ctrl + V instead.';
  }
}

function onDrop(event: DragEvent): void {
  dragging.value = false;
  void openFile(event.dataTransfer?.files[0]);
}

const edit = (column: string, row: number, text: string) =>
  store.change({ kind: 'edit-cells', cells: [{ column, row, text }] });

function startTyping(): void {
  store.change(emptyColumn(names.value));
  requestAnimationFrame(() => grid.value?.pick(1, columns.value.length - 1));
}

function setAside(reason: string): void {
  if (current.value && asideRow.value !== null) {
    store.change({ kind: 'set-aside', readings: [{ column: current.value.id, row: asideRow.value, reason }] });
  }
  asideRow.value = null;
}
const change = (wanted: Change) => store.change(wanted);
const goTo = (row: number) => grid.value?.pick(row, cursor.value.column);
function removeColumn(): void {
  if (current.value) store.change({ kind: 'remove-columns', columns: [current.value.id] });
  cursor.value = { row: cursor.value.row, column: Math.max(0, cursor.value.column - 1) };
}
const lines = (n: number, one: string) => `${groupThousands(n)} ${one}${n === 1 ? '' : 's'}`;
</script>

<template>
  <div class="readings" @dragover.prevent="dragging = true" @dragleave="dragging = false" @drop.prevent="onDrop">
    <input
      ref="chooser"
      type="file"
      class="unseen"
      tabindex="-1"
      aria-label="File"
      accept=".csv,.tsv,.txt,text/csv"
      @change="
        openFile(($event.target as HTMLInputElement).files?.[0]);
        ($event.target as HTMLInputElement).value = '';
      "
    />
    <div class="main">
      <CautionNote v-if="refusal" lead="Not taken" tone="wrong"
        >{{ refusal }} <button class="plain" @click="refusal = ''">Understood</button></CautionNote
      >
      <PastePanel
        v-if="incoming"
        :text="incoming.text"
        :source="incoming.source"
        :taken="names"
        @take="take"
        @leave="incoming = null"
      />
      <section v-else-if="columns.length === 0" class="card empty" :class="{ dragging }">
        <h1>Paste a column of readings.</h1>
        <p>
          Copy it from a spreadsheet and press <kbd>Ctrl</kbd> + <kbd>V</kbd> anywhere on this page. Names, units,
          decimal commas and separators are recognised and shown before anything is stored.
        </p>
        <div>
          <el-button type="primary" @click="pasteByButton">Paste</el-button>
          <el-button @click="chooser?.click()">Open a CSV or TSV file</el-button>
          <el-button @click="startTyping">Type them in</el-button>
        </div>
        <p class="soft">A file can also be dropped here.</p>
      </section>
      <section v-else class="card table" :class="{ dragging }">
        <div class="title">
          <h2>{{ lines(study.rowCount, 'row') }}, {{ lines(columns.length, 'column') }}</h2>
          <template v-if="!store.ruled">
            <button class="plain" @click="chooser?.click()">Open a file</button>
            <button class="plain" @click="pasteByButton">Paste</button>
            <button class="plain" @click="startTyping">New column</button>
            <button v-if="current" class="plain" @click="removeColumn">Remove {{ current.name }}</button>
          </template>
          <span v-else class="soft">ruled: reopen in Verdict to change anything</span>
        </div>
        <div class="room">
          <ReadingGrid
            ref="grid"
            v-model:cursor="cursor"
            :columns="columns"
            :cells="store.cells"
            :row-count="study.rowCount"
            :aside="aside"
            :subject="study.subject"
            :locked="store.ruled"
            :resolutions="resolutions"
            @edit="edit"
            @block="(text) => offer(text, 'Pasted readings')"
          />
        </div>
      </section>
    </div>
    <aside v-if="current && samples[current.id] && !incoming" class="side">
      <ColumnCard
        :column="current"
        :sample="samples[current.id]!"
        :cells="store.cells[current.id] ?? []"
        :aside="asideHere"
        :problems="problems"
        :locked="store.ruled"
        :cursor-row="cursor.row"
        @change="change"
        @go="goTo"
        @set-aside="(row) => (asideRow = row)"
      />
    </aside>
    <SetAsideDialog
      v-if="current"
      :open="asideRow !== null"
      :what="`Row ${asideRow} of ${current.name}, ${(store.cells[current.id] ?? [])[(asideRow ?? 1) - 1]}`"
      @done="setAside"
      @leave="asideRow = null"
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
.main:only-of-type {
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
.title {
  display: flex;
  gap: 14px;
  align-items: baseline;
  padding: 12px 16px;
}
.title h2 {
  flex: 1;
  margin: 0;
  font-size: 15px;
  font-weight: 600;
}
.room {
  flex: 1;
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
