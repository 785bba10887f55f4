<script setup lang="ts">
import { groupThousands, parseBlock, recogniseLayout, type BlockLayout, type ParsedColumn } from '@verdict/core';
import { computed, ref, shallowRef, watch } from 'vue';
import CautionNote from '../../components/caution-note.vue';

/** What was recognised in a text, as a sentence with fields, over a live preview; nothing is stored before it is taken. */
const props = defineProps<{ text: string; source: string; taken: string[] }>();
const emit = defineEmits<{ take: [columns: ParsedColumn[]]; leave: [] }>();

const layout = ref<BlockLayout>(recogniseLayout(props.text));
watch(
  () => props.text,
  (text) => (layout.value = recogniseLayout(text)),
);
const block = shallowRef(parseBlock(props.text, layout.value, props.taken));
watch([layout, () => props.taken], () => (block.value = parseBlock(props.text, layout.value, props.taken)), {
  deep: true,
});

const PREVIEW = 12;
const MOST_PROBLEMS = 100;
const preview = computed(() => Array.from({ length: Math.min(PREVIEW, block.value.rows) }, (_, i) => i));
const wrongCells = computed(
  () => new Set(block.value.problems.filter((p) => p.code === 'not-a-number').map((p) => `${p.column}/${p.row}`)),
);
const under = ({ kind, unit }: ParsedColumn) => [kind, unit].filter(Boolean).join(' · ');
</script>

<template>
  <section class="panel card" aria-label="Readings to take">
    <h2>{{ source }}</h2>
    <p class="sentence">
      Columns separated by
      <select v-model="layout.separator" class="field" aria-label="Separator">
        <option value="tab">tabs</option>
        <option value="comma">commas</option>
        <option value="semicolon">semicolons</option>
        <option value="blanks">blanks</option>
        <option value="none">nothing: one column</option></select
      >, decimals with a
      <select v-model="layout.decimal" class="field" aria-label="Decimal mark">
        <option value="point">point</option>
        <option value="comma">comma</option></select
      >, thousands with
      <select v-model="layout.thousands" class="field" aria-label="Thousands mark">
        <option value="none">no mark</option>
        <option value="comma">a comma</option>
        <option value="point">a point</option>
        <option value="blank">a blank</option>
        <option value="apostrophe">an apostrophe</option></select
      >, names in
      <select v-model="layout.names" class="field" aria-label="Names">
        <option value="row 1">row 1</option>
        <option value="none">no row</option></select
      >, units in
      <select v-model="layout.units" class="field" aria-label="Units">
        <option value="row 2">row 2</option>
        <option value="none">no row of their own</option></select
      >.
    </p>
    <CautionNote v-if="block.refusal" lead="Cannot be taken" tone="wrong">{{ block.refusal }}</CautionNote>
    <template v-else>
      <div class="preview" tabindex="0" aria-label="Preview">
        <table>
          <thead>
            <tr>
              <th></th>
              <th v-for="column in block.columns" :key="column.name">
                {{ column.name }}<small>{{ under(column) }}</small>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="i in preview" :key="i">
              <td class="index">{{ i + 1 }}</td>
              <td
                v-for="column in block.columns"
                :key="column.name"
                :class="{ words: column.kind === 'label', wrong: wrongCells.has(`${column.name}/${i + 1}`) }"
              >
                {{ column.cells[i]!.slice(0, 80) }}
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="block.rows > PREVIEW" class="soft more">and {{ groupThousands(block.rows - PREVIEW) }} more rows</p>
      </div>
      <CautionNote v-if="block.problems.length" lead="To look at">
        {{ groupThousands(block.problems.length) }} {{ block.problems.length === 1 ? 'thing' : 'things' }}, kept as
        written:
        <ul>
          <li v-for="(problem, i) in block.problems.slice(0, MOST_PROBLEMS)" :key="i">{{ problem.text }}</li>
        </ul>
        <span v-if="block.problems.length > MOST_PROBLEMS"
          >and {{ groupThousands(block.problems.length - MOST_PROBLEMS) }} more.</span
        >
      </CautionNote>
    </template>
    <div class="actions">
      <el-button type="primary" :disabled="block.refusal !== null" @click="emit('take', block.columns)">
        {{
          block.refusal
            ? 'Take the readings'
            : `Take ${groupThousands(block.rows)} ${block.rows === 1 ? 'row' : 'rows'} in ${block.columns.length} ${block.columns.length === 1 ? 'column' : 'columns'}`
        }}
      </el-button>
      <el-button @click="emit('leave')">Leave it</el-button>
    </div>
  </section>
</template>

<style scoped>
.panel {
  display: flex;
  flex-direction: column;
  gap: 12px;
  height: 100%;
  padding: 14px 18px 16px;
  overflow: auto;
}
h2 {
  margin: 0;
  font-size: 15px;
  font-weight: 600;
}
.sentence {
  margin: 0;
  font: 15px/1.75 var(--serif);
}
.preview {
  flex: 0 1 auto;
  min-height: 120px;
  overflow: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  border: 1px solid var(--grid-line);
  padding: 3px 12px;
  font: 12.5px/18px var(--mono);
  text-align: right;
  white-space: pre;
}
th {
  background: var(--head-cell);
  font: 600 12.5px var(--sans);
  text-align: left;
}
th small {
  display: block;
  color: var(--soft);
  font-weight: 400;
}
.index {
  color: var(--soft);
}
td.words {
  text-align: left;
  font-family: var(--sans);
}
td.wrong {
  color: var(--rust);
  box-shadow: inset 3px 0 0 var(--rust);
}
.more {
  margin: 6px 0 0;
}
ul {
  max-height: 120px;
  margin: 4px 0 0;
  padding-left: 18px;
  overflow: auto;
}
</style>
