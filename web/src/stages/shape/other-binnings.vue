<script setup lang="ts">
import type { HistogramResult } from '@verdict/core/analyses';
import { groupThousands } from '@verdict/core/format';
import { computed } from 'vue';
import { local } from '../../language/language.js';

/** The same readings in three other binnings: always there, because one binning can deceive. */
const props = defineProps<{ result: HistogramResult }>();
const WIDTH = 220;
const HEIGHT = 56;

const range = computed(() => {
  const all = [props.result.edges, ...props.result.others.map(({ edges }) => edges)];
  return { from: Math.min(...all.map((edges) => edges[0]!)), to: Math.max(...all.map((edges) => edges.at(-1)!)) };
});
const small = computed(() =>
  props.result.others.map(({ words, edges, counts }) => {
    const { from, to } = range.value;
    const at = (x: number) => ((x - from) / (to - from)) * WIDTH;
    // Areas tell in bins of one width; the tallest of each picture fills its height.
    const most = counts.reduce((a, b) => Math.max(a, b), 1);
    const bars = counts.map((count, i) => ({
      x: at(edges[i]!),
      width: Math.max(0.5, at(edges[i + 1]!) - at(edges[i]!)),
      height: (count / most) * HEIGHT,
    }));
    return { words, bars, say: `${words}: ${counts.map(groupThousands).join(', ')} readings` };
  }),
);
</script>

<template>
  <section class="others" aria-label="The same readings in other bins">
    <p>
      <b>The same readings in other bins</b>
      <span class="soft">{{
        result.n < 300 ? 'a single histogram may mislead at this sample size' : 'a single histogram may mislead'
      }}</span>
    </p>
    <div class="row">
      <figure v-for="other in small" :key="other.words">
        <svg
          :viewBox="`-1 -1 ${WIDTH + 2} ${HEIGHT + 2}`"
          role="img"
          :aria-label="other.say"
          preserveAspectRatio="none"
        >
          <rect
            v-for="(bar, i) in other.bars"
            :key="i"
            :x="bar.x"
            :y="HEIGHT - bar.height"
            :width="bar.width"
            :height="bar.height"
          />
          <line x1="0" :x2="WIDTH" :y1="HEIGHT" :y2="HEIGHT" />
        </svg>
        <figcaption class="soft">{{ local(other.words) }}</figcaption>
      </figure>
    </div>
  </section>
</template>

<style scoped>
.others p {
  margin: 6px 0 2px;
  font-size: 12.5px;
}
.others b {
  margin-right: 8px;
  font-weight: 600;
}
.row {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 28px;
}
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  height: 58px;
}
rect {
  fill: var(--green);
  fill-opacity: 0.24;
  stroke: var(--green);
  stroke-opacity: 0.7;
  vector-effect: non-scaling-stroke;
}
line {
  stroke: var(--ink);
  vector-effect: non-scaling-stroke;
}
figcaption {
  font-size: 12px;
  text-align: center;
}
</style>
