<script setup lang="ts">
import {
  knownWords,
  simulateAnalysis,
  SIMULATE,
  simulateFigures,
  simulateTable,
  QUANTITY_LEADS,
  REPEATED,
  thingsToLookAt,
} from '@verdict/core/analyses';
import { computed, ref } from 'vue';
import { simulatePanels } from '../../charts/pictures/simulate.js';
import SentenceChoice from '../../components/fields/sentence-choice.vue';
import FigureTable from '../../components/figures/figure-table.vue';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../workbench/picture/picture-card.vue';
import ReplicateSteps from '../../workbench/sentence/replicate-steps.vue';
import { saveReplicates } from '../../workbench/run/save-replicates.js';
import StageFrame from '../../workbench/frame/stage-frame.vue';
import { useStage } from '../../workbench/frame/use-stage.js';
import MakeColumn from './make-column.vue';
import PopulationEntry from './population-entry.vue';
import PopulationStrip from './population-strip.vue';
import SampleList from './sample-list.vue';
import { usePopulation } from './use-population.js';
import { useSamples } from './use-samples.js';

/** Draw a sample, look at it, put it back, draw again. */
const populated = usePopulation();
const { look, setLook, run, count, number, lookAtLatest, sample } = useSamples(populated);
const stage = useStage({ runs: () => [run], about: populated.about });
const { result, request } = run;
const finding = computed(() => (result.value ? simulateAnalysis.finding(result.value) : []));
const rows = computed(() => (result.value ? simulateFigures(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => simulateTable(of));
});
const one = computed(() => (sample.result.value?.number === number.value ? sample.result.value : null));
const chosen = computed(() => (one.value ? { number: one.value.number, value: one.value.value } : null));
const panels = computed(() => (result.value ? simulatePanels(result.value, chosen.value) : null));
const title = computed(() => result.value?.what ?? 'samples');
const words = computed(() => `${title.value}. ${finding.value.map(({ text }) => text).join('')}`);
const options = thingsToLookAt.map(({ setting, id, text, group }) => ({ value: `${setting}:${id}`, text, group }));
const values = computed(() => request.value ?? undefined);
const population = computed(() => populated.run.result.value);
const whyNot = computed(() => populated.run.whyNot.value ?? run.whyNot.value);
const set = (many: number | null) => {
  lookAtLatest();
  run.address.set('replicates', many ?? undefined);
};
const saving = ref(false);
async function save(): Promise<void> {
  if (!request.value || !populated.sample.value) return;
  saving.value = true;
  const job = { id: run.analysis.id, request: { ...request.value }, sample: populated.sample.value };
  await saveReplicates(job, { name: title.value, count: count.value, orders: 'first' }).finally(
    () => (saving.value = false),
  );
}
</script>

<template>
  <StageFrame :runs="stage" :finding="finding" :after="result ? knownWords(result) : null" :keepable="!!result">
    <template #above>
      <section class="card entry" aria-label="Question">
        <PopulationEntry :populated="populated">.</PopulationEntry>
        <div class="ask">
          {{ QUANTITY_LEADS[look.setting] }}
          <SentenceChoice
            :model-value="`${look.setting}:${look.id}`"
            aria-label="Quantity"
            :options="options"
            @update:model-value="setLook"
          /><MethodSentence
            class="rest"
            :run="run"
            :parts="REPEATED.rest"
            :subject="populated.subject.value"
            :values="values"
          />.
          <MakeColumn :populated="populated" />
        </div>
      </section>
    </template>
    <template #picture>
      <PictureCard
        label="Picture of the samples"
        :title="title"
        :panels="panels"
        :words="words"
        :why-not="whyNot"
        :mend="populated.from.value !== 'family'"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Point at a mark to see one of its samples."
        @pointed="(_, bar) => bar !== null && (number = bar)"
      >
        <template #choices>
          <ReplicateSteps :count="request?.replicates ?? 0" @set="set" />
        </template>
        <template v-if="population && (one || result?.repeated !== 'interval')" #over>
          <PopulationStrip v-model="number" :population="population" :sample="one" :count="count" />
        </template>
      </PictureCard>
    </template>
    <template #figures>
      <SampleList v-if="one" :sample="one" />
      <div v-if="rows.length" class="card box"><FigureTable :rows="rows" /></div>
    </template>
    <template #actions>
      <el-button v-if="count > 0 && run.whole.value" link :loading="saving" @click="save">Save the results</el-button>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :parts="SIMULATE.how" :subject="populated.subject.value" :values="values" />
    </template>
  </StageFrame>
</template>

<style scoped>
.entry {
  display: flex;
  flex-direction: column;
  padding: 5px 16px;
}
.ask {
  font: 15px/1.75 var(--serif);
}
.rest {
  display: inline;
}
.box {
  padding: 6px 14px;
}
</style>
