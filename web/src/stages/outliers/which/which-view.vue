<script setup lang="ts">
import {
  ARRANGEMENT_WORDS,
  outlierRulesAnalysis,
  outlierRulesTable,
  ruleAtWorkRows,
  SHIFTS,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { outlierRulesPanels } from '../../../charts/pictures/outlier-rules.js';
import { local } from '../../../language/language.js';
import AnswerPage from '../../../workbench/frame/answer-page.vue';
import { useWhich } from './use-which.js';

/** Which rule to use: false alarms and power of each at this n. */
const { column, name, run, stage, arrangement, choices, change } = useWhich();
const { result } = run;
const known = computed(() => (result.value && result.value.rules.length > 0 ? result.value : null));
const rows = computed(() => (known.value ? ruleAtWorkRows(known.value, arrangement.value) : []));
</script>

<template>
  <AnswerPage
    :analysis="outlierRulesAnalysis"
    :run="run"
    :stage="stage"
    :empty="!column"
    :keepable="!!known"
    label="Comparison of rules"
    :title="`outlier rules for samples of ${result?.n ?? 'n readings'}`"
    :draw="(found) => (found.rules.length > 0 ? outlierRulesPanels(found, arrangement) : null)"
    :table="outlierRulesTable"
    steps="point"
    hint="Point at a mark to see its values. Rules of thumb are dashed."
    :subject="name"
    :change="change"
  >
    <template #choices>
      <el-segmented v-model="arrangement" size="small" :options="choices" aria-label="Outliers in the samples" />
    </template>
    <template #figures>
      <div v-if="rows.length" class="card box">
        <table class="figures">
          <thead>
            <tr>
              <th>{{ ARRANGEMENT_WORDS[arrangement] }}, found</th>
              <th class="number" title="Any reading of a clean sample is flagged">clean</th>
              <th v-for="shift in SHIFTS" :key="shift" class="number">{{ shift }} SD</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.key" :title="row.meaning">
              <td>{{ row.name }}</td>
              <td class="number" :class="{ loud: row.loud }">{{ local(row.alarms) }}</td>
              <td v-for="(shift, i) in SHIFTS" :key="shift" class="number">{{ local(row.shares[i] ?? '–') }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="soft note">
        The table shows the percentage of samples in which all shifted readings were found. Column “clean” shows the
        false-alarm rate.
      </p>
    </template>
  </AnswerPage>
</template>

<style scoped>
.box {
  padding: 6px 12px;
  font-size: 12.5px;
}
table {
  width: 100%;
}
table.figures td,
table.figures th {
  padding: 2px 4px;
}
th {
  font-weight: 400;
}
.loud {
  color: var(--ochre-text);
  font-weight: 600;
}
.note {
  margin: 0;
  font-size: 12.5px;
}
</style>
