<script setup lang="ts">
import AskedStage from '../../workbench/frame/asked-stage.vue';
import { ASKS } from './asks.js';

/** Tests of claims and of differences between groups. */
</script>

<template>
  <AskedStage :asks="ASKS" label="Questions about claims" />
</template>
