<script setup lang="ts">
import { plotTable } from '@verdict/core/analyses';
import { computed, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { probabilityPlotPicture } from '../../charts/pictures/probability-plot.js';
import { useStudy } from '../../stores/study.js';
import MethodSentence from '../../workbench/method-sentence.vue';
import PictureCard from '../../workbench/picture-card.vue';
import SetAsideList from '../../workbench/set-aside-list.vue';
import StageFrame from '../../workbench/stage-frame.vue';
import { useSetAside } from '../../workbench/use-set-aside.js';
import FitFigures from './fit-figures.vue';
import { useFit } from './use-fit.js';

/** Does the subject follow a normal distribution: the plot, the test, and keeping both. */
const store = useStudy();
const router = useRouter();
const { column, sample, plot, test, described, stage, finding, missed, askThis } = useFit();
const { result } = plot;
const tested = test.result;

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

const name = computed(() => column.value?.name ?? '');
const panels = computed(() => (result.value ? probabilityPlotPicture(result.value, name.value) : null));
const rows = computed(() => {
  const { value: of } = result;
  return of && (() => plotTable(of));
});
const words = computed(() => {
  const said = finding.value.map(({ text }) => text).join('');
  return `Normal probability plot of ${name.value}. ${said} Arrow keys step from reading to reading.`;
});
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :after="missed" :aside="aside" :keepable="!!tested">
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
        hint="Point at a mark to see its row."
        :can-set-aside="!store.ruled"
        @aside="(row) => aside.ask([row])"
      />
    </template>
    <template #figures>
      <FitFigures v-if="tested" :test="tested" :figures="described.result.value" :plot="result" />
      <section v-if="column && asideHere.length" class="card aside" aria-label="Set aside">
        <b>Set aside</b>
        <SetAsideList :column-id="column.id" :readings="asideHere" @go="pointAt" />
      </section>
    </template>
    <template #actions>
      <RouterLink v-if="askThis" class="ask" :to="askThis">Ask this distribution</RouterLink>
    </template>
    <template #sentences>
      <MethodSentence v-for="run in [plot, test]" :key="run.analysis.id" :run="run" :subject="name" />
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
