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
import AnswerPage from '../../../workbench/frame/answer-page.vue';
import { useTransform } from './use-transform.js';

/** Which transformation makes the readings normal: before and after side by side, kept as a column that follows. */
const { column, name, cautions, run, stage, kept, keepAsColumn } = useTransform();
const { result } = run;
const more = computed(() => (result.value ? [...lambdaFigures(result.value), ...outsideFigures(result.value)] : []));
const figure = (value: number | null) => (value === null ? '–' : formatFigure(value, 'statistic'));
const lambdaOf = ({ lambda }: TransformOffer) => (lambda === null ? '' : formatValue(Number(lambda.toPrecision(3))));
</script>

<template>
  <AnswerPage
    :analysis="transformAnalysis"
    :run="run"
    :stage="stage"
    :empty="!column"
    :cautions="cautions"
    label="Before and after transformation"
    :title="`${name} before and after transformation`"
    :draw="(found) => transformSheet(found, name)"
    :table="transformTable"
    :figures="transformFigures"
    :heads="TRANSFORM_COLUMNS"
    :shows="`${name} before and after transformation, as plots and as histograms.`"
    steps="picture"
    hint="Left: before transformation. Right: after. Vertical lines: limits and target."
    :subject="name"
  >
    <template #figures>
      <template v-if="result">
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
      <p v-if="kept" class="soft">
        {{ kept.name }} is calculated from {{ name }}, with limits and target. It is in Readings.
      </p>
    </template>
  </AnswerPage>
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
