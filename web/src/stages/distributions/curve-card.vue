<script setup lang="ts">
import { formatPercentOf, formatValue, type DistributionResult } from '@verdict/core';
import { computed, ref } from 'vue';
import ChartPicture, { type Place } from '../../charts/chart-picture.vue';
import { distributionChart, stretchesOf } from '../../charts/distribution-chart.js';
import type { Picture } from '../../charts/distribution-picture.js';
import { useColours } from '../../charts/use-colours.js';

/** The picture of a distribution with the asked region, whose limits can be dragged or moved by the arrow keys. */
const props = defineProps<{
  picture: Picture;
  result: DistributionResult;
  axis: string;
  words: string;
  /** What is drawn in which colour, where there is more than one thing. */
  legend: { mark: 'curve' | 'numbers' | 'over' | 'marks' | 'bars'; text: string }[];
  /** Dimmed while the sentence asks something that cannot be answered: the picture is of the last answer. */
  stale: boolean;
}>();
const emit = defineEmits<{ drag: [side: 'lower' | 'upper', x: number] }>();

const box = ref<HTMLElement>();
const colours = useColours(box);
const config = computed(() => (colours.value ? distributionChart(props.picture, colours.value, props.axis) : null));

const place = ref<Place | null>(null);
function pixelOf(x: number): number {
  const { left, right } = place.value!;
  const { from, to } = props.picture.window;
  return left + ((x - from) / (to - from)) * (right - left);
}
function valueAt(pixel: number): number {
  const { left, right } = place.value!;
  const { from, to } = props.picture.window;
  return from + ((pixel - left) / (right - left)) * (to - from);
}

interface Handle {
  side: 'lower' | 'upper';
  value: number;
  at: number;
  /** Where the limit lies outside the picture. */
  beyond: '' | 'left' | 'right';
}
const handles = computed<Handle[]>(() => {
  if (!place.value) return [];
  const { left, right } = place.value;
  const { lower, upper } = props.result;
  return (
    [
      ['lower', lower],
      ['upper', upper],
    ] as const
  ).flatMap(([side, value]) => {
    if (value === null) return [];
    const pixel = pixelOf(value);
    const beyond = pixel < left - 0.5 ? 'left' : pixel > right + 0.5 ? 'right' : '';
    return [{ side, value, at: Math.min(right, Math.max(left, pixel)), beyond }];
  });
});

/** The answer stands over the widest stretch of its region. */
const label = computed(() => {
  if (!place.value) return null;
  const { window } = props.picture;
  const [widest] = stretchesOf(props.picture).sort((a, b) => b.to - b.from - (a.to - a.from));
  const at = widest ? pixelOf((widest.from + widest.to) / 2) : pixelOf((window.from + window.to) / 2);
  const { left, right } = place.value;
  return {
    at: Math.min(right - 40, Math.max(left + 40, at)),
    text: formatPercentOf(props.result.probability, props.result.complement),
  };
});

const dragged = ref<'lower' | 'upper' | null>(null);
function onDown(event: PointerEvent, side: 'lower' | 'upper'): void {
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  dragged.value = side;
}
function onMove(event: PointerEvent): void {
  if (!dragged.value || !box.value || !place.value) return;
  const { left, right } = place.value;
  const pixel = event.clientX - box.value.getBoundingClientRect().left;
  emit('drag', dragged.value, valueAt(Math.min(right, Math.max(left, pixel))));
}
const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 };
function onKey(event: KeyboardEvent, { side, value }: Handle): void {
  const by = STEPS[event.key];
  if (by === undefined) return;
  event.preventDefault();
  const { from, to } = props.picture.window;
  const step = props.result.discrete ? 1 : (to - from) / 200;
  emit('drag', side, value + by * step * (event.shiftKey ? 10 : 1));
}

const chart = ref<InstanceType<typeof ChartPicture>>();
defineExpose({ toPng: () => chart.value!.toPng() });
</script>

<template>
  <section class="card picture-card" :class="{ stale }" aria-label="Picture">
    <div ref="box" class="box">
      <ChartPicture
        v-if="config"
        ref="chart"
        :config="config as never"
        :words="words"
        @placed="(found) => (place = found)"
      />
      <template v-if="place && !stale">
        <span v-if="label" class="answer" :style="{ left: `${label.at}px` }">{{ label.text }}</span>
        <div
          v-for="handle in handles"
          :key="handle.side"
          class="handle"
          :class="[handle.beyond, { dragged: dragged === handle.side }]"
          role="slider"
          tabindex="0"
          :aria-label="handle.side === 'lower' ? 'Lower limit on the picture' : 'Upper limit on the picture'"
          :aria-valuenow="handle.value"
          :aria-valuetext="formatValue(handle.value)"
          :style="{ left: `${handle.at}px`, top: `${place.top}px`, height: `${place.bottom - place.top}px` }"
          @pointerdown.prevent="onDown($event, handle.side)"
          @pointermove="onMove"
          @pointerup="dragged = null"
          @pointercancel="dragged = null"
          @keydown="onKey($event, handle)"
        >
          <span class="grip" aria-hidden="true"></span>
          <span class="at"
            >{{ handle.beyond === 'left' ? '← ' : '' }}{{ formatValue(handle.value)
            }}{{ handle.beyond === 'right' ? ' →' : '' }}</span
          >
        </div>
      </template>
    </div>
    <ul v-if="legend.length > 1" class="legend soft">
      <li v-for="one in legend" :key="one.mark">
        <span class="swatch" :class="one.mark" aria-hidden="true"></span>{{ one.text }}
      </li>
    </ul>
  </section>
</template>

<style scoped>
.picture-card {
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 12px 14px 10px;
}
.box {
  position: relative;
  flex: 1;
  min-height: 260px;
}
.stale .box {
  opacity: 0.35;
}
.answer {
  position: absolute;
  top: 0;
  transform: translateX(-50%);
  color: var(--green);
  font: 500 17px/24px var(--serif);
  white-space: nowrap;
  pointer-events: none;
}
.handle {
  position: absolute;
  width: 22px;
  margin-left: -11px;
  cursor: ew-resize;
  touch-action: none;
}
.handle::before {
  content: '';
  position: absolute;
  top: 0;
  bottom: 0;
  left: 10px;
  width: 2px;
  background: var(--green);
}
.handle.left::before,
.handle.right::before {
  opacity: 0.35;
}
.grip {
  position: absolute;
  top: calc(50% - 11px);
  left: 5px;
  width: 12px;
  height: 22px;
  border: 2px solid var(--green);
  border-radius: 6px;
  background: var(--card);
}
.handle:focus-visible {
  outline: none;
}
.handle:focus-visible .grip,
.handle.dragged .grip {
  background: var(--green);
  outline: 2px solid var(--green);
  outline-offset: 2px;
}
.at {
  position: absolute;
  top: 3px;
  left: 15px;
  border-radius: 3px;
  padding: 0 4px;
  background: var(--card);
  font-size: 12px;
  white-space: nowrap;
}
.handle.right .at,
.handle[aria-label^='Lower'] .at {
  right: 15px;
  left: auto;
}
.handle.left .at {
  right: auto;
  left: 15px;
}
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 20px;
  margin: 6px 0 0;
  padding: 0;
  font-size: 12.5px;
  list-style: none;
}
.swatch {
  display: inline-block;
  width: 22px;
  height: 0;
  margin-right: 7px;
  border-top: 2px solid var(--green);
  vertical-align: 3px;
}
.swatch.over {
  border-top: 2px dashed var(--ochre);
}
.swatch.numbers {
  width: 9px;
  height: 9px;
  border: 1px solid var(--green);
  background: var(--green);
  opacity: 0.8;
  vertical-align: -1px;
}
.swatch.marks {
  width: 8px;
  height: 8px;
  border: 1.6px solid var(--ochre);
  transform: rotate(45deg);
  vertical-align: 0;
}
.swatch.bars {
  height: 9px;
  border: 1px solid var(--soft);
  background: var(--grid-line);
  vertical-align: -1px;
}
</style>
