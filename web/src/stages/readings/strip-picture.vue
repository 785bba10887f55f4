<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { formatFigure } from '@verdict/core/format';
import type { Sample } from '@verdict/core/readings';
import { computed } from 'vue';

const props = defineProps<{ column: StudyColumn; sample: Sample }>();
const figure = (value: number) => formatFigure(value, 'reading', props.sample.resolution);

/** The strip picture: each reading at its place, lightly stacked by row so that ties show. */
const strip = computed(() => {
  const { values } = props.sample;
  const { lowerLimit, target, upperLimit } = props.column;
  if (values.length === 0) return null;
  let [first, last] = [0, 0];
  for (let i = 1; i < values.length; i++) {
    if (values[i]! < values[first]!) first = i;
    if (values[i]! > values[last]!) last = i;
  }
  const [lowest, greatest] = [values[first]!, values[last]!];
  const least = Math.min(lowest, lowerLimit ?? Infinity);
  const most = Math.max(greatest, upperLimit ?? -Infinity);
  // By halves: the range of the greatest readings is no double.
  const span = most / 2 - least / 2 || 1;
  const at = (value: number) => 10 + 380 * ((value / 2 - least / 2) / span);
  // Several hundred marks tell the eye as much as all of them; one at either end is never left out.
  const every = Math.max(1, Math.floor(values.length / 400));
  const shown = Array.from({ length: Math.ceil(values.length / every) }, (_, k) => k * every);
  const places = [...new Set([...shown, first, last])];
  const marks = places.map((i, k) => ({ x: at(values[i]!), y: 12 + (k % 3) * 5 }));
  const limits = [lowerLimit, upperLimit].flatMap((limit) => (limit === null ? [] : [at(limit)]));
  const aim = target !== null && target >= least && target <= most ? at(target) : null;
  return { marks, limits, aim, least, most };
});
</script>

<template>
  <svg
    v-if="strip"
    viewBox="0 0 400 48"
    class="strip"
    role="img"
    :aria-label="`Readings from ${strip.least} to ${strip.most}`"
  >
    <line x1="4" x2="396" y1="32" y2="32" stroke="var(--soft)" />
    <line
      v-for="x in strip.limits"
      :key="x"
      :x1="x"
      :x2="x"
      y1="4"
      y2="36"
      stroke="var(--ochre)"
      stroke-dasharray="4 3"
      stroke-width="1.5"
    />
    <line
      v-if="strip.aim !== null"
      :x1="strip.aim"
      :x2="strip.aim"
      y1="28"
      y2="36"
      stroke="var(--green)"
      stroke-width="2"
    />
    <circle
      v-for="(mark, i) in strip.marks"
      :key="i"
      :cx="mark.x"
      :cy="mark.y"
      r="2.6"
      fill="none"
      stroke="var(--ink)"
    />
    <text x="10" y="46">{{ figure(strip.least) }}</text>
    <text v-if="strip.most > strip.least" x="390" y="46" text-anchor="end">{{ figure(strip.most) }}</text>
  </svg>
</template>

<style scoped>
.strip text {
  fill: var(--soft);
  font-size: 11px;
}
</style>
