<script setup lang="ts">
import { RouterLink } from 'vue-router';
</script>

<template>
  <main class="nowhere">
    <h1>There is no page at this address.</h1>
    <p>Nothing was lost. <RouterLink to="/">Go to the studies</RouterLink>.</p>
  </main>
</template>

<style scoped>
.nowhere {
  max-width: 560px;
  margin: 120px auto;
  padding: 0 20px;
}
</style>
