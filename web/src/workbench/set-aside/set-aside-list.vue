<script setup lang="ts">
import type { Change } from '@verdict/contract';
import { local } from '../../language/language.js';
import { useStudy } from '../../stores/study.js';

/** The set-aside readings of a column, or those left in on purpose: row, value as written, reason, and the way back. */
const props = defineProps<{ columnId: string; readings: { row: number; reason: string }[]; left?: boolean }>();
defineEmits<{ go: [row: number] }>();
const store = useStudy();

const valueOf = (row: number) => (store.cells[props.columnId] ?? [])[row - 1] ?? '';
function putBack(row: number): void {
  const kind = props.left ? 'look-again' : 'put-back';
  const change: Change = { kind, readings: [{ column: props.columnId, row }] };
  store.change(change);
}
</script>

<template>
  <div v-for="reading in readings" :key="reading.row" class="reading">
    <el-button link @click="$emit('go', reading.row)">row {{ reading.row }}</el-button>
    <span class="soft">{{ local(valueOf(reading.row)) }} — {{ reading.reason }}</span>
    <el-button
      v-if="!store.ruled"
      link
      :aria-label="left ? `Review row ${reading.row} again` : `Restore row ${reading.row}`"
      @click="putBack(reading.row)"
    >
      {{ left ? 'Review again' : 'Restore' }}
    </el-button>
  </div>
</template>

<style scoped>
.reading {
  display: flex;
  gap: 6px;
  align-items: baseline;
  margin: 2px 0;
}
.reading span {
  flex: 1;
  overflow-wrap: anywhere;
}
</style>
