<script setup lang="ts">
import {
  agreementSentence,
  FIGURES,
  NORMALITY_COLUMNS,
  normalityDetails,
  normalityFigures,
  normalityTable,
  PLOT_FIGURES,
  type DescribeResult,
  type NormalityResult,
  type ProbabilityPlotResult,
} from '@verdict/core/analyses';
import { foundFigures } from '@verdict/core/road';
import { computed, ref } from 'vue';
import DetailList from '../../components/figures/detail-list.vue';
import FigureTable from '../../components/figures/figure-table.vue';

/** The figures beside the plot: the chosen test with all its p-values and the shape of the column, or all tests side by side. */
const props = defineProps<{
  test: NormalityResult;
  figures: DescribeResult | null;
  plot: ProbabilityPlotResult | null;
}>();

type Shown = 'chosen' | 'all';
const shown = ref<Shown>('chosen');
const CHOICES: { value: Shown; label: string }[] = [
  { value: 'chosen', label: 'The test' },
  { value: 'all', label: 'All tests' },
];
const OF_SHAPE = FIGURES.filter(({ key }) => key === 'skewness' || key === 'kurtosis');
const rows = computed(() => [
  ...normalityFigures(props.test),
  ...(props.figures ? foundFigures(OF_SHAPE, [props.figures]) : []),
  ...(props.plot ? foundFigures(PLOT_FIGURES, [props.plot]) : []),
]);
</script>

<template>
  <div>
    <el-segmented v-model="shown" :options="CHOICES" aria-label="Figures of the fit" />
    <div class="card box">
      <FigureTable v-if="shown === 'chosen'" :rows="rows" />
      <template v-else>
        <FigureTable :rows="normalityTable(test)" :heads="NORMALITY_COLUMNS">
          <template #default="{ figure }">
            <DetailList :rows="normalityDetails(test, figure.key)" />
          </template>
        </FigureTable>
        <p class="soft">{{ agreementSentence(test) }}</p>
      </template>
    </div>
  </div>
</template>

<style scoped>
.box {
  margin-top: 6px;
  padding: 6px 14px;
}
p {
  margin: 6px 0;
  font-size: 13px;
}
</style>
