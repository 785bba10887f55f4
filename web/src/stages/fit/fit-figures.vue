<script setup lang="ts">
import {
  FIGURES,
  NORMALITY_FIGURES,
  PLOT_FIGURES,
  type DescribeResult,
  type NormalityResult,
  type ProbabilityPlotResult,
} from '@verdict/core/analyses';
import { foundFigures } from '@verdict/core/road';
import { computed } from 'vue';
import FigureTable from '../../components/figures/figure-table.vue';

/** The figures beside the plot: the test with all its p-values, and the shape of the column. */
const props = defineProps<{
  test: NormalityResult;
  figures: DescribeResult | null;
  plot: ProbabilityPlotResult | null;
}>();

const OF_SHAPE = FIGURES.filter(({ key }) => key === 'skewness' || key === 'kurtosis');
const rows = computed(() => [
  ...foundFigures(NORMALITY_FIGURES, [props.test]),
  ...(props.figures ? foundFigures(OF_SHAPE, [props.figures]) : []),
  ...(props.plot ? foundFigures(PLOT_FIGURES, [props.plot]) : []),
]);
</script>

<template>
  <div class="card box"><FigureTable :rows="rows" /></div>
</template>

<style scoped>
.box {
  padding: 6px 14px;
}
</style>
