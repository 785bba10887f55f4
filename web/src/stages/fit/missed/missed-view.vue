<script setup lang="ts">
import { POWER_COLUMNS, powerAnalysis, powerFigures, powerTable } from '@verdict/core/analyses';
import { computed } from 'vue';
import { powerPanels } from '../../../charts/pictures/power.js';
import FigureTable from '../../../components/figures/figure-table.vue';
import MethodSentence from '../../../workbench/sentence/method-sentence.vue';
import PictureCard from '../../../workbench/picture/picture-card.vue';
import StageFrame from '../../../workbench/frame/stage-frame.vue';
import { useMissed, type Over } from './use-missed.js';

/** What this number of readings can detect, and how many would be needed. */
const { column, name, cautions, run, stage, over, change, objection } = useMissed();
const { result } = run;
const finding = computed(() => (result.value ? powerAnalysis.finding(result.value) : []));
const panels = computed(() => result.value && powerPanels(result.value, over.value));
const rows = computed(() => (result.value && result.value.curves.length > 0 ? powerFigures(result.value) : []));
const table = computed(() => {
  const { value: of } = result;
  return of && (() => powerTable(of));
});
const OVER: { value: Over; label: string }[] = [
  { value: 'departure', label: 'Size of the departure' },
  { value: 'n', label: 'Sample size' },
];
const words = computed(() => `${finding.value.map(({ text }) => text).join('')} Arrow keys step from point to point.`);
</script>

<template>
  <StageFrame :runs="stage" :empty="!column" :finding="finding" :cautions="cautions">
    <template #picture>
      <PictureCard
        label="Power of the test"
        :title="`power with ${result?.n ?? 'n'} readings`"
        :panels="panels"
        :words="words"
        :why-not="run.whyNot.value"
        :failed="run.failed.value !== null"
        :rows="table"
        hint="Point at a mark to see its values."
      >
        <template #choices>
          <el-segmented
            v-if="result?.of === 'normal'"
            v-model="over"
            size="small"
            :options="OVER"
            aria-label="Axis of the curve"
          />
        </template>
      </PictureCard>
    </template>
    <template #figures>
      <div v-if="rows.length" class="card box">
        <FigureTable :rows="rows" :heads="POWER_COLUMNS" />
      </div>
    </template>
    <template #sentences>
      <MethodSentence :run="run" :subject="name" :change="change" :objection="objection" />
    </template>
  </StageFrame>
</template>

<style scoped>
.box {
  padding: 6px 14px;
}
</style>
