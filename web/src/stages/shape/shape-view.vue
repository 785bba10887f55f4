<script setup lang="ts">
import { describeAnalysis, resultParagraph, sharesAnalysis, type QuantileType } from '@verdict/core/analyses';
import { formatFigure } from '@verdict/core/format';
import { subjectWords } from '@verdict/core/road';
import { computed, ref, watch } from 'vue';
import CautionList from '../../components/caution-list.vue';
import CautionNote from '../../components/caution-note.vue';
import FindingWords from '../../components/finding-words.vue';
import MethodSentence from '../../components/method-sentence.vue';
import NoColumn from '../../components/no-column.vue';
import SetAsideDialog from '../../components/set-aside-dialog.vue';
import { objectionOf } from '../../composables/asked.js';
import type { FieldValue } from '../../composables/field-values.js';
import { useKeeping } from '../../composables/use-keeping.js';
import { useKeys } from '../../composables/use-keys.js';
import { useStudy } from '../../stores/study.js';
import ChosenReadings from './chosen-readings.vue';
import FiguresDialog from './figures-dialog.vue';
import PictureCard from './picture-card.vue';
import ShapeFigures from './shape-figures.vue';
import SharesTable from './shares-table.vue';
import { useChosen } from './use-chosen.js';
import { useDragging } from './use-dragging.js';
import { useShape } from './use-shape.js';
import WhatIfPanel from './what-if-panel.vue';

/** What the readings look like: the picture, the figures, the words, and trying out what a moved reading would do. */
const store = useStudy();
const shape = useShape();
const { column, parts, picture, show, panel, stored, sample, moved, shown, whyNot, notes, failed } = shape;
const { titles, figures, figuresBefore, shares, address, current, describeAddress, describeRequest } = shape;
const { sharesAddress, sharesRequest, noShares } = shape;
const { keep, keeping, kept, problem: keepProblem } = useKeeping(shape.keepable, shape.about);

const subject = computed(() => subjectWords({ column: column.value?.name, ...parts.asked.value }));
const finding = computed(() => (figures.value ? describeAnalysis.finding(figures.value) : []));
const paragraph = computed(() => (figures.value ? resultParagraph(figures.value) : ''));
const sharesFinding = computed(() => (shares.value ? sharesAnalysis.finding(shares.value) : []));
const allOpen = ref(false);

/** The picture's sentence shows the width and start that the bins have, whatever rule they came from. */
const pictureValues = computed(() => {
  const request = { ...current.value.request.value } as Record<string, unknown>;
  if (shown.value?.id === 'histogram') {
    const { edges, width } = shown.value.result;
    return { ...request, width, start: edges[0] };
  }
  return request;
});
/** The definition of quartiles is one choice of the study: it is changed there, and all that shows quartiles follows. */
function changesStudy(field: string, value: FieldValue): boolean {
  if (field !== 'quantileType') return false;
  store.change({ kind: 'change-study', quantileType: value === 'hinges' ? value : (Number(value) as QuantileType) });
  return true;
}
const ruledObjection = (field: string) =>
  field === 'quantileType' && store.ruled
    ? 'The definition of quartiles belongs to the study, and the study has its verdict: reopen it first.'
    : null;
function changeDescribe(field: string, value: FieldValue): void {
  if (!changesStudy(field, value)) describeAddress.set(field, value);
}

/** A width of one's own is a rule of one's own, and the other way round: it starts from the width that the bins have. */
function changePicture(field: string, value: FieldValue): void {
  if (changesStudy(field, value)) return;
  const bins = shown.value?.id === 'histogram' ? shown.value.result : null;
  if (bins && field === 'width') {
    address.value.setAll(value === undefined ? { width: value, rule: undefined } : { width: value, rule: 'width' });
  } else if (bins && field === 'rule' && value === 'width') {
    address.value.setAll({ rule: value, width: Number(bins.width.toPrecision(12)) });
  } else address.value.set(field, value);
}

/** A limit of one's own is no specification limit. */
function sharesChange(field: string, value: FieldValue): Record<string, FieldValue> {
  const own = field === 'lower' || field === 'upper';
  const { lower, upper } = sharesRequest.value ?? {};
  return own ? { lower, upper, [field]: value, of: 'limits' } : { [field]: value };
}
const changeShares = (field: string, value: FieldValue) => sharesAddress.setAll(sharesChange(field, value));
/** Limits the wrong way round are refused where they are typed. */
function sharesObjection(field: string, value: FieldValue): string | null {
  if (field !== 'lower' && field !== 'upper') return null;
  return objectionOf(sharesAnalysis, { column: subject.value }, sharesRequest.value ?? {}, sharesChange(field, value));
}

const picked = useChosen(shape);
const { chosen, readings: chosenReadings, rows: chosenRows, canChoose } = picked;

// Setting aside, one pointed-at reading or all that are chosen.
const card = ref<InstanceType<typeof PictureCard>>();
const asideRows = ref<number[]>([]);
const asking = computed(() => asideRows.value.length > 0);
function askAside(rows: number[]): void {
  if (!store.ruled && !moved.value && parts.beside.value.length === 0) asideRows.value = rows;
}
function setAside(reason: string): void {
  const { id } = column.value!;
  store.change({ kind: 'set-aside', readings: asideRows.value.map((row) => ({ column: id, row, reason })) });
  asideRows.value = [];
  chosen.value = new Set();
}
const figure = (value: number) => formatFigure(value, 'reading', sample.value?.resolution ?? null);
const asideWords = computed(() => {
  const [row] = asideRows.value;
  if (row === undefined || !sample.value) return '';
  if (asideRows.value.length > 1) return `${asideRows.value.length} readings of ${column.value?.name}`;
  return `Row ${row} of ${column.value?.name}, ${figure(sample.value.values[sample.value.rows.indexOf(row)]!)}`;
});

// What if a reading moved.
const canMove = computed(
  () => parts.beside.value.length === 0 && stored.value !== null && stored.value.values.length > 0,
);
function whatIf(row?: number): void {
  const { value: of } = stored;
  if (!of || !canMove.value) return;
  let at = row === undefined ? -1 : of.rows.indexOf(row);
  if (at < 0) at = of.values.reduce((most, value, i) => (value > of.values[most]! ? i : most), 0);
  moved.value = { row: of.rows[at]!, value: of.values[at]! };
  panel.value = 'what-if';
}
function putBack(): void {
  moved.value = null;
  panel.value = 'figures';
}
watch(moved, (now) => {
  if (!now && panel.value === 'what-if') panel.value = 'figures';
});

const { lines, drag, done } = useDragging(shape);

const time = computed(() => `${Math.max(1, Math.round(shape.milliseconds.value))} ms`);
useKeys({
  k: () => void keep(),
  x: () => {
    const row = card.value?.pointedRow() ?? null;
    if (row !== null) askAside([row]);
    else if (canChoose.value) askAside(chosenRows());
  },
});
</script>

<template>
  <NoColumn v-if="!column" />
  <div v-else class="shape">
    <div class="upper">
      <section v-if="failed && !shown" class="card waiting">
        <p role="alert">The picture could not be worked out: {{ failed }} Nothing was lost.</p>
        <el-button @click="current.run.again()">Try again</el-button>
      </section>
      <PictureCard
        v-else
        :id="picture"
        ref="card"
        v-model:chosen="chosen"
        :shown="shown"
        :why-not="whyNot"
        :subject="subject"
        :bounds="column"
        :titles="titles"
        :lines="lines"
        :locked="store.ruled || moved !== null || parts.beside.value.length > 0"
        @show="show"
        @titles="(written) => address.setAll({ ...written })"
        @drag="drag"
        @done="done"
        @aside="(row) => askAside([row])"
        @what-if="whatIf"
      />
      <section class="side" aria-label="Finding">
        <div class="words" aria-live="polite">
          <FindingWords v-if="figures" :pieces="finding" />
          <p v-if="paragraph && !moved" class="soft paragraph">{{ paragraph }}</p>
          <p v-if="whyNot && !figures" class="soft">There are no figures either.</p>
        </div>
        <CautionList :texts="notes.map(({ text }) => text)" />
        <ChosenReadings
          v-if="canChoose && sample"
          :sample="sample"
          :chosen="chosenReadings"
          :locked="store.ruled || moved !== null"
          :can-show="picked.canShow.value"
          @aside="askAside(chosenRows())"
          @table="picked.showInTable"
          @none="chosen = new Set()"
        />
        <WhatIfPanel
          v-if="moved && stored"
          :sample="stored"
          :moved="moved"
          :now="figures"
          :before="figuresBefore"
          @move="(row, value) => (moved = { row, value })"
        />
        <template v-else-if="figures">
          <nav class="tabs" aria-label="Figures or shares">
            <button class="plain tab" :aria-pressed="panel === 'figures'" @click="panel = 'figures'">Figures</button>
            <button class="plain tab" :aria-pressed="panel === 'shares'" @click="panel = 'shares'">
              Shares within limits
            </button>
          </nav>
          <ShapeFigures v-if="panel === 'figures'" :result="figures" @all="allOpen = true" />
          <p v-else-if="noShares" class="soft" role="status">{{ noShares }}</p>
          <template v-else-if="shares">
            <FindingWords class="smaller" :pieces="sharesFinding" />
            <SharesTable :result="shares" />
          </template>
        </template>
        <CautionNote v-if="keepProblem" lead="Not kept" tone="wrong">{{ keepProblem }}</CautionNote>
        <div class="actions">
          <el-button v-if="moved" type="primary" @click="putBack">Put it back</el-button>
          <el-button
            v-else-if="figures"
            type="primary"
            :loading="keeping"
            :disabled="store.ruled || !shown"
            @click="keep()"
            >Keep as evidence <kbd>K</kbd></el-button
          >
          <el-button v-if="figures && canMove && !moved" @click="whatIf()">What if a reading moved?</el-button>
          <span v-if="kept" class="soft" role="status">{{ kept }}</span>
        </div>
      </section>
    </div>
    <section class="card method" aria-label="Method">
      <div class="sentences">
        <MethodSentence
          v-if="current.request.value"
          :parts="current.analysis.method"
          :values="pictureValues"
          :subject="subject"
          :objection="ruledObjection"
          @change="changePicture"
        />
        <MethodSentence
          v-if="panel === 'shares'"
          :parts="sharesAnalysis.method"
          :values="sharesRequest ? { ...sharesRequest } : { of: 'specification', curve: 'normal', confidence: 0.95 }"
          :subject="subject"
          :objection="sharesObjection"
          @change="changeShares"
        />
        <MethodSentence
          v-else-if="describeRequest"
          :parts="describeAnalysis.method"
          :values="{ ...describeRequest }"
          :subject="subject"
          :objection="ruledObjection"
          @change="changeDescribe"
        />
      </div>
      <div class="state soft">{{ time }}</div>
    </section>
    <FiguresDialog v-if="allOpen && figures" :result="figures" :subject="subject" @close="allOpen = false" />
    <SetAsideDialog
      :open="asking"
      :what="asideWords"
      :many="asideRows.length > 1"
      @done="setAside"
      @leave="asideRows = []"
    />
  </div>
</template>

<style scoped>
.shape {
  display: flex;
  flex-direction: column;
  gap: 12px;
  height: 100%;
}
.upper {
  display: grid;
  grid-template-columns: minmax(0, 786fr) minmax(280px, 436fr);
  flex: 1;
  gap: 18px;
  min-height: 420px;
}
.waiting {
  padding: 40px;
}
.side {
  display: flex;
  flex-direction: column;
  gap: 9px;
  min-height: 0;
  padding-top: 2px;
  overflow: auto;
}
.paragraph {
  margin: 6px 0 0;
  font-size: 13px;
}
.smaller {
  font-size: 16px;
}
.tabs {
  display: flex;
  gap: 14px;
  font-size: 13px;
}
.tab {
  border-radius: 0;
  border-bottom: 2px solid transparent;
  padding: 0 0 1px;
}
.tab[aria-pressed='true'] {
  border-bottom-color: var(--ink);
  color: var(--ink);
  font-weight: 500;
}
.actions {
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  margin-top: auto;
  padding-top: 6px;
  background: var(--paper);
}
.actions .el-button + .el-button {
  margin-left: 0;
}
.actions kbd {
  margin-left: 8px;
}
.method {
  display: flex;
  gap: 20px;
  align-items: center;
  padding: 7px 16px;
}
.sentences {
  flex: 1;
}
.state {
  font-size: 13px;
  white-space: nowrap;
}
@media (max-width: 900px) {
  .shape {
    height: auto;
  }
  .upper {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
