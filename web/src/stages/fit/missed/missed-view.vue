<script setup lang="ts">
import { POWER_COLUMNS, powerAnalysis, powerFigures, powerTable } from '@verdict/core/analyses';
import { powerPanels } from '../../../charts/pictures/power.js';
import AnswerPage from '../../../workbench/frame/answer-page.vue';
import { useMissed, type Over } from './use-missed.js';

/** What this number of readings can detect, and how many would be needed. */
const { column, name, cautions, run, stage, over, change, objection } = useMissed();
const { result } = run;
const OVER: { value: Over; label: string }[] = [
  { value: 'departure', label: 'Size of the departure' },
  { value: 'n', label: 'Sample size' },
];
</script>

<template>
  <AnswerPage
    :analysis="powerAnalysis"
    :run="run"
    :stage="stage"
    :empty="!column"
    :cautions="cautions"
    label="Power of the test"
    :title="`power with ${result?.n ?? 'n'} readings`"
    :draw="(found) => powerPanels(found, over)"
    :table="powerTable"
    :figures="(found) => (found.curves.length > 0 ? powerFigures(found) : [])"
    :heads="POWER_COLUMNS"
    steps="point"
    hint="Point at a mark to see its values."
    :subject="name"
    :change="change"
    :objection="objection"
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
  </AnswerPage>
</template>
