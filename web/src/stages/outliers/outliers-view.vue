<script setup lang="ts">
import { useStudy } from '../../stores/study.js';
import AskedStage from '../../workbench/frame/asked-stage.vue';
import { lastFamily } from '../../workbench/frame/last-family.js';
import { ASKS } from './asks.js';
import { useRule } from './use-rule.js';

/** Outliers: which readings, by which rule, and what changes without them. */
const rule = useRule();
// The family that the fit was held against, until another is asked for here.
const known = lastFamily(useStudy().study?.id);
if (known && rule.asked.value.family === undefined) rule.change('family', known);
</script>

<template>
  <AskedStage :asks="ASKS" label="Questions about outliers" />
</template>
