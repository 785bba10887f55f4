<script setup lang="ts">
import type { ProbabilityPlotResult } from '@verdict/core/analyses';
import { normalQuantile } from '@verdict/core/distributions';
import { computed } from 'vue';
import TableDialog from '../../components/table-dialog.vue';

/** The table behind the plot: rank, row, reading, p, score, expected, observed − expected. */
const props = defineProps<{ result: ProbabilityPlotResult; column: string }>();
const emit = defineEmits<{ close: [] }>();

const HEAD = ['i', 'row', 'reading', 'p', 'score', 'expected', 'observed − expected'];
const rowAt = (i: number): number[] => {
  const { rows, readings, positions, scores, mean, sd } = props.result;
  const expected = mean + sd * normalQuantile(positions[i]!);
  return [i + 1, rows[i]!, readings[i]!, positions[i]!, scores[i]!, expected, readings[i]! - expected];
};
const rows = computed(() => [HEAD, ...Array.from({ length: props.result.n }, (_, i) => rowAt(i))]);
</script>

<template>
  <TableDialog :title="`The table behind the plot of ${column}`" :rows="rows" @close="emit('close')" />
</template>
