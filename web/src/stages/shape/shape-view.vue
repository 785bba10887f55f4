<script setup lang="ts">
import { describeAnalysis, resultParagraph, type QuantileType } from '@verdict/core/analyses';
import { subjectWords } from '@verdict/core/road';
import { computed, ref, watch } from 'vue';
import FindingWords from '../../components/finding-words.vue';
import { local } from '../../language/language.js';
import { useStudy } from '../../stores/study.js';
import type { FieldValue } from '../../workbench/run/field-values.js';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import StageFrame from '../../workbench/frame/stage-frame.vue';
import { useSetAside } from '../../workbench/set-aside/use-set-aside.js';
import ChosenReadings from './chosen-readings.vue';
import FiguresDialog from './figures-dialog.vue';
import { binsIn } from './pictures.js';
import ShapeFigures from './shape-figures.vue';
import ShapePicture from './shape-picture.vue';
import SharesTable from './shares-table.vue';
import { useChosen } from './use-chosen.js';
import { useShape } from './use-shape.js';
import WhatIfPanel from './what-if-panel.vue';

/** What the readings look like: the picture, the figures, the words, and trying out what a moved reading would do. */
const store = useStudy();
const shape = useShape();
const { column, parts, panel, stored, sample, moved, stage, current, shown, described, figures, shares } = shape;

const subject = computed(() => subjectWords({ column: column.value?.name, ...parts.asked.value }));
const finding = computed(() => (figures.value ? describeAnalysis.finding(figures.value) : []));
const paragraph = computed(() => {
  if (figures.value) return moved.value ? '' : resultParagraph(figures.value);
  return current.value.whyNot.value ? 'No figures can be calculated either.' : '';
});
const allOpen = ref(false);

/** The picture's sentence shows the width and start that the bins have, whatever rule they came from. */
const pictureValues = computed(() => {
  const request = { ...current.value.request.value };
  const bins = binsIn(shown.value);
  if (!bins) return request;
  const { edges, width } = bins;
  return { ...request, width, start: edges[0] };
});
/** The definition of quartiles is one choice of the study: it is changed there, and all that shows quartiles follows. */
function changesStudy(field: string, value: FieldValue): boolean {
  if (field !== 'quantileType') return false;
  store.change({ kind: 'change-study', quantileType: value === 'hinges' ? value : (Number(value) as QuantileType) });
  return true;
}
const ruledObjection = (field: string) =>
  field === 'quantileType' && store.ruled
    ? 'The definition of quartiles is a setting of the study, and the study is decided. Reopen it first.'
    : null;
function changeDescribe(field: string, value: FieldValue): void {
  if (!changesStudy(field, value)) described.address.set(field, value);
}
/** A width of one's own is a rule of one's own, and the other way round: it starts from the width that the bins have. */
function changePicture(field: string, value: FieldValue): void {
  if (changesStudy(field, value)) return;
  const { address } = current.value;
  const bins = binsIn(shown.value);
  if (bins && field === 'width') address.setAll({ width: value, rule: value === undefined ? value : 'width' });
  else if (bins && field === 'rule' && value === 'width')
    address.setAll({ rule: value, width: Number(bins.width.toPrecision(12)) });
  else address.set(field, value);
}

const picked = useChosen(shape);
const { chosen, readings: chosenReadings, rows: chosenRows, canChoose } = picked;
const picture = ref<InstanceType<typeof ShapePicture>>();
const aside = useSetAside({
  column,
  sample,
  pointed: () => {
    const rows = picture.value?.pointedRows() ?? [];
    return rows.length || !canChoose.value ? rows : chosenRows();
  },
  locked: () => moved.value !== null || parts.beside.value.length > 0,
  done: () => (chosen.value = new Set()),
});

const canMove = computed(
  () => parts.beside.value.length === 0 && stored.value !== null && stored.value.values.length > 0,
);
/** What if this reading moved; the greatest, where none is meant. */
function whatIf(row?: number): void {
  const { value: of } = stored;
  if (!of || !canMove.value) return;
  let at = row === undefined ? -1 : of.rows.indexOf(row);
  if (at < 0) at = of.values.reduce((most, value, i) => (value > of.values[most]! ? i : most), 0);
  moved.value = { row: of.rows[at]!, value: of.values[at]! };
  panel.value = 'what-if';
}
watch(moved, (now) => {
  if (!now && panel.value === 'what-if') panel.value = 'figures';
});
</script>

<template>
  <StageFrame
    :runs="stage"
    :empty="!column"
    :finding="finding"
    :after="paragraph"
    :aside="aside"
    :keepable="!!figures && !moved"
  >
    <template #picture>
      <ShapePicture
        ref="picture"
        v-model:chosen="chosen"
        :shape="shape"
        :subject="subject"
        :can-set-aside="!store.ruled && moved === null && parts.beside.value.length === 0"
        @aside="(row) => aside.ask([row])"
        @what-if="whatIf"
      />
    </template>
    <template #figures>
      <ChosenReadings
        v-if="canChoose && sample"
        :sample="sample"
        :chosen="chosenReadings"
        :locked="store.ruled || moved !== null"
        :can-show="picked.canShow.value"
        @aside="aside.ask(chosenRows())"
        @table="picked.showInTable"
        @none="chosen = new Set()"
      />
      <WhatIfPanel
        v-if="moved && stored"
        :sample="stored"
        :moved="moved"
        :now="figures"
        :before="shape.figuresBefore.value"
        @move="(row, value) => (moved = { row, value })"
      />
      <template v-else-if="figures">
        <el-segmented
          v-model="panel"
          size="small"
          aria-label="Figures or proportions"
          :options="[
            { value: 'figures', label: 'Figures' },
            { value: 'shares', label: 'Proportions within limits' },
          ]"
        />
        <ShapeFigures v-if="panel === 'figures'" :result="figures" @all="allOpen = true" />
        <p v-else-if="shares.none.value" class="soft" role="status">{{ local(shares.none.value) }}</p>
        <template v-else-if="shares.run.result.value">
          <FindingWords class="smaller" :pieces="shares.finding.value" />
          <SharesTable :result="shares.run.result.value" />
        </template>
      </template>
    </template>
    <template #actions>
      <el-button v-if="moved" type="primary" @click="moved = null">Restore it</el-button>
      <el-button v-else-if="figures && canMove" @click="whatIf()">What if a reading changed?</el-button>
    </template>
    <template #sentences>
      <MethodSentence
        :run="current"
        :values="pictureValues"
        :subject="subject"
        :said="panel === 'shares' ? [] : ['quantileType']"
        :objection="ruledObjection"
        :change="changePicture"
      />
      <MethodSentence
        v-if="panel === 'shares'"
        :run="shares.run"
        :values="shares.values.value"
        :subject="subject"
        :objection="shares.objection"
        :change="shares.change"
      />
      <MethodSentence v-else :run="described" :subject="subject" :objection="ruledObjection" :change="changeDescribe" />
    </template>
    <template #below>
      <FiguresDialog v-if="allOpen && figures" :result="figures" :subject="subject" @close="allOpen = false" />
    </template>
  </StageFrame>
</template>

<style scoped>
.smaller {
  font-size: 16px;
}
</style>
