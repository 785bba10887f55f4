<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { computed, onMounted, ref, watch } from 'vue';
import SentenceNumber from '../../../components/fields/sentence-number.vue';
import { typedCell } from '../../../language/language.js';

/** Finds a text in the cells, from the cursor on, and goes to a row by its number. */
const props = defineProps<{
  columns: readonly StudyColumn[];
  texts: (id: string) => readonly string[];
  /** Stored rows in the order shown. */
  rowAt: (shown: number) => number;
  shown: number;
  rowCount: number;
  /** Where a stored row is shown; 0 where it is not. */
  placeOf: (row: number) => number;
  from: { row: number; column: number };
}>();
const emit = defineEmits<{ go: [row: number, column: number]; goToRow: [shown: number]; close: [] }>();

const wanted = ref('');
const rowWanted = ref('');
const rowWrong = ref('');
const field = ref<{ focus(): void }>();
onMounted(() => field.value?.focus());

const MOST = 10_000;
/** Places in reading order: row by row as shown. */
const found = computed(() => {
  const text = wanted.value.trim().toLowerCase();
  const places: { row: number; column: number }[] = [];
  if (text === '') return places;
  // A number is found as the reader writes it, and as the cell was written.
  const own = props.columns.map((column) => ({
    texts: props.texts(column.id),
    stored: column.kind === 'label' ? text : typedCell(text, column),
  }));
  for (let row = 1; row <= props.shown && places.length < MOST; row++) {
    own.forEach(({ texts, stored }, column) => {
      const cell = (texts[props.rowAt(row) - 1] ?? '').toLowerCase();
      if (cell.includes(text) || cell.includes(stored)) places.push({ row, column });
    });
  }
  return places;
});
const at = ref(-1);
watch(wanted, () => (at.value = -1));

function step(by: 1 | -1): void {
  const places = found.value;
  if (places.length === 0) return;
  if (at.value < 0) {
    const { row, column } = props.from;
    const next = places.findIndex((place) => place.row > row || (place.row === row && place.column >= column));
    at.value = next < 0 ? 0 : next;
  } else at.value = (at.value + by + places.length) % places.length;
  const place = places[at.value]!;
  emit('go', place.row, place.column);
}
function goToRow(): void {
  const row = Number(rowWanted.value.trim());
  const there = Number.isInteger(row) && row >= 1 && row <= props.rowCount;
  const place = there ? props.placeOf(row) : 0;
  rowWrong.value = !there ? `Enter a row from 1 to ${props.rowCount}.` : place === 0 ? `Row ${row} is not shown.` : '';
  if (!rowWrong.value) emit('goToRow', place);
}
const said = computed(() => {
  if (wanted.value.trim() === '') return '';
  const { length } = found.value;
  if (length === 0) return 'not found';
  const all = length >= MOST ? `${MOST} or more` : String(length);
  return at.value < 0 ? all : `${at.value + 1} of ${all}`;
});
</script>

<template>
  <div class="find" role="search" aria-label="Find in the table" @keydown.esc.stop="emit('close')">
    <label
      >Find
      <el-input
        ref="field"
        v-model="wanted"
        class="field"
        aria-label="Find"
        @keydown.enter.exact="step(1)"
        @keydown.enter.shift="step(-1)"
    /></label>
    <el-button link :disabled="!found.length" @click="step(1)">Next</el-button>
    <el-button link :disabled="!found.length" @click="step(-1)">Previous</el-button>
    <span class="soft" role="status">{{ said }}</span>
    <span class="room"></span>
    <label>Go to row <SentenceNumber v-model="rowWanted" live aria-label="Go to row" @keydown.enter="goToRow" /></label>
    <span v-if="rowWrong" class="said-wrong" role="alert">{{ rowWrong }}</span>
    <el-button link @click="emit('close')">Close</el-button>
  </div>
</template>

<style scoped>
.find {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: baseline;
  padding: 0 16px 10px;
}
.room {
  flex: 1;
}
</style>
