<script setup lang="ts">
import { countHint, plotTable } from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { computed, ref, watch } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { plotDrawing } from '../../../charts/pictures/probability-plot.js';
import { useStudy } from '../../../stores/study.js';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import SetAsideList from '../../../workbench/set-aside/set-aside-list.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useSetAside } from '../../../workbench/set-aside/use-set-aside.js';
import FitFigures from './fit-figures.vue';
import PlotShapes from './plot-shapes.vue';
import ReadOff from './read-off.vue';
import { plotSeen } from '../seen-plots.js';
import { FAMILY_FIELDS } from '../use-family.js';
import type { FitRuns } from './use-fit.js';
import { useReadOff } from './use-read-off.js';

/** Of one column: does it follow a distribution. The plot on the family's own scale, the test, what the line says, and keeping it. */
const store = useStudy();
const router = useRouter();
const props = defineProps<{ fit: FitRuns }>();
const { fit } = props;
const {
  column,
  sample,
  plot,
  plain,
  normality,
  fitted,
  test,
  ofOne,
  described,
  stage,
  finding,
  missed,
  askThis,
  shown,
  families,
} = fit;
const { plot: result } = ofOne;

const card = ref<InstanceType<typeof PictureCard>>();
const aside = useSetAside({
  column,
  sample,
  pointed: () => card.value?.pointedRows() ?? [],
  locked: () => !result.value,
});
const asideHere = computed(() =>
  (store.study?.setAside ?? []).filter((reading) => reading.column === column.value?.id),
);
/** Set-aside readings are not on the plot; their row is looked at in the table. */
const pointAt = (row: number) => void router.push({ name: 'readings', query: { row } });

watch(
  result,
  (found) => {
    if (found && column.value && store.study) plotSeen(store.study.id, column.value.id);
  },
  { immediate: true },
);
const cautions = computed(() => {
  const hint = column.value && sample.value ? countHint(sample.value, column.value.kind) : null;
  return hint ? [hint] : [];
});
const name = computed(() => column.value?.name ?? '');
const drawing = computed(() => (result.value ? plotDrawing(result.value, name.value) : null));
const confidence = computed(() => plot.request.value?.confidence ?? 0.95);
const { read, ringed, panels, handles, ask, drag } = useReadOff(result, drawing, confidence, shown);
const rows = computed(() => {
  const { value: of } = result;
  return of && (() => plotTable(of));
});
const family = computed(() => familyByName(plot.request.value?.family ?? 'normal').title);
const words = computed(() => {
  const said = finding.value.map(({ text }) => text).join('');
  const title = `${family.value[0]!.toUpperCase()}${family.value.slice(1)}`;
  return `${title} probability plot of ${name.value}. ${said} Arrow keys step from reading to reading.`;
});
</script>

<template>
  <StageFrame
    :runs="stage"
    :empty="!column"
    :finding="finding"
    :after="missed"
    :cautions="cautions"
    :aside="aside"
    :keepable="!!result && (shown !== 'families' || !!families.result.value)"
  >
    <template #picture>
      <PictureCard
        ref="card"
        label="Probability plot"
        :title="`probability plot of ${name}`"
        :panels="panels"
        :words="words"
        :why-not="plot.whyNot.value"
        :failed="plot.failed.value !== null"
        :rows="rows"
        :handles="handles"
        :along="drawing?.along ?? 'x'"
        hint="Point at a mark to see its row."
        :can-set-aside="!store.ruled"
        @aside="(row) => aside.ask([row])"
        @drag="(_, place) => drag(place)"
      />
    </template>
    <template #words>
      <PlotShapes v-if="result" v-model="ringed" :plot="result" />
    </template>
    <template #figures>
      <FitFigures
        v-model="shown"
        :normality="plain ? ofOne.normality.value : null"
        :fitted="plain ? null : ofOne.fitted.value"
        :figures="described.result.value"
        :plot="result"
        :families="families.result.value"
        :why-not="test.whyNot.value"
        :family="plot.request.value?.family ?? 'normal'"
        :column="name"
        @choose="(family) => fit.change('family', family)"
      />
      <ReadOff
        v-if="shown === 'found' && result && read"
        :plot="result"
        :read="read"
        :confidence="confidence"
        @ask="ask"
      />
      <section v-if="column && asideHere.length" class="card aside" aria-label="Set aside">
        <b>Set aside</b>
        <SetAsideList :column-id="column.id" :readings="asideHere" @go="pointAt" />
      </section>
    </template>
    <template #actions>
      <RouterLink v-if="askThis" class="ask" :to="askThis">Calculate probabilities</RouterLink>
    </template>
    <template #sentences>
      <MethodSentence :run="plot" :subject="name" :change="fit.change" :objection="fit.objection" />
      <MethodSentence v-if="shown === 'families'" :run="families" :subject="name" />
      <MethodSentence v-else-if="plain" :run="normality" :subject="name" />
      <MethodSentence v-else :run="fitted" :subject="name" :said="FAMILY_FIELDS" />
    </template>
  </StageFrame>
</template>

<style scoped>
.aside {
  padding: 9px 14px;
  font-size: 13px;
}
.ask {
  font-size: 13px;
}
</style>
