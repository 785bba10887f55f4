<script setup lang="ts" generic="Result extends object">
import type { FoundFigure, Piece, SentencePart } from '@verdict/core/road';
import { computed } from 'vue';
import type { Drawn } from '../../charts/picture.js';
import FigureTable from '../../components/figures/figure-table.vue';
import PictureCard from '../picture/picture-card.vue';
import type { Rows } from '../picture/rows.js';
import type { FieldValue } from '../run/field-values.js';
import type { Run } from '../run/use-run.js';
import MethodSentence from '../sentence/method-sentence.vue';
import StageFrame from './stage-frame.vue';
import type { StageRuns } from './use-stage.js';

/** The page of one analysis: its picture, finding, figures and method sentence. Slots hold what is special. */
const props = withDefaults(
  defineProps<{
    analysis: { finding: (result: Result) => Piece[] };
    run: Pick<Run, 'parts' | 'address' | 'request' | 'whyNot' | 'failed' | 'objection'> & {
      result: { value: Result | null };
    };
    stage: StageRuns;
    /** What the picture is called where it cannot be seen, and above it. */
    label: string;
    title: string;
    draw: (result: Result) => Drawn | null;
    table: (result: Result) => Rows;
    figures?: (result: Result) => readonly FoundFigure[];
    heads?: readonly string[];
    /** What the picture shows, before its finding. */
    shows?: string;
    /** What arrow keys step along. */
    steps?: string;
    hint: string;
    empty?: boolean;
    after?: string | null;
    cautions?: readonly string[];
    keepable?: boolean;
    /** Why there is no picture, where the run does not say it. */
    whyNot?: string | null;
    mend?: boolean;
    subject: string;
    parts?: readonly SentencePart[];
    values?: object;
    objection?: (field: string, value: FieldValue) => string | null;
    change?: (field: string, value: FieldValue) => void;
    /** False where there is nothing to ask yet. */
    asks?: boolean;
  }>(),
  {
    after: null,
    cautions: () => [],
    keepable: true,
    whyNot: null,
    mend: true,
    asks: true,
    shows: '',
    steps: '',
    figures: undefined,
    heads: undefined,
    parts: undefined,
    values: undefined,
    objection: undefined,
    change: undefined,
  },
);
const result = computed(() => props.run.result.value);
const finding = computed(() => (result.value ? props.analysis.finding(result.value) : []));
const panels = computed(() => result.value && props.draw(result.value));
const rows = computed(() => (result.value && props.figures ? props.figures(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => props.table(of));
});
const words = computed(() => {
  const steps = props.steps && `Arrow keys step from ${props.steps} to ${props.steps}.`;
  return [props.shows, finding.value.map(({ text }) => text).join(''), steps].filter(Boolean).join(' ');
});
</script>

<template>
  <StageFrame :runs="stage" :empty="empty" :finding="finding" :after="after" :cautions="cautions" :keepable="keepable">
    <template #above><slot name="above" /></template>
    <template #words><slot name="words" /></template>
    <template #picture>
      <PictureCard
        :label="label"
        :title="title"
        :panels="panels"
        :words="words"
        :why-not="whyNot ?? run.whyNot.value"
        :mend="mend"
        :failed="run.failed.value !== null"
        :rows="table"
        :hint="hint"
      >
        <template #choices><slot name="choices" /></template>
      </PictureCard>
    </template>
    <template #figures>
      <div v-if="rows.length" class="card box"><FigureTable :rows="rows" :heads="heads" /></div>
      <slot name="figures" />
    </template>
    <template #actions><slot name="actions" /></template>
    <template v-if="asks" #sentences>
      <slot name="before" />
      <MethodSentence
        :run="run"
        :subject="subject"
        :parts="parts"
        :values="values"
        :objection="objection"
        :change="change"
      />
      <slot name="sentences" />
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  padding: 6px 14px;
}
</style>
