<script setup lang="ts">
import { onErrorCaptured, ref } from 'vue';

/** An error boundary for pictures: a result from a file that cannot be drawn does not affect the rest of the page. */
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
