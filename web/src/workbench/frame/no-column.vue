<script setup lang="ts">
import { RouterLink } from 'vue-router';
</script>

<template>
  <div class="nothing">
    <h1>There are no readings yet.</h1>
    <p>A number column is needed. <RouterLink :to="{ name: 'readings' }">Go to Readings</RouterLink> and paste one.</p>
  </div>
</template>

<style scoped>
.nothing h1 {
  font: 500 24px var(--serif);
}
</style>
