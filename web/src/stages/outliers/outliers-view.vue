<script setup lang="ts">
import AskedStage from '../../workbench/asked-stage.vue';
import { ASKS } from './asks.js';

/** Is that reading too far out, by which rule, and what changes without it. */
</script>

<template>
  <AskedStage :asks="ASKS" label="What is asked about far readings" />
</template>
