<script setup lang="ts">
import AskedStage from '../../workbench/frame/asked-stage.vue';
import { ASKS } from './asks.js';

/** What samples of a known population do. */
</script>

<template>
  <AskedStage :asks="ASKS" label="Questions of simulation" />
</template>
