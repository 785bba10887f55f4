<script setup lang="ts">
import FitOne from './fit-one.vue';
import FitSeries from './fit-series.vue';
import { useFit } from './use-fit.js';

/** Does the subject follow a distribution: as a whole, or each of its parts. */
const fit = useFit();
const { several } = fit;
</script>

<template>
  <FitSeries v-if="several" :fit="fit" />
  <FitOne v-else :fit="fit" />
</template>
