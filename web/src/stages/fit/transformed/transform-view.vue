<script setup lang="ts">
import {
  lambdaFigures,
  outsideFigures,
  TRANSFORM_COLUMNS,
  transformAnalysis,
  transformFigures,
  transformTable,
  type TransformOffer,
} from '@verdict/core/analyses';
import { formatFigure, formatValue } from '@verdict/core/format';
import { TRANSFORMATION_TITLES } from '@verdict/core/table';
import { computed } from 'vue';
import { transformSheet } from '../../../charts/pictures/transform.js';
import FigureTable from '../../../components/figures/figure-table.vue';
import { local } from '../../../language/language.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useTransform } from './use-transform.js';

/** Which transformation makes the readings normal: before and after side by side, kept as a column that follows. */
const { column, name, cautions, run, stage, kept, keepAsColumn } = useTransform();
const { result } = run;
const finding = computed(() => (result.value ? transformAnalysis.finding(result.value) : []));
const sheet = computed(() => result.value && transformSheet(result.value, name.value));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => transformTable(of));
});
const words = computed(
  () =>
    `${name.value} before and after transformation, as plots and as histograms. ${finding.value.map(({ text }) => text).join('')} Arrow keys step from picture to picture.`,
);
const more = computed(() => (result.value ? [...lambdaFigures(result.value), ...outsideFigures(result.value)] : []));
const figure = (value: number | null) => (value === null ? '–' : formatFigure(value, 'statistic'));
const lambdaOf = ({ lambda }: TransformOffer) => (lambda === null ? '' : formatValue(Number(lambda.toPrecision(3))));
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :cautions="cautions">
    <template #picture>
      <PictureCard
        label="Before and after transformation"
        :title="`${name} before and after transformation`"
        :panels="sheet"
        :words="words"
        :why-not="run.whyNot.value"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Left: before transformation. Right: after. Vertical lines: limits and target."
      />
    </template>
    <template #figures>
      <template v-if="result">
        <div class="card box"><FigureTable :rows="transformFigures(result)" :heads="TRANSFORM_COLUMNS" /></div>
        <div v-if="more.length" class="card box"><FigureTable :rows="more" /></div>
        <div class="card box">
          <table class="figures">
            <thead>
              <tr>
                <th>other transformations</th>
                <th class="number">lambda</th>
                <th class="number">A²</th>
                <th class="number">skewness</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="offer in result.offers" :key="offer.by" :class="{ chosen: offer.by === result.by }">
                <td>
                  <el-button
                    link
                    :aria-pressed="offer.by === result.by"
                    :disabled="offer.reason !== null"
                    :title="offer.reason ?? ''"
                    @click="run.address.set('by', offer.by)"
                    >{{ TRANSFORMATION_TITLES[offer.by] }}</el-button
                  >
                </td>
                <td class="number">{{ local(lambdaOf(offer)) }}</td>
                <td class="number">{{ local(figure(offer.statistic)) }}</td>
                <td class="number">{{ local(figure(offer.skewness)) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </template>
    <template #actions>
      <el-button v-if="result && !kept" @click="keepAsColumn">Add as a derived column</el-button>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="name" />
      <p v-if="kept" class="soft">
        {{ kept.name }} is calculated from {{ name }}, with limits and target. It is in Readings.
      </p>
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  padding: 6px 14px;
  font-size: 13px;
}
.chosen td {
  background: var(--tint);
}
td .el-button.is-link {
  padding: 0;
  border: 0;
}
td .el-button.is-link:not(.is-disabled) {
  color: var(--ink);
}
th {
  font-weight: 400;
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
