<script setup lang="ts">
import type { DistributionResult, MomentFigure } from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { formatValue } from '@verdict/core/format';

/** The figures of a distribution beside one another, those of a second one in a column of its own. */
defineProps<{ result: DistributionResult; over: DistributionResult | null }>();

const said = ({ value, reason }: MomentFigure) => (value === null ? (reason ?? '') : formatValue(value));
const ROWS = [
  ['mean', ({ mean }: DistributionResult) => said(mean)],
  ['median', ({ median }: DistributionResult) => formatValue(median)],
  ['sd', ({ sd }: DistributionResult) => said(sd)],
  ['variance', ({ variance }: DistributionResult) => said(variance)],
  ['skewness', ({ skewness }: DistributionResult) => said(skewness)],
  ['excess kurtosis', ({ kurtosis }: DistributionResult) => said(kurtosis)],
] as const;
</script>

<template>
  <div class="card box">
    <table class="figures">
      <thead v-if="over">
        <tr>
          <th></th>
          <th class="number">{{ familyByName(result.family).title }}</th>
          <th class="number">{{ familyByName(over.family).title }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="[name, figureOf] in ROWS" :key="name">
          <td>{{ name }}</td>
          <td class="number">{{ figureOf(result) }}</td>
          <td v-if="over" class="number">{{ figureOf(over) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.box {
  padding: 4px 14px;
  font-size: 13px;
}
td {
  padding: 3.5px 0;
}
</style>
