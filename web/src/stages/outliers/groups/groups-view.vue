<script setup lang="ts">
import {
  GROUP_TEST_COLUMNS,
  groupCauseWords,
  groupRows,
  groupTestFigures,
  outlyingGroupsAnalysis,
  outlyingGroupsTable,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { groupBars } from '../../../charts/pictures/group-bars.js';
import FigureTable from '../../../components/figures/figure-table.vue';
import { local } from '../../../language/language.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useGroups } from './use-groups.js';

/** Groups that agree less than the rest: in spread, in mean, and the far readings in each. */
const { column, split, labels, splitBy, subject, run, stage, shown, change } = useGroups();
const { result } = run;
const finding = computed(() => (result.value ? outlyingGroupsAnalysis.finding(result.value) : []));
const cause = computed(() => result.value && groupCauseWords(result.value));
const panels = computed(() => result.value && groupBars(result.value, shown.value));
const rows = computed(() => (result.value ? groupRows(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => outlyingGroupsTable(of));
});
const whyNot = computed(() => {
  if (!split.value) return 'Choose a label column to split the subject by.';
  if (run.whyNot.value) return run.whyNot.value;
  return result.value && !panels.value
    ? 'There are too few groups, or too few readings per group, for this statistic.'
    : null;
});
const SHOWN = [
  { value: 'k', label: 'Spreads (k)' },
  { value: 'h', label: 'Means (h)' },
];
const words = computed(() => `${finding.value.map(({ text }) => text).join('')} Arrow keys step from group to group.`);
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :after="cause" :keepable="!!result">
    <template #picture>
      <PictureCard
        label="Groups"
        :title="`${shown === 'k' ? 'spreads' : 'means'} of ${subject}`"
        :panels="panels"
        :words="words"
        :why-not="whyNot"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Point at a bar to see its critical values; ochre bars are significant."
      >
        <template #choices>
          <el-segmented v-model="shown" size="small" :options="SHOWN" aria-label="Statistic" />
        </template>
      </PictureCard>
    </template>
    <template #figures>
      <div v-if="!split" class="card box">
        <p v-if="labels.length === 0">This study has no label column.</p>
        <p v-else>
          Split by
          <el-button v-for="label in labels" :key="label.id" link @click="splitBy(label.id)">{{
            label.name
          }}</el-button>
        </p>
      </div>
      <template v-else-if="result">
        <div class="card box"><FigureTable :rows="groupTestFigures(result)" :heads="GROUP_TEST_COLUMNS" /></div>
        <div class="card box">
          <table class="figures">
            <thead>
              <tr>
                <th>{{ split.name }}</th>
                <th class="number">n</th>
                <th class="number">mean</th>
                <th class="number">SD</th>
                <th class="number" title="The mean in SDs of the means">h</th>
                <th class="number" title="The SD relative to the pooled SD">k</th>
                <th title="Suspected outliers within the group">outliers</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows" :key="row.name">
                <td class="name" :title="row.name">{{ row.name }}</td>
                <td class="number">{{ row.n }}</td>
                <td class="number">{{ local(row.mean) }}</td>
                <td class="number">{{ local(row.sd) }}</td>
                <td class="number" :class="{ far: row.farMean }">{{ local(row.h) }}</td>
                <td class="number" :class="{ far: row.farSpread }">{{ local(row.k) }}</td>
                <td>{{ local(row.names) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
      </template>
    </template>
    <template #sentences>
      <MethodSentence v-if="split" :run="run" :subject="subject" :change="change" />
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  padding: 6px 12px;
  font-size: 13px;
}
table {
  width: 100%;
}
th {
  font-weight: 400;
}
p {
  margin: 4px 0;
}
table.figures td {
  padding-top: 2px;
  padding-bottom: 2px;
}
.name {
  max-width: 110px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.far {
  color: var(--ochre-text);
  font-weight: 600;
}
</style>
