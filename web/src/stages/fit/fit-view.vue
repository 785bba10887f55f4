<script setup lang="ts">
import { watch } from 'vue';
import { useStudy } from '../../stores/study.js';
import { rememberFamily } from '../../workbench/frame/last-family.js';
import AskedStage from '../../workbench/frame/asked-stage.vue';
import { ASKS } from './asks.js';
import { useFamily } from './use-family.js';

/** Does the subject follow a distribution, and how far are the look and the test to be trusted. */
const store = useStudy();
const { asked } = useFamily();
watch(
  () => String(asked.value.family ?? 'normal'),
  (family) => rememberFamily(store.study?.id, family),
  { immediate: true },
);
</script>

<template>
  <AskedStage :asks="ASKS" label="Questions about the fit" />
</template>
