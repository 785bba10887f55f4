<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { formatFigure } from '@verdict/core/format';
import type { Sample } from '@verdict/core/readings';
import { computed } from 'vue';
import { local } from '../../../language/language.js';
import { stripOf } from './strip.js';

const props = defineProps<{ column: StudyColumn; sample: Sample }>();
const figure = (value: number) => formatFigure(value, 'reading', props.sample.resolution);

const strip = computed(() => stripOf(props.sample.values, props.column));
</script>

<template>
  <svg
    v-if="strip"
    viewBox="0 0 400 48"
    class="strip"
    role="img"
    :aria-label="local(`Readings from ${figure(strip.least)} to ${figure(strip.most)}`)"
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
    <text x="10" y="46">{{ local(figure(strip.least)) }}</text>
    <text v-if="strip.most > strip.least" x="390" y="46" text-anchor="end">{{ local(figure(strip.most)) }}</text>
  </svg>
</template>

<style scoped>
.strip text {
  fill: var(--soft);
  font-size: 11px;
}
</style>
