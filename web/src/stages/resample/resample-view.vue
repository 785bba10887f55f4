<script setup lang="ts">
import AskedStage from '../../workbench/frame/asked-stage.vue';
import { ASKS } from './asks.js';

/** How sure is a figure, and could chance alone do it. */
</script>

<template>
  <AskedStage :asks="ASKS" label="Questions of resampling" />
</template>
