<script setup lang="ts">
import { groupThousands } from '@verdict/core/format';
import type { ParsedBlock, ParsedColumn } from '@verdict/core/readings';
import { computed } from 'vue';
import CautionNote from '../../../components/caution-note.vue';

/** The first rows of the import, and all its problems. */
const props = defineProps<{ block: ParsedBlock; columns: ParsedColumn[] }>();

const PREVIEW = 12;
const MOST_PROBLEMS = 100;
const preview = computed(() => Array.from({ length: Math.min(PREVIEW, props.block.rows) }, (_, i) => i));
const wrongCells = computed(() => {
  const wrong = props.block.problems.filter(({ code }) => code === 'not-a-number');
  return new Set(wrong.map(({ column, row }) => `${column}/${row}`));
});
const under = ({ kind, unit }: ParsedColumn) =>
  [kind === 'measure' ? 'measurement' : kind, unit].filter(Boolean).join(' · ');
</script>

<template>
  <div class="preview" tabindex="0" aria-label="Preview">
    <table>
      <thead>
        <tr>
          <th></th>
          <th v-for="column in columns" :key="column.name">
            {{ column.name }}<small>{{ under(column) }}</small>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="i in preview" :key="i">
          <td class="index">{{ i + 1 }}</td>
          <td
            v-for="column in columns"
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
  <CautionNote v-if="block.problems.length" lead="Check">
    {{ groupThousands(block.problemCount) }} {{ block.problemCount === 1 ? 'problem' : 'problems' }}:
    <ul>
      <li v-for="(problem, i) in block.problems.slice(0, MOST_PROBLEMS)" :key="i">{{ problem.text }}</li>
    </ul>
    <span v-if="block.problemCount > MOST_PROBLEMS"
      >and {{ groupThousands(block.problemCount - MOST_PROBLEMS) }} more.</span
    >
  </CautionNote>
</template>

<style scoped>
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
