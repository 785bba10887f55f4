<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { groupThousands } from '@verdict/core/format';
import { countLevels, readNumber } from '@verdict/core/readings';
import type { Arrangement, RowFilter } from '@verdict/core/table';
import { computed, ref } from 'vue';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';
import SentenceNumber from '../../../components/fields/sentence-number.vue';
import { local } from '../../../language/language.js';

/** The order and choice of rows as a sentence. It changes what is shown, never what is stored. */
const props = defineProps<{
  columns: StudyColumn[];
  texts: (id: string) => readonly string[];
  shown: number;
  of: number;
}>();
const arrangement = defineModel<Arrangement>({ required: true });
const emit = defineEmits<{ again: []; close: [] }>();

const labels = computed(() => props.columns.filter(({ kind }) => kind === 'label'));
const numeric = computed(() => props.columns.filter(({ kind }) => kind !== 'label'));
const wrong = ref('');

function setSort(place: number, column: string): void {
  const sort = arrangement.value.sort.slice(0, place);
  if (column) sort.push({ column, falling: arrangement.value.sort[place]?.falling ?? false });
  arrangement.value = { ...arrangement.value, sort };
}
function setFalling(place: number, falling: boolean): void {
  const sort = arrangement.value.sort.map((by, i) => (i === place ? { ...by, falling } : by));
  arrangement.value = { ...arrangement.value, sort };
}

const filterOf = <K extends RowFilter['kind']>(kind: K) =>
  arrangement.value.only.find((filter) => filter.kind === kind) as Extract<RowFilter, { kind: K }> | undefined;
function setFilter(kind: RowFilter['kind'], filter: RowFilter | null): void {
  const others = arrangement.value.only.filter((one) => one.kind !== kind);
  arrangement.value = { ...arrangement.value, only: filter ? [...others, filter] : others };
}

const byLevel = computed(() => filterOf('levels'));
const levelColumn = computed(() => props.columns.find(({ id }) => id === byLevel.value?.column));
const levels = computed(() =>
  levelColumn.value ? countLevels(props.texts(levelColumn.value.id), levelColumn.value.levels) : [],
);
function chooseLabel(id: string): void {
  const column = props.columns.find((c) => c.id === id);
  const all = column ? countLevels(props.texts(id), column.levels).map(({ name }) => name) : [];
  setFilter('levels', column ? { kind: 'levels', column: id, levels: all } : null);
}
function toggleLevel(name: string): void {
  const current = byLevel.value!;
  const chosen = current.levels.includes(name) ? current.levels.filter((l) => l !== name) : [...current.levels, name];
  setFilter('levels', { ...current, levels: chosen });
}

const byRange = computed(() => filterOf('range'));
const chooseRange = (column: string) =>
  setFilter(
    'range',
    column ? { kind: 'range', column, from: byRange.value?.from ?? null, to: byRange.value?.to ?? null } : null,
  );
function setEnd(end: 'from' | 'to', typed: string): void {
  const text = typed.trim();
  const value = text === '' ? null : readNumber(text.replace(',', '.'), { decimal: 'point', thousands: 'none' });
  const next = { ...byRange.value!, [end]: value };
  wrong.value =
    text !== '' && value === null
      ? `“${text}” is not a number.`
      : next.from !== null && next.to !== null && next.from > next.to
        ? `The lower limit (${next.from}) must not be above the upper limit (${next.to}).`
        : '';
  if (!wrong.value) setFilter('range', next);
}
const byRows = computed(() => filterOf('rows'));
const asideState = computed(() => filterOf('set-aside')?.show ?? 'all');
const setAside = (show: string) =>
  setFilter('set-aside', show === 'only' || show === 'without' ? { kind: 'set-aside', show } : null);
</script>

<template>
  <div class="arrange" role="group" aria-label="Arrange">
    <p class="sentence">
      Sorted by
      <template v-for="place in Math.min(3, arrangement.sort.length + 1)" :key="place">
        <template v-if="place > 1">, then by </template>
        <SentenceChoice
          :aria-label="`Sort ${place}`"
          :model-value="arrangement.sort[place - 1]?.column ?? ''"
          :options="[
            { value: '', text: place === 1 ? 'stored order' : 'nothing' },
            ...columns.map((column) => ({ value: column.id, text: column.name })),
          ]"
          @update:model-value="(value) => setSort(place - 1, value)" />
        <SentenceChoice
          v-if="arrangement.sort[place - 1]"
          :aria-label="`Direction ${place}`"
          :model-value="arrangement.sort[place - 1]!.falling ? 'descending' : 'ascending'"
          :options="[
            { value: 'ascending', text: 'ascending' },
            { value: 'descending', text: 'descending' },
          ]"
          @update:model-value="(value) => setFalling(place - 1, value === 'descending')" /></template
      >; rows with
      <SentenceChoice
        aria-label="Rows by label"
        :model-value="byLevel?.column ?? ''"
        :options="[
          { value: '', text: 'any label' },
          ...labels.map((column) => ({ value: column.id, text: column.name })),
        ]"
        @update:model-value="(value) => chooseLabel(value)"
      />
      <template v-if="byLevel">
        among
        <el-checkbox
          v-for="level in levels.slice(0, 30)"
          :key="level.name"
          :model-value="byLevel.levels.includes(level.name)"
          @change="toggleLevel(level.name)"
          >{{ level.name }}</el-checkbox
        ></template
      >, with
      <SentenceChoice
        aria-label="Rows by range"
        :model-value="byRange?.column ?? ''"
        :options="[
          { value: '', text: 'any value' },
          ...numeric.map((column) => ({ value: column.id, text: column.name })),
        ]"
        @update:model-value="(value) => chooseRange(value)"
      /><template v-if="byRange">
        from
        <SentenceNumber
          aria-label="From"
          placeholder="any"
          :model-value="String(byRange.from ?? '')"
          @update:model-value="(text) => setEnd('from', text)" />
        to
        <SentenceNumber
          aria-label="To"
          placeholder="any"
          :model-value="String(byRange.to ?? '')"
          @update:model-value="(text) => setEnd('to', text)" /></template
      >,
      <SentenceChoice
        aria-label="Set-aside readings"
        :model-value="asideState"
        :options="[
          { value: 'all', text: 'set-aside readings or not' },
          { value: 'only', text: 'a set-aside reading' },
          { value: 'without', text: 'no set-aside reading' },
        ]"
        @update:model-value="(value) => setAside(value)"
      /><template v-if="byRows"
        >, the {{ groupThousands(byRows.rows.length) }} chosen in a picture
        <el-button link @click="setFilter('rows', null)">show all</el-button></template
      >.
      <span v-if="wrong" class="said-wrong" role="alert">{{ local(wrong) }}</span>
    </p>
    <div class="end">
      <span class="soft" role="status">{{ groupThousands(shown) }} of {{ groupThousands(of) }} rows</span>
      <el-button link @click="emit('again')">Arrange again</el-button>
      <el-button link @click="emit('close')">As stored</el-button>
    </div>
  </div>
</template>

<style scoped>
.arrange {
  padding: 0 16px 8px;
}
.sentence {
  margin: 0;
  font: 14px/1.9 var(--serif);
}
.end {
  display: flex;
  gap: 8px;
  align-items: baseline;
  font-size: 13px;
}
</style>
