<script setup lang="ts">
import { ruleRows, rulesTable, type OutliersResult, type Rule } from '@verdict/core/analyses';
import { formatFigure, groupThousands } from '@verdict/core/format';
import { computed, defineAsyncComponent, ref } from 'vue';
import { local } from '../../../language/language.js';

/** Every rule side by side; the one of the study is chosen by its name. */
const props = defineProps<{ result: OutliersResult }>();
const emit = defineEmits<{ choose: [rule: Rule] }>();
const TableDialog = defineAsyncComponent(() => import('../../../workbench/picture/table-dialog.vue'));
const tableOpen = ref(false);
const rows = computed(() => ruleRows(props.result));
const asked = ref<string | null>(null);
const explained = computed(() => rows.value.find(({ key }) => key === asked.value) ?? null);
const steps = computed(() => props.result.tests.find(({ rule }) => rule === 'generalized-esd')?.steps ?? []);
const bare = (value: number) => formatFigure(value, 'statistic');
const reading = (value: number) => formatFigure(value, 'reading', props.result.resolution);
</script>

<template>
  <div class="card box">
    <table class="figures">
      <thead>
        <tr>
          <th>rule</th>
          <th class="number">statistic</th>
          <th class="number">critical value</th>
          <th class="number">p</th>
          <th>flags row</th>
          <th class="number" title="The proportion of clean samples of this size in which it flags a reading">
            false-alarm rate
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.key" :class="{ chosen: row.ofStudy, none: row.test.reason }">
          <td>
            <el-button
              link
              :aria-expanded="asked === row.key"
              :title="row.meaning"
              @click="asked = asked === row.key ? null : row.key"
              >{{ row.name }}</el-button
            >
          </td>
          <td class="number" :title="row.symbol">{{ local(row.statistic) }}</td>
          <td class="number">{{ local(row.critical) }}</td>
          <td class="number">{{ local(row.p) }}</td>
          <td :class="{ named: row.test.rows?.length }">{{ local(row.names) }}</td>
          <td class="number">{{ local(row.alarms) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="explained" class="meaning">
      {{ local(explained.meaning) }} <span class="soft">{{ local(explained.formula) }}</span> p from the formula
      {{ local(explained.pFormula) }}, simulated {{ local(explained.pSimulated) }}.
      <el-button v-if="!explained.ofStudy" link @click="emit('choose', explained.test.rule)"
        >Make it the rule of the study</el-button
      >
    </p>
    <p class="soft note">
      Choose the rule of the study before looking at the results: with eight rules, false alarms are far more frequent.
      Proportions of {{ groupThousands(result.replicates) }} clean samples.
      <el-button link @click="tableOpen = true">Table</el-button>
    </p>
    <template v-if="steps.length">
      <h3>Steps of the generalised ESD</h3>
      <table class="figures">
        <thead>
          <tr>
            <th>step</th>
            <th>row</th>
            <th class="number">value</th>
            <th class="number">R</th>
            <th class="number">critical value</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(step, i) in steps" :key="i" :class="{ above: step.statistic > step.critical }">
            <td>{{ i + 1 }}</td>
            <td>{{ step.row }}</td>
            <td class="number">{{ local(reading(step.value)) }}</td>
            <td class="number">{{ local(bare(step.statistic)) }}</td>
            <td class="number">{{ local(bare(step.critical)) }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <TableDialog v-if="tableOpen" title="Table of the rules" :rows="rulesTable(result)" @close="tableOpen = false" />
  </div>
</template>

<style scoped>
.box {
  padding: 6px 10px;
  font-size: 12.5px;
}
table {
  width: 100%;
}
th {
  font-weight: 400;
}
table.figures td,
table.figures th {
  padding: 2px 4px;
}
.chosen td {
  background: var(--tint);
}
.none td {
  color: var(--soft);
}
.named,
.above td {
  color: var(--ochre-text);
  font-weight: 600;
}
td:first-child {
  white-space: nowrap;
}
td .el-button.is-link {
  padding: 0;
  border: 0;
  color: inherit;
  font-size: inherit;
}
h3 {
  margin: 8px 0 2px;
  font-size: 13px;
  font-weight: 600;
}
.meaning,
.note {
  margin: 6px 0 0;
}
</style>
