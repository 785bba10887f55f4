<script setup lang="ts">
import type { DescribeResult, NormalityResult, ProbabilityPlotResult } from '@verdict/core/analyses';
import { formatFigure, formatP, groupThousands } from '@verdict/core/format';
import { computed } from 'vue';

/** The figures beside the plot: the test with all its p-values, and the shape of the column. */
const props = defineProps<{
  test: NormalityResult;
  figures: DescribeResult | null;
  plot: ProbabilityPlotResult | null;
}>();

const darling = computed(() => props.test.tests[0]!);
const interval = computed(() => {
  const p = darling.value.pSimulated;
  return p ? `${formatP(p.pInterval[0])} – ${formatP(p.pInterval[1])}` : '';
});
const statistic = (value: number | null | undefined) =>
  value === null || value === undefined ? '–' : formatFigure(value, 'statistic');
</script>

<template>
  <div class="card box">
    <table class="figures">
      <thead>
        <tr>
          <th>Anderson–Darling A²</th>
          <th class="number">{{ statistic(darling.statistic) }}</th>
        </tr>
      </thead>
      <tbody>
        <tr>
          <td>
            p, simulated
            <span
              v-if="darling.pSimulated"
              class="soft"
              title="95 % interval of the simulated p, from the number of samples"
              >{{ groupThousands(darling.pSimulated.replicates) }} samples: {{ interval }}</span
            >
          </td>
          <td class="number">{{ darling.pSimulated ? formatP(darling.pSimulated.pValue, test.alpha) : '…' }}</td>
        </tr>
        <tr v-if="darling.pAsymptotic !== null">
          <td>p, by formula</td>
          <td class="number">{{ formatP(darling.pAsymptotic, test.alpha) }}</td>
        </tr>
        <tr v-if="darling.pResolution">
          <td>p, against a normal rounded to {{ test.resolution }}</td>
          <td class="number">{{ formatP(darling.pResolution.pValue, test.alpha) }}</td>
        </tr>
        <tr v-if="figures">
          <td>skewness, excess kurtosis <span class="soft">adjusted for n</span></td>
          <td class="number">
            {{ statistic(figures.skewness.adjusted) }} · {{ statistic(figures.kurtosis.adjusted) }}
          </td>
        </tr>
        <tr v-if="plot">
          <td>correlation of the plot</td>
          <td class="number">{{ plot.correlation.toFixed(4) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.box {
  padding: 6px 14px;
}
.soft {
  margin-left: 4px;
  font-size: 12px;
}
thead th {
  color: var(--ink);
  font-size: 14px;
  font-weight: 600;
}
</style>
