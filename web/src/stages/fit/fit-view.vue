<script setup lang="ts">
import {
  formatFigure,
  isUnavailable,
  missedSentence,
  normalityAnalysis,
  probabilityPlotAnalysis,
  type DescribeResult,
  type NormalityResult,
  type ProbabilityPlotResult,
  type Unavailable,
} from '@verdict/core';
import { computed, ref, toRef } from 'vue';
import { RouterLink } from 'vue-router';
import CautionNote from '../../components/caution-note.vue';
import FindingWords from '../../components/finding-words.vue';
import MethodSentence from '../../components/method-sentence.vue';
import SetAsideDialog from '../../components/set-aside-dialog.vue';
import { useAnalysis } from '../../composables/use-analysis.js';
import { useKeys } from '../../composables/use-keys.js';
import { useSettings } from '../../composables/use-settings.js';
import { useStudy } from '../../stores/study.js';
import { lanes } from '../../workers/analysis-pool.js';
import FitFigures from './fit-figures.vue';
import PlotCard from './plot-card.vue';
import { useKeeping } from './use-keeping.js';

/** Does the subject follow a normal distribution: the plot, the test, and keeping both. */
const store = useStudy();
const sample = toRef(store, 'sample');
const column = computed(() => store.subject);

const plotAddress = useSettings('plot', probabilityPlotAnalysis.method);
const testAddress = useSettings('test', normalityAnalysis.method);

/** The requests in full: what the address says, the study's level, and the defaults of the methods. */
const plotRequest = computed(() =>
  sample.value && column.value
    ? probabilityPlotAnalysis.resolve(
        probabilityPlotAnalysis.request.parse({ column: column.value.name, ...plotAddress.settings.value }),
        sample.value,
      )
    : null,
);
const testRequest = computed(() =>
  sample.value && column.value
    ? normalityAnalysis.resolve(
        normalityAnalysis.request.parse({
          column: column.value.name,
          alpha: store.study!.alpha,
          ...testAddress.settings.value,
        }),
        sample.value,
      )
    : null,
);
const describeRequest = computed(() => (column.value ? { column: column.value.name } : null));

const plot = useAnalysis<ProbabilityPlotResult | Unavailable>('probability-plot', plotRequest, sample);
const test = useAnalysis<NormalityResult | Unavailable>('normality', testRequest, sample);
const described = useAnalysis<DescribeResult | Unavailable>('describe', describeRequest, sample);

const plotResult = computed(() => available<ProbabilityPlotResult>(plot.result.value));
const testResult = computed(() => available<NormalityResult>(test.result.value));
const figures = computed(() => available<DescribeResult>(described.result.value));
const whyNot = computed(() => {
  const found = plot.result.value;
  return found && isUnavailable(found) ? found.reason : null;
});
function available<T extends { available: true }>(result: T | Unavailable | null): T | null {
  return result?.available ? result : null;
}

const finding = computed(() => (testResult.value ? normalityAnalysis.finding(testResult.value) : []));
const missed = computed(() => (testResult.value ? missedSentence(testResult.value) : null));
const notes = computed(() => {
  const all = [...(testResult.value?.notes ?? []), ...(plotResult.value?.notes ?? [])];
  return all.filter((note, i) => all.findIndex(({ code }) => code === note.code) === i);
});

const running = computed(() => {
  const shares = [plot.progress.value, test.progress.value].filter((share) => share !== null);
  return shares.length ? Math.min(...shares) : null;
});
const anyStopped = computed(() => plot.stopped.value || test.stopped.value);
const failed = computed(() => plot.failed.value ?? test.failed.value);
function stop(): void {
  plot.stop();
  test.stop();
}
function again(): void {
  for (const one of [plot, test]) if (one.stopped.value || one.failed.value) one.again();
}
const seconds = computed(() => {
  const longest = Math.max(plot.milliseconds.value, test.milliseconds.value);
  const time = longest < 1000 ? `${Math.round(longest)} ms` : `${(longest / 1000).toFixed(1)} s`;
  return `${time} · ${lanes} ${lanes === 1 ? 'worker' : 'workers'}`;
});

const {
  keep,
  keeping,
  kept,
  problem: keepProblem,
} = useKeeping(
  computed(() => [
    {
      analysis: probabilityPlotAnalysis,
      request: plotRequest.value,
      result: plotResult.value,
      whole: plot.progress.value === null && !plot.stopped.value,
    },
    {
      analysis: normalityAnalysis,
      request: testRequest.value,
      result: testResult.value,
      whole: test.progress.value === null && !test.stopped.value,
    },
  ]),
);

/** The mark pointed at, as an index into the plot's table. */
const pointed = ref<number | null>(null);
const asideRow = ref<number | null>(null);
const pointedRow = computed(() => (pointed.value === null ? null : (plotResult.value?.rows[pointed.value] ?? null)));
function askAside(): void {
  if (pointedRow.value !== null && !store.ruled) asideRow.value = pointedRow.value;
}
function setAside(reason: string): void {
  if (asideRow.value !== null && column.value) {
    store.change({ kind: 'set-aside', readings: [{ column: column.value.id, row: asideRow.value, reason }] });
  }
  asideRow.value = null;
  pointed.value = null;
}
const asideHere = computed(() =>
  (store.study?.setAside ?? []).filter((reading) => reading.column === column.value?.id),
);
const putBack = (row: number) => store.change({ kind: 'put-back', readings: [{ column: column.value!.id, row }] });
const valueOf = (row: number) => (store.cells[column.value?.id ?? ''] ?? [])[row - 1] ?? '';

useKeys({ k: () => void keep(), x: askAside });
const figure = (value: number) => formatFigure(value, 'reading', sample.value?.resolution ?? null);
</script>

<template>
  <div v-if="!column" class="nothing">
    <h1>There is nothing to look at yet.</h1>
    <p>
      A column of numbers is needed. <RouterLink :to="{ name: 'readings' }">Go to Readings</RouterLink> and paste one.
    </p>
  </div>
  <div v-else class="fit">
    <div class="upper">
      <PlotCard
        v-if="plotResult"
        v-model:pointed="pointed"
        :result="plotResult"
        :column="column.name"
        :locked="store.ruled"
        @set-aside="askAside"
      />
      <section v-else class="card waiting">
        <template v-if="whyNot">
          <h2>No plot</h2>
          <p>{{ whyNot }}</p>
          <p class="soft">
            More readings can be pasted or typed in <RouterLink :to="{ name: 'readings' }">Readings</RouterLink>.
          </p>
        </template>
        <p v-else-if="failed" role="alert">The plot could not be worked out: {{ failed }} Nothing was lost.</p>
        <p v-else class="soft" aria-busy="true">Drawing the plot …</p>
      </section>
      <section class="side" aria-label="Finding">
        <div class="words" aria-live="polite">
          <FindingWords v-if="testResult" :pieces="finding" />
          <p v-if="missed" class="soft missed">{{ missed }}</p>
        </div>
        <FitFigures v-if="testResult" :test="testResult" :figures="figures" :plot="plotResult" />
        <CautionNote v-for="note in notes" :key="note.code">{{ note.text }}</CautionNote>
        <section v-if="asideHere.length" class="card aside" aria-label="Set aside">
          <b>Set aside</b>
          <div v-for="reading in asideHere" :key="reading.row">
            row {{ reading.row }} <span class="soft">{{ valueOf(reading.row) }} — {{ reading.reason }}</span>
            <button
              v-if="!store.ruled"
              class="plain"
              :aria-label="`Put row ${reading.row} back`"
              @click="putBack(reading.row)"
            >
              Put back
            </button>
          </div>
        </section>
        <CautionNote v-if="failed && testResult" lead="Not finished" tone="wrong"
          >{{ failed }} <button class="plain" @click="again">Try again</button></CautionNote
        >
        <CautionNote v-if="keepProblem" lead="Not kept" tone="wrong">{{ keepProblem }}</CautionNote>
        <div class="actions">
          <el-button
            v-if="testResult"
            type="primary"
            :loading="keeping"
            :disabled="store.ruled || running !== null || anyStopped"
            @click="keep()"
            >Keep as evidence <kbd>K</kbd></el-button
          >
          <span v-if="kept" class="soft" role="status">{{ kept }}</span>
        </div>
      </section>
    </div>
    <section class="card method" aria-label="Method">
      <div class="sentences">
        <MethodSentence
          v-if="plotRequest"
          :parts="probabilityPlotAnalysis.method"
          :values="plotRequest"
          :subject="column.name"
          @change="plotAddress.set"
        />
        <MethodSentence
          v-if="testRequest"
          :parts="normalityAnalysis.method"
          :values="testRequest"
          :subject="column.name"
          @change="testAddress.set"
        />
      </div>
      <div class="state soft">
        <template v-if="running !== null">
          <progress :value="running" max="1" aria-label="Simulation"></progress>
          <button class="plain" @click="stop">Stop</button>
        </template>
        <template v-else-if="anyStopped">stopped <button class="plain" @click="again">Run again</button></template>
        <template v-else-if="testResult">{{ seconds }}</template>
      </div>
    </section>
    <SetAsideDialog
      :open="asideRow !== null"
      :what="
        asideRow === null
          ? ''
          : `Row ${asideRow} of ${column.name}, ${figure(Number(plotResult?.readings[plotResult.rows.indexOf(asideRow)] ?? 0))}`
      "
      @done="setAside"
      @leave="asideRow = null"
    />
  </div>
</template>

<style scoped>
.fit {
  display: flex;
  flex-direction: column;
  gap: 14px;
  height: 100%;
}
.upper {
  display: grid;
  grid-template-columns: minmax(0, 786fr) minmax(280px, 436fr);
  flex: 1;
  gap: 18px;
  min-height: 380px;
}
.waiting {
  padding: 40px;
}
.waiting h2 {
  margin: 0;
  font: 500 20px var(--serif);
}
.side {
  display: flex;
  flex-direction: column;
  gap: 11px;
  min-height: 0;
  padding-top: 4px;
  overflow: auto;
}
.missed {
  margin: 8px 0 0;
  font-size: 13px;
}
.aside {
  padding: 9px 14px;
  font-size: 13px;
}
.actions {
  position: sticky;
  bottom: 0;
  display: flex;
  gap: 12px;
  align-items: center;
  margin-top: auto;
  padding-top: 6px;
  background: var(--paper);
}
.actions kbd {
  margin-left: 8px;
}
.method {
  display: flex;
  gap: 20px;
  align-items: center;
  padding: 9px 16px;
}
.sentences {
  flex: 1;
}
.state {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 13px;
  white-space: nowrap;
}
progress {
  width: 110px;
  accent-color: var(--green);
}
.nothing h1 {
  font: 500 24px var(--serif);
}
@media (max-width: 900px) {
  .fit {
    height: auto;
  }
  .upper {
    grid-template-columns: minmax(0, 1fr);
  }
  .method {
    flex-direction: column;
    align-items: stretch;
  }
}
</style>
