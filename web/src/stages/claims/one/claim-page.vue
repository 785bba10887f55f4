<script setup lang="ts">
import {
  CELL_COLUMNS,
  cellFigures,
  CLAIM_PARTS,
  claimDrawsAnalysis,
  claimFigures,
  claimTable,
  missedWords,
  PAIR_COLUMNS,
  pairFigures,
  pWords,
  readBack,
  toleranceFigures,
  toleranceTable,
  type ClaimId,
} from '@verdict/core/analyses';
import { computed } from 'vue';
import { drawnPanels, foundPanels, lawPanels, tolerancePanels } from '../../../charts/pictures/claims.js';
import FigureTable from '../../../components/figures/figure-table.vue';
import FindingWords from '../../../components/finding-words.vue';
import SentenceChoice from '../../../components/fields/sentence-choice.vue';
import SentenceText from '../../../components/fields/sentence-text.vue';
import { local } from '../../../language/language.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import TwoChoice from '../../../workbench/parts/two-choice.vue';
import TypedFigures from '../../../workbench/sentence/typed-figures.vue';
import { useAddress } from '../../../workbench/run/use-address.js';
import AssumptionList from './assumption-list.vue';
import { claimOf, isTolerance } from './claims.js';
import { useDraws } from './use-draws.js';
import { useClaim } from './use-claim.js';

/** One claim: the sentence it is made in, the picture, the finding, and how it is looked at. */
const props = defineProps<{
  options: readonly { value: ClaimId; text: string; group: string; whyNot: string | null }[];
  name: string;
}>();
const claim = defineModel<ClaimId>('claim', { required: true });
const typed = defineModel<boolean>('typed', { required: true });
// The page is another one for another claim.
const id = claim.value;
const isTyped = typed.value;
const analysis = claimOf(id);
const { run, stage, readings, two, figures, levels, level, shares, sharesProblem } = useClaim(id, () => isTyped);
const address = useAddress();
const { result, request } = run;

const SOURCES = [
  { value: false, label: 'From readings' },
  { value: true, label: 'Typed figures' },
];
const subject = computed(() => {
  const asked = request.value ?? (isTyped ? values.value : null);
  return asked ? (analysis.subject?.(asked) ?? props.name) : props.name;
});
const parts = CLAIM_PARTS[id];
/** Before there are figures the sentence stands as it would be asked. */
const values = computed(() => {
  if (request.value) return request.value;
  const read = analysis.request.safeParse(run.address.settings.value);
  return read.success ? read.data : undefined;
});

const one = computed(() => (result.value && !isTolerance(result.value) ? result.value : null));
const limits = computed(() => (result.value && isTolerance(result.value) ? result.value : null));
const finding = computed(() => (result.value ? analysis.finding(result.value) : []));
const after = computed(() => one.value && [pWords(one.value), missedWords(one.value)].filter(Boolean).join(' '));
const rows = computed(() => (one.value ? claimFigures(one.value) : limits.value ? toleranceFigures(limits.value) : []));
const table = computed(() => {
  const [claimed, found] = [one.value, limits.value];
  return claimed ? () => claimTable(claimed) : found && (() => toleranceTable(found));
});

const found = computed(() =>
  one.value ? foundPanels(one.value, props.name || 'figures') : limits.value ? tolerancePanels(limits.value) : null,
);
const law = computed(() => one.value && lawPanels(one.value));
const views = computed(() => [
  ...(law.value ? [{ value: 'chance', label: 'Null distribution' }] : []),
  ...(found.value ? [{ value: 'found', label: 'The data' }] : []),
  ...(one.value?.draws ? [{ value: 'draws', label: 'Simulated samples' }] : []),
]);
/** One sample is told by its law, groups and counts by themselves. */
const usual = computed(() =>
  one.value && (one.value.cells.length > 0 || one.value.groups.length > 1) ? 'found' : 'chance',
);
const view = computed({
  get: () => {
    const asked = address.textOf('view') ?? usual.value;
    return views.value.some(({ value }) => value === asked) ? asked : (views.value[0]?.value ?? 'found');
  },
  set: (value: string) => void address.change({ view: value }),
});
const draws = useDraws(one, () => view.value === 'draws');
const drawn = computed(() => one.value && draws.result.value && drawnPanels(one.value, draws.result.value));
const panels = computed(
  () => ({ chance: law.value, draws: drawn.value })[view.value] ?? (view.value === 'draws' ? null : found.value),
);
const title = computed(() => {
  const of = props.name || 'typed figures';
  if (!one.value) return limits.value ? `limits for ${of}` : 'claim';
  if (view.value === 'found') return `${of} compared with the claim`;
  return view.value === 'draws'
    ? 'under the claim'
    : `null distribution of ${one.value.law!.axis}, if the claim is true`;
});
const words = computed(() => `${title.value}. ${finding.value.map(({ text }) => text).join('')}`);
const whyNot = computed(() => {
  const { problem, field } = figures.judged.value;
  if (isTyped && problem && !figures.texts.value[field])
    return `Enter the typed figures first: ${figures.fields.map(({ label }) => label).join(', ')}.`;
  if (isTyped) return problem || run.whyNot.value;
  return run.whyNot.value;
});
const chosen = computed(() => (request.value ?? {}) as { first?: string; second?: string });
const besideOptions = computed(() => [
  { value: '', text: 'no column' },
  ...readings.others.value.map(({ id: value, name: text }) => ({ value, text })),
]);
</script>

<template>
  <StageFrame :runs="stage" :finding="finding" :after="after" :keepable="!!result">
    <template #above>
      <section class="card entry" aria-label="Claim">
        <div class="row">
          <el-segmented v-model="typed" size="small" :options="SOURCES" aria-label="Source of the data" />
          <span class="about"
            >Claim on the <SentenceChoice v-model="claim" aria-label="Claim" :options="options" />
            <template v-if="two.isTwo && !isTyped && readings.names.value.length > 1">
              in
              <TwoChoice
                :names="readings.names.value"
                :chosen="chosen"
                called="group"
                @choose="(which, name) => two.choose(which, name, chosen)"
              />
            </template>
            <template v-if="levels.length && !isTyped">
              of
              <SentenceChoice
                v-model="level"
                aria-label="level"
                :options="levels.map((text) => ({ value: text, text }))"
              />
            </template>
            <template v-if="readings.besideKey && !isTyped && readings.column.value?.kind === 'count'">
              , its {{ readings.besideKey }} in
              <SentenceChoice
                v-model="readings.besideId.value"
                :aria-label="`column of the ${readings.besideKey}`"
                :options="besideOptions"
              />
            </template>
          </span>
          <MethodSentence
            class="claim"
            :run="run"
            :parts="parts.claim"
            :values="values"
            :subject="(two.isTwo || id === 'counts-claim') && !isTyped ? name : subject"
          />
        </div>
        <TypedFigures
          v-if="isTyped"
          :fields="figures.fields"
          :texts="figures.texts.value"
          :fault="figures.judged.value"
          @set="figures.set"
        />
        <p v-if="id === 'counts-claim' && !isTyped" class="soft shares">
          <label
            >claimed proportions in %, if not equal:
            <SentenceText
              v-model="shares"
              class="long"
              aria-label="claimed proportions"
              placeholder="chipped 50, pinholed 30, crazed 20"
              :wrong="!!sharesProblem"
          /></label>
          <span v-if="sharesProblem" class="said-wrong" role="alert">{{ local(sharesProblem) }}</span>
        </p>
        <p v-if="one" class="soft read-back">{{ local(readBack(one)) }}</p>
      </section>
    </template>
    <template #picture>
      <PictureCard
        label="Picture of the claim"
        :title="title"
        :panels="panels"
        :words="words"
        :why-not="whyNot"
        :mend="!isTyped && !/^(?:Enter|Choose) /.test(whyNot ?? '')"
        :failed="run.failed.value !== null"
        :rows="table"
        :hint="view === 'draws' ? '' : 'Point at the picture to see the numbers.'"
      >
        <template v-if="views.length > 1" #choices>
          <el-segmented v-model="view" size="small" :options="views" aria-label="Display" />
        </template>
        <template v-if="view === 'draws'" #below>
          <div class="drawn">
            <MethodSentence :run="draws" :subject="subject" />
            <el-button size="small" @click="draws.drawOthers()">Simulate other samples</el-button>
          </div>
          <div v-if="draws.result.value" class="drawn-words" role="status">
            <FindingWords :pieces="claimDrawsAnalysis.finding(draws.result.value)" />
          </div>
        </template>
      </PictureCard>
    </template>
    <template #figures>
      <AssumptionList v-if="result" :lines="result.assumptions" />
      <div v-if="rows.length" class="card box"><FigureTable :rows="rows" /></div>
      <div v-if="one?.cells.length" class="card box">
        <FigureTable :rows="cellFigures(one)" :heads="CELL_COLUMNS" />
      </div>
      <div v-if="one?.pairs.length" class="card box">
        <FigureTable :rows="pairFigures(one)" :heads="PAIR_COLUMNS" />
      </div>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :parts="parts.how" :subject="subject" :values="values" />
    </template>
  </StageFrame>
</template>

<style scoped>
.entry {
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: 7px 16px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: center;
}
.about {
  font: 15px/1.75 var(--serif);
}
.claim {
  flex: 1 1 420px;
}
.shares,
.read-back {
  margin: 0;
  font-size: 13px;
}
.long {
  width: 320px;
}
.box {
  padding: 6px 14px;
}
.drawn {
  display: flex;
  gap: 14px;
  align-items: baseline;
}
.drawn-words :deep(.finding) {
  font-size: 16px;
}
</style>
