<script setup lang="ts">
import type { MethodEntry } from './methods.js';

/** A method as the core itself says it: what it is, its formula, its source. */
defineProps<{ entry: MethodEntry }>();
</script>

<template>
  <article :id="entry.id" class="entry" tabindex="-1">
    <h3>
      {{ entry.title }} <code class="soft">{{ entry.id }}</code>
    </h3>
    <section v-for="item in entry.items" :key="item.name">
      <p v-for="(paragraph, i) in item.text" :key="i" :class="{ more: i > 0 }">{{ paragraph }}</p>
      <code class="soft name">{{ item.name }}{{ item.parameters }}</code>
    </section>
  </article>
</template>

<style scoped>
.entry {
  padding: 8px 0 10px;
  border-bottom: 1px solid var(--line);
  scroll-margin-top: 8px;
}
h3 {
  margin: 0 0 2px;
  font-size: 14px;
  font-weight: 600;
}
h3 code {
  margin-left: 8px;
}
code {
  font: 11.5px var(--mono);
  overflow-wrap: anywhere;
}
section {
  margin: 5px 0;
}
p {
  margin: 0;
  font: 14.5px/1.5 var(--serif);
  overflow-wrap: anywhere;
}
p.more {
  color: var(--soft);
}
.name {
  display: block;
}
</style>
