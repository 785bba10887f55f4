<script setup lang="ts">
import { local } from '../../language/language.js';

/** What belongs to an explained figure beside its meaning, a line each. */
defineProps<{ rows: readonly { name: string; text: string }[] }>();
</script>

<template>
  <ul>
    <li v-for="{ name, text } in rows" :key="name">
      <span>{{ name }}</span> <span class="number">{{ local(text) }}</span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
</style>
