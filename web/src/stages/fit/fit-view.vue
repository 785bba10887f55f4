<script setup lang="ts">
import { normalityAnalysis, probabilityPlotAnalysis } from '@verdict/core/analyses';
import { formatFigure } from '@verdict/core/format';
import { computed, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import CautionList from '../../components/caution-list.vue';
import CautionNote from '../../components/caution-note.vue';
import FindingWords from '../../components/finding-words.vue';
import MethodSentence from '../../components/method-sentence.vue';
import NoColumn from '../../components/no-column.vue';
import SetAsideDialog from '../../components/set-aside-dialog.vue';
import SetAsideList from '../../components/set-aside-list.vue';
import { useKeeping } from '../../composables/use-keeping.js';
import { useKeys } from '../../composables/use-keys.js';
import { useStudy } from '../../stores/study.js';
import FitFigures from './fit-figures.vue';
import PlotCard from './plot-card.vue';
import { useFit } from './use-fit.js';

/** Does the subject follow a normal distribution: the plot, the test, and keeping both. */
const store = useStudy();
const router = useRouter();
const fit = useFit();
const { column, sample, plotRequest, testRequest, plotResult, testResult, running, anyStopped, failed } = fit;
const { keep, keeping, kept, problem: keepProblem } = useKeeping(fit.shown);

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
/** Set-aside readings are not on the plot; their row is looked at in the table. */
const pointAt = (row: number) => void router.push({ name: 'readings', query: { row } });

/** The fitted family on the page of distributions, its parameters in full and the readings under its curve. */
const askThis = computed(() => ({
  name: 'study-distributions',
  query: {
    ...{ family: 'normal', ask: 'between', column: column.value?.id },
    ...{ 'p.mean': plotResult.value?.mean, 'p.sd': plotResult.value?.sd },
    ...limitsOf.value,
  },
}));
/** Asked about first: the specification limits, else one sd on either side. */
const limitsOf = computed(() => {
  const { lowerLimit, upperLimit } = column.value ?? { lowerLimit: null, upperLimit: null };
  const { mean = 0, sd = 1 } = plotResult.value ?? {};
  if (lowerLimit !== null && upperLimit !== null) return { a: lowerLimit, b: upperLimit };
  return { a: Number((mean - sd).toPrecision(4)), b: Number((mean + sd).toPrecision(4)) };
});

const { whyNot, finding, missed, notes, figures, seconds } = fit;

useKeys({ k: () => void keep(), x: askAside });
const figure = (value: number) => formatFigure(value, 'reading', sample.value?.resolution ?? null);
</script>

<template>
  <NoColumn v-if="!column" />
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
        <CautionList :texts="notes.map(({ text }) => text)" />
        <FitFigures v-if="testResult" :test="testResult" :figures="figures" :plot="plotResult" />
        <section v-if="asideHere.length" class="card aside" aria-label="Set aside">
          <b>Set aside</b>
          <SetAsideList :column-id="column.id" :readings="asideHere" @go="pointAt" />
        </section>
        <CautionNote v-if="failed && testResult" lead="Not finished" tone="wrong"
          >{{ failed }} <button class="plain" @click="fit.again">Try again</button></CautionNote
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
          <RouterLink v-if="plotResult" class="ask" :to="askThis">Ask this distribution</RouterLink>
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
          @change="fit.plotAddress.set"
        />
        <MethodSentence
          v-if="testRequest"
          :parts="normalityAnalysis.method"
          :values="testRequest"
          :subject="column.name"
          @change="fit.testAddress.set"
        />
      </div>
      <div class="state soft">
        <template v-if="running !== null">
          <progress :value="running" max="1" aria-label="Simulation"></progress>
          <button class="plain" @click="fit.stop">Stop</button>
        </template>
        <template v-else-if="anyStopped">stopped <button class="plain" @click="fit.again">Run again</button></template>
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
.ask {
  font-size: 13px;
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
