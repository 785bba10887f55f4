<script setup lang="ts">
import { local } from '../../../language/language.js';

/** What a method takes for granted, a line each: what speaks against it is marked, with the method that does without. */
defineProps<{ lines: readonly { text: string; holds: boolean; instead: string }[] }>();
</script>

<template>
  <ul v-if="lines.length" class="assumptions" aria-label="Assumptions">
    <li v-for="{ text, holds, instead } in lines" :key="text" :class="{ against: !holds }">
      {{ local(text) }}<template v-if="instead"> Alternative method: {{ local(instead) }}.</template>
    </li>
  </ul>
</template>

<style scoped>
.assumptions {
  margin: 0;
  padding: 0;
  font-size: 13px;
  list-style: none;
}
li {
  padding-left: 14px;
  border-left: 3px solid var(--line);
}
li + li {
  margin-top: 4px;
}
li.against {
  border-left-color: var(--ochre);
}
</style>
