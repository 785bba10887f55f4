<script setup lang="ts">
import { formatValue, type DistributionResult } from '@verdict/core';
import { computed, ref } from 'vue';
import ChartPicture, { type Place } from '../../charts/chart-picture.vue';
import { distributionChart } from '../../charts/distribution-chart.js';
import type { Picture } from '../../charts/distribution-picture.js';
import { useColours } from '../../charts/use-colours.js';
import { usePictureActions } from '../../charts/use-picture-actions.js';

/** The picture of a distribution with the asked region, whose limits can be dragged or moved by the arrow keys. */
const props = defineProps<{
  picture: Picture;
  result: DistributionResult;
  axis: string;
  title: string;
  words: string;
  /** What is drawn in which colour, where there is more than one thing. */
  legend: { mark: 'curve' | 'numbers' | 'over' | 'marks' | 'bars'; text: string }[];
  /** Dimmed while the sentence asks something that cannot be answered: the picture is of the last answer. */
  stale: boolean;
}>();
const emit = defineEmits<{ drag: [side: 'lower' | 'upper', x: number] }>();

const card = ref<HTMLElement>();
const chart = ref<InstanceType<typeof ChartPicture>>();
const { copy, save, enlarge, isFullscreen } = usePictureActions(card, chart, () => props.title);
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
    return [{ side, value, at: Math.min(right, Math.max(left, pixel)) }];
  });
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
</script>

<template>
  <section ref="card" class="card picture-card" :class="{ stale }" aria-label="Picture">
    <div class="title">
      <h2>{{ title }}</h2>
      <button class="plain" @click="copy">Copy</button>
      <button class="plain" @click="save">Save</button>
      <button class="plain" @click="enlarge">{{ isFullscreen ? 'Smaller' : 'Enlarge' }}</button>
    </div>
    <div ref="box" class="box">
      <ChartPicture
        v-if="config"
        ref="chart"
        :config="config as never"
        :words="words"
        @placed="(found) => (place = found)"
      />
      <template v-if="place && !stale">
        <div
          v-for="handle in handles"
          :key="handle.side"
          class="handle"
          :class="{ dragged: dragged === handle.side }"
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
.title {
  display: flex;
  gap: 12px;
  align-items: baseline;
}
h2 {
  flex: 1;
  margin: 0 0 4px;
  font-size: 15px;
  font-weight: 600;
  overflow-wrap: anywhere;
}
.box {
  position: relative;
  flex: 1;
  min-height: 260px;
}
.stale .box {
  opacity: 0.35;
}
.handle {
  position: absolute;
  width: 22px;
  margin-left: -11px;
  cursor: ew-resize;
  touch-action: none;
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
