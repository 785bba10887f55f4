<script setup lang="ts">
import { computed } from 'vue';

/** Counts as bars, in a picture the size of a word; what it shows is said beside it. */
const props = defineProps<{ counts: readonly number[] }>();
const WIDTH = 84;
const HEIGHT = 26;
const path = computed(() => {
  const most = Math.max(...props.counts);
  // Few bars are no blocks.
  const step = Math.min(WIDTH / props.counts.length, 16);
  const left = (WIDTH - step * props.counts.length) / 2;
  return props.counts
    .map((count, i) => {
      if (count === 0) return '';
      // Where there is anything, something is seen.
      const height = Math.max(1, (count / most) * HEIGHT);
      const width = Math.max(0.8, step - (step > 3 ? 1 : 0.3));
      return `M${(left + i * step).toFixed(1)} ${HEIGHT}v${(-height).toFixed(1)}h${width.toFixed(1)}v${height.toFixed(1)}z`;
    })
    .join('');
});
</script>

<template>
  <svg :width="WIDTH" :height="HEIGHT" :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" aria-hidden="true">
    <path class="ground" :d="`M0 ${HEIGHT - 0.5}H${WIDTH}`" />
    <path class="bars" :d="path" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
.ground {
  stroke: var(--line);
}
.bars {
  fill: var(--green);
}
</style>
