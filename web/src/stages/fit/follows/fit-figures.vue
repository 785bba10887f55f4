<script setup lang="ts">
import {
  agreementSentence,
  FIGURES,
  fittedTestDetails,
  fittedTestFigures,
  fittedTestTable,
  lawFigures,
  TEST_COLUMNS,
  normalityDetails,
  normalityFigures,
  normalityTable,
  PLOT_FIGURES,
  type CompareFamiliesResult,
  type DescribeResult,
  type GoodnessOfFitResult,
  type NormalityResult,
  type ProbabilityPlotResult,
} from '@verdict/core/analyses';
import { foundFigures } from '@verdict/core/road';
import { computed } from 'vue';
import DetailList from '../../../components/figures/detail-list.vue';
import FigureTable from '../../../components/figures/figure-table.vue';
import { local } from '../../../language/language.js';
import type { Shown } from './use-shown.js';
import FamiliesTable from './families-table.vue';

/** The figures beside the plot: the chosen test with all its p-values, all tests side by side, the distribution that was found, or all families. */
const props = defineProps<{
  normality: NormalityResult | null;
  fitted: GoodnessOfFitResult | null;
  figures: DescribeResult | null;
  plot: ProbabilityPlotResult | null;
  families: CompareFamiliesResult | null;
  /** Why there is no test of these readings. */
  whyNot: string | null;
  family: string;
  column: string;
}>();
const emit = defineEmits<{ choose: [family: string] }>();

const shown = defineModel<Shown>({ required: true });
const CHOICES: { value: Shown; label: string }[] = [
  { value: 'chosen', label: 'The test' },
  { value: 'all', label: 'All tests' },
  { value: 'found', label: 'The distribution' },
  { value: 'families', label: 'Distributions' },
];
const OF_SHAPE = FIGURES.filter(({ key }) => key === 'skewness' || key === 'kurtosis');
const test = computed(() => {
  if (props.normality) return normalityFigures(props.normality);
  return props.fitted ? fittedTestFigures(props.fitted) : [];
});
const table = computed(() => {
  if (props.normality) return normalityTable(props.normality);
  return props.fitted ? fittedTestTable(props.fitted) : [];
});
const detailsOf = (key: string) =>
  props.normality ? normalityDetails(props.normality, key) : props.fitted ? fittedTestDetails(props.fitted, key) : [];
const rows = computed(() => [
  ...test.value,
  ...(props.normality && props.figures ? foundFigures(OF_SHAPE, [props.figures]) : []),
  ...(props.plot ? foundFigures(PLOT_FIGURES, [props.plot]) : []),
]);
const found = computed(() => (props.plot ? lawFigures(props.plot) : []));
</script>

<template>
  <div>
    <el-segmented v-model="shown" :options="CHOICES" aria-label="Figures of the fit" />
    <div class="card box">
      <p v-if="whyNot && (shown === 'chosen' || shown === 'all')">{{ local(whyNot) }}</p>
      <FigureTable v-if="shown === 'chosen'" :rows="rows" />
      <FigureTable v-else-if="shown === 'found'" :rows="found" />
      <template v-else-if="shown === 'families'">
        <FamiliesTable
          v-if="families"
          :result="families"
          :family="family"
          :column="column"
          @choose="(name) => emit('choose', name)"
        />
        <p v-else class="soft">Fitting the distributions …</p>
      </template>
      <template v-else-if="!whyNot">
        <FigureTable :rows="table" :heads="TEST_COLUMNS">
          <template #default="{ figure }">
            <DetailList :rows="detailsOf(figure.key)" />
          </template>
        </FigureTable>
        <p v-if="normality" class="soft">{{ local(agreementSentence(normality)) }}</p>
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
