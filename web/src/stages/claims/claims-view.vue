<script setup lang="ts">
import AskedStage from '../../workbench/asked-stage.vue';
import { ASKS } from './asks.js';

/** Is it what was claimed, and do these differ. */
</script>

<template>
  <AskedStage :asks="ASKS" label="Questions about claims" />
</template>
