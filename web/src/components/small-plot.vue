<script setup lang="ts">
import { computed } from 'vue';

/** A small plot in a row of a table: readings upwards against what is expected, both as shares of their range, along the diagonal where they agree. */
const props = defineProps<{ expected: readonly number[]; observed: readonly number[] }>();
const SIDE = 34;
const EDGE = 3;
const place = (share: number) => EDGE + Math.min(1, Math.max(0, share)) * (SIDE - 2 * EDGE);
const path = computed(() =>
  props.observed.map((y, i) => `M${place(props.expected[i]!).toFixed(1)} ${(SIDE - place(y)).toFixed(1)}h0`).join(''),
);
</script>

<template>
  <svg :width="SIDE" :height="SIDE" :viewBox="`0 0 ${SIDE} ${SIDE}`" aria-hidden="true">
    <path class="diagonal" :d="`M${EDGE} ${SIDE - EDGE}L${SIDE - EDGE} ${EDGE}`" />
    <path class="places" :d="path" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
.diagonal {
  stroke: var(--green);
  stroke-width: 1;
}
.places {
  stroke: var(--ink);
  stroke-width: 2.2;
  stroke-linecap: round;
}
</style>
