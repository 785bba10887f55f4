<script setup lang="ts">
import { useKeys } from '../composables/use-keys.js';
import type { Landmark } from '../workbench/frame/stage.js';

/** The way past what one has seen: links that appear when Tab reaches them, and a letter for each place. */
const { landmarks } = defineProps<{ landmarks: readonly Landmark[] }>();

function goTo({ id, begin }: Landmark): void {
  const place = document.getElementById(id);
  const inner = begin ? place?.querySelector<HTMLElement>(begin) : null;
  (inner ?? place)?.focus();
  place?.scrollIntoView({ block: 'nearest' });
}
useKeys(Object.fromEntries(landmarks.map((landmark) => [landmark.key, () => goTo(landmark)])));
</script>

<template>
  <nav class="skips no-print" aria-label="Skip to">
    <a v-for="landmark in landmarks" :key="landmark.id" :href="`#${landmark.id}`" @click.prevent="goTo(landmark)">
      To {{ landmark.title }} <kbd>{{ landmark.key.toUpperCase() }}</kbd>
    </a>
  </nav>
</template>

<style scoped>
.skips {
  position: absolute;
  z-index: 20;
  top: 4px;
  left: 50%;
  display: flex;
  gap: 14px;
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 6px 14px;
  background: var(--card);
  transform: translateX(-50%);
}
.skips:not(:focus-within) {
  clip-path: inset(50%);
}
a {
  color: var(--ink);
}
</style>
