<script setup lang="ts">
import { PARTS_COLUMNS, partsFigures, partsTests, seriesLawFigures, seriesTable } from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { computed, ref } from 'vue';
import { seriesDrawing } from '../../../charts/pictures/plot-series.js';
import FigureTable from '../../../components/figures/figure-table.vue';
import { local } from '../../../language/language.js';
import { useStudy } from '../../../stores/study.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useSetAside } from '../../../workbench/set-aside/use-set-aside.js';
import { FAMILY_FIELDS } from '../use-family.js';
import type { FitRuns } from './use-fit.js';
import type { Shown } from './use-shown.js';

/** Of several series: each with its own positions, distribution, line and band, on common axes, and a row in the table of tests. */
const props = defineProps<{ fit: FitRuns }>();
const { fit } = props;
const { column, parts, sample, plot, plain, normality, fitted, test, stage, finding, shown, subject, ofSeries } = fit;
const store = useStudy();

const drawing = computed(() => {
  const { value: result } = ofSeries.plot;
  const name = parts.beside.value.length > 0 ? 'readings' : (column.value?.name ?? '');
  return result && seriesDrawing(result, plot.request.value?.together ?? 'one', name);
});
const rows = computed(() => {
  const { value: result } = ofSeries.plot;
  return result && (() => seriesTable(result));
});
const words = computed(() => {
  const { title } = familyByName(plot.request.value?.family ?? 'normal');
  const said = finding.value.map(({ text }) => text).join('');
  return `Probability plots of ${subject.value} on the scale of the ${title} distribution. ${said} Arrow keys step from reading to reading.`;
});

const CHOICES: { value: Shown; label: string }[] = [
  { value: 'chosen', label: 'The test' },
  { value: 'all', label: 'All tests' },
  { value: 'found', label: 'The distributions' },
];
const tested = computed(() => (plain.value ? ofSeries.normality.value : ofSeries.fitted.value));
const table = computed(() => {
  const { value: result } = tested;
  if (shown.value === 'found') return ofSeries.plot.value && seriesLawFigures(ofSeries.plot.value);
  if (!result) return null;
  return shown.value === 'all' ? partsTests(result) : { heads: [...PARTS_COLUMNS], rows: partsFigures(result) };
});

const card = ref<InstanceType<typeof PictureCard>>();
const aside = useSetAside({
  column,
  sample,
  pointed: () => card.value?.pointedRows() ?? [],
  locked: () => !ofSeries.plot.value || parts.beside.value.length > 0,
});
const canSetAside = computed(() => !store.ruled && parts.beside.value.length === 0);
</script>

<template>
  <StageFrame
    :runs="stage"
    :empty="!column"
    :finding="finding"
    :cautions="drawing?.caution ? [drawing.caution] : []"
    :aside="aside"
    :keepable="!!ofSeries.plot.value"
  >
    <template #picture>
      <PictureCard
        ref="card"
        label="Probability plots"
        :title="`probability plots of ${subject}`"
        :panels="drawing?.panels ?? null"
        :words="words"
        :why-not="plot.whyNot.value"
        :failed="plot.failed.value !== null"
        :rows="rows"
        hint="Point at a mark to see its row."
        :can-set-aside="canSetAside"
        @aside="(row) => aside.ask([row])"
      />
    </template>
    <template #figures>
      <div>
        <el-segmented v-model="shown" :options="CHOICES" aria-label="Figures of the fit" />
        <div class="card box">
          <p v-if="test.whyNot.value && shown !== 'found'">{{ local(test.whyNot.value) }}</p>
          <FigureTable v-else-if="table" :rows="table.rows" :heads="table.heads" />
        </div>
      </div>
    </template>
    <template #sentences>
      <MethodSentence :run="plot" :subject="subject" :change="fit.change" :objection="fit.objection" />
      <MethodSentence v-if="plain" :run="normality" :subject="subject" />
      <MethodSentence v-else :run="fitted" :subject="subject" :said="FAMILY_FIELDS" />
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  margin-top: 6px;
  padding: 6px 14px;
}
p {
  margin: 6px 0;
  font-size: 13px;
}
</style>
