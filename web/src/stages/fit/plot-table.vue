<script setup lang="ts">
import { normalQuantile, type ProbabilityPlotResult } from '@verdict/core';
import { ElMessage } from 'element-plus';
import { computed } from 'vue';
import { toDelimited } from '@verdict/core';
import { saveFile } from '../../files/save-file.js';

/** The table behind the plot: rank, row, reading, p, score, expected, observed − expected. */
const props = defineProps<{ result: ProbabilityPlotResult; column: string; figure: (value: number) => string }>();
const emit = defineEmits<{ close: [] }>();

const SHOWN = 1_000;
const HEAD = ['i', 'row', 'reading', 'p', 'score', 'expected', 'observed − expected'];
const rowAt = (i: number): number[] => {
  const { rows, readings, positions, scores, mean, sd } = props.result;
  const expected = mean + sd * normalQuantile(positions[i]!);
  return [i + 1, rows[i]!, readings[i]!, positions[i]!, scores[i]!, expected, readings[i]! - expected];
};
const shown = computed(() => Array.from({ length: Math.min(SHOWN, props.result.n) }, (_, i) => rowAt(i)));
const all = () => [HEAD, ...Array.from({ length: props.result.n }, (_, i) => rowAt(i).map(String))];

async function copy(): Promise<void> {
  await navigator.clipboard.writeText(toDelimited(all(), '\t'));
  ElMessage.success(`${props.result.n} rows are on the clipboard, in full precision.`);
}
const save = () => saveFile(`probability plot of ${props.column}.csv`, toDelimited(all(), ','), 'text/csv');
</script>

<template>
  <el-dialog :model-value="true" title="The table behind the plot" width="720" append-to-body @close="emit('close')">
    <div class="scroll" tabindex="0">
      <table class="figures">
        <thead>
          <tr>
            <th v-for="head in HEAD" :key="head" class="number">{{ head }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[i, row, reading, p, score, expected, difference] in shown" :key="i">
            <td class="number">{{ i }}</td>
            <td class="number">{{ row }}</td>
            <td class="number">{{ figure(reading!) }}</td>
            <td class="number">{{ p!.toFixed(4) }}</td>
            <td class="number">{{ score!.toFixed(3).replace('-', '−') }}</td>
            <td class="number">{{ expected!.toPrecision(5) }}</td>
            <td class="number">{{ difference!.toPrecision(2).replace('-', '−') }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="result.n > SHOWN" class="soft">The first {{ SHOWN }} of {{ result.n }}; copying and saving give all.</p>
    </div>
    <template #footer>
      <el-button @click="copy">Copy as TSV</el-button>
      <el-button @click="save">Save as CSV</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.scroll {
  max-height: 52vh;
  overflow: auto;
}
</style>
