<script setup lang="ts">
import { onErrorCaptured, ref } from 'vue';

/** Draws what stands in it; a result that came with a file and cannot be drawn takes nothing else of the page with it. */
const failed = ref(false);
onErrorCaptured(() => {
  failed.value = true;
  return false;
});
</script>

<template>
  <p v-if="failed" class="soft" role="note">This kept result cannot be drawn. Recompute it to see the differences.</p>
  <slot v-else />
</template>
