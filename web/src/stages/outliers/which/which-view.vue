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
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useWhich } from './use-which.js';

/** Which rule to use: false alarms and power of each at this n. */
const { column, name, run, stage, arrangement, choices, change } = useWhich();
const { result } = run;
const finding = computed(() => (result.value ? outlierRulesAnalysis.finding(result.value) : []));
const known = computed(() => (result.value && result.value.rules.length > 0 ? result.value : null));
const panels = computed(() => known.value && outlierRulesPanels(known.value, arrangement.value));
const rows = computed(() => (known.value ? ruleAtWorkRows(known.value, arrangement.value) : []));
const table = computed(() => {
  const { value: of } = known;
  return of && (() => outlierRulesTable(of));
});
const words = computed(() => `${finding.value.map(({ text }) => text).join('')} Arrow keys step from point to point.`);
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :keepable="!!known">
    <template #picture>
      <PictureCard
        label="Comparison of rules"
        :title="`outlier rules for samples of ${result?.n ?? 'n readings'}`"
        :panels="panels"
        :words="words"
        :why-not="run.whyNot.value"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Point at a mark to see its values. Rules of thumb are dashed."
      >
        <template #choices>
          <el-segmented v-model="arrangement" size="small" :options="choices" aria-label="Outliers in the samples" />
        </template>
      </PictureCard>
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
    <template #sentences>
      <MethodSentence :run="run" :subject="name" :change="change" />
    </template>
  </StageFrame>
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
