<script setup lang="ts">
import {
  CONTRIBUTION_COLUMNS,
  contributionFigures,
  firstOrderWords,
  propagateAnalysis,
  propagateFigures,
  PROPAGATE,
  propagateTable,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { propagatePanels } from '../../charts/pictures/propagate.js';
import FigureTable from '../../components/figures/figure-table.vue';
import SentenceText from '../../components/fields/sentence-text.vue';
import { local } from '../../language/language.js';
import AnswerPage from '../../workbench/frame/answer-page.vue';
import { useStage } from '../../workbench/frame/use-stage.js';
import InputRow from './input-row.vue';
import { useInputs } from './use-inputs.js';

/** What a formula makes of uncertain inputs. */
const { columns, rows, setLaw, setColumn, together, setTogether, problem, run, about, formula } = useInputs();
const stage = useStage({ runs: () => [run], about });
const { result, request } = run;
const contributions = computed(() =>
  result.value && result.value.contributions.length > 1 ? contributionFigures(result.value) : [],
);
const values = computed(() => request.value ?? undefined);
const whyNot = computed(() => {
  if (formula.value === '')
    return 'Enter a formula, such as a * b or (gross − tare) / density: each name in it becomes an input.';
  if (rows.value.length === 0) return 'The formula contains no input, so its result does not vary.';
  return problem.value || run.whyNot.value;
});
const set = (text: string) => run.address.set('formula', text.trim().replaceAll('−', '-') || undefined);
</script>

<template>
  <AnswerPage
    :analysis="propagateAnalysis"
    :run="run"
    :stage="stage"
    :after="result && firstOrderWords(result)"
    :keepable="!!result"
    label="Picture of the results"
    :title="formula ? `The result of ${formula}` : 'uncertainty propagation'"
    :draw="propagatePanels"
    :table="propagateTable"
    :figures="propagateFigures"
    hint="Point at a mark to see its values."
    :why-not="whyNot"
    :mend="false"
    subject=""
    :parts="PROPAGATE.how"
    :values="values"
  >
    <template #above>
      <section class="card entry" aria-label="Question">
        <div class="line">
          Formula
          <SentenceText :model-value="formula" aria-label="formula" placeholder="a * b" @update:model-value="set" />
          {{ rows.length > 0 ? 'with' : '' }}

          <template v-for="(row, i) in rows" :key="row.name">
            <InputRow
              :row="row"
              :columns="columns"
              @law="(family, parameters) => setLaw(row.name, family, parameters)"
              @column="(id) => setColumn(row.name, id)"
            /><template v-if="i < rows.length - 1">; </template>
          </template>
          <template v-if="rows.length > 1">
            ; correlations
            <SentenceText
              :model-value="together"
              :wrong="problem !== ''"
              aria-label="correlations"
              placeholder="none"
              @update:model-value="setTogether"
            />
            <span v-if="problem" class="said-wrong" role="alert"> {{ local(problem) }}</span>
          </template>
        </div>
      </section>
    </template>
    <template #figures>
      <div v-if="contributions.length" class="card box">
        <FigureTable :rows="contributions" :heads="CONTRIBUTION_COLUMNS" />
      </div>
    </template>
  </AnswerPage>
</template>

<style scoped>
.entry {
  padding: 5px 16px;
}
.line {
  font: 15px/1.75 var(--serif);
}
.box {
  padding: 6px 14px;
}
</style>
