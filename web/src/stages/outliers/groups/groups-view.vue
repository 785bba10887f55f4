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
import { local } from '../../../language/language.js';
import AnswerPage from '../../../workbench/frame/answer-page.vue';
import { useGroups } from './use-groups.js';

/** Groups that agree less than the rest: in spread, in mean, and the suspected outliers in each. */
const { column, split, labels, splitBy, subject, run, stage, shown, change } = useGroups();
const { result } = run;
const rows = computed(() => (result.value ? groupRows(result.value) : []));
const whyNot = computed(() => {
  if (!split.value) return 'Choose a label column to split the subject by.';
  if (run.whyNot.value) return run.whyNot.value;
  return result.value && !groupBars(result.value, shown.value)
    ? 'There are too few groups, or too few readings per group, for this statistic.'
    : null;
});
const SHOWN = [
  { value: 'k', label: 'Spreads (k)' },
  { value: 'h', label: 'Means (h)' },
];
</script>

<template>
  <AnswerPage
    :analysis="outlyingGroupsAnalysis"
    :run="run"
    :stage="stage"
    :empty="!column"
    :after="result && groupCauseWords(result)"
    :keepable="!!result"
    label="Groups"
    :title="`${shown === 'k' ? 'spreads' : 'means'} of ${subject}`"
    :draw="(found) => groupBars(found, shown)"
    :table="outlyingGroupsTable"
    :figures="groupTestFigures"
    :heads="GROUP_TEST_COLUMNS"
    steps="group"
    hint="Point at a bar to see its critical values; ochre bars are significant."
    :why-not="whyNot"
    :asks="!!split"
    :subject="subject"
    :change="change"
  >
    <template #choices>
      <el-segmented v-model="shown" size="small" :options="SHOWN" aria-label="Statistic" />
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
  </AnswerPage>
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
