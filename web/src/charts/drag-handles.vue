<script setup lang="ts">
import { formatValue } from '@verdict/core/format';
import { computed, ref } from 'vue';
import type { Place } from './chart-picture.vue';

/** Grips over a picture that are dragged along its axis of values, or moved by the arrow keys. */
export interface Handle {
  id: string;
  value: number;
  /** What it moves, for those who cannot see it. */
  label: string;
  /** Where along the line the grip sits. */
  grip?: 'middle' | 'end';
  tone?: 'green' | 'ochre';
}

const props = withDefaults(
  defineProps<{
    handles: readonly Handle[];
    place: Place;
    from: number;
    to: number;
    /** The axis the values run along. */
    along?: 'x' | 'y';
    /** What an arrow key moves by; a two-hundredth of the picture if left out. */
    step?: number | null;
  }>(),
  { along: 'x', step: null },
);
const emit = defineEmits<{ grab: []; drag: [id: string, value: number]; done: [id: string] }>();

const root = ref<HTMLElement>();
const dragged = ref<string | null>(null);
const span = computed(() => props.to - props.from);

/** Share of the way along the axis, on the screen. */
function shareOf(value: number): number {
  return Math.min(1, Math.max(0, (value - props.from) / span.value));
}
function styleOf({ value }: Handle): Record<string, string> {
  const { left, right, top, bottom } = props.place;
  if (props.along === 'x') {
    const at = left + shareOf(value) * (right - left);
    return { left: `${at}px`, top: `${top}px`, height: `${bottom - top}px` };
  }
  const at = bottom - shareOf(value) * (bottom - top);
  return { top: `${at}px`, left: `${left}px`, width: `${right - left}px` };
}
function valueAt(event: PointerEvent): number {
  const box = root.value!.getBoundingClientRect();
  const { left, right, top, bottom } = props.place;
  const share =
    props.along === 'x'
      ? (event.clientX - box.left - left) / (right - left)
      : (bottom - (event.clientY - box.top)) / (bottom - top);
  return props.from + Math.min(1, Math.max(0, share)) * span.value;
}

function onDown(event: PointerEvent, { id }: Handle): void {
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  dragged.value = id;
  emit('grab');
}
function onMove(event: PointerEvent): void {
  if (dragged.value !== null) emit('drag', dragged.value, valueAt(event));
}
function onUp(): void {
  if (dragged.value !== null) emit('done', dragged.value);
  dragged.value = null;
}
const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 };
function onKey(event: KeyboardEvent, { id, value }: Handle): void {
  const by = STEPS[event.key];
  if (by === undefined) return;
  event.preventDefault();
  emit('drag', id, value + by * (props.step ?? span.value / 200) * (event.shiftKey ? 10 : 1));
  emit('done', id);
}
</script>

<template>
  <div ref="root" class="handles">
    <div
      v-for="handle in handles"
      :key="handle.id"
      class="handle"
      :class="[along, handle.grip ?? 'middle', handle.tone ?? 'green', { dragged: dragged === handle.id }]"
      role="slider"
      tabindex="0"
      :aria-label="handle.label"
      :aria-valuenow="handle.value"
      :aria-valuetext="formatValue(handle.value)"
      :title="handle.label"
      :style="styleOf(handle)"
      @pointerdown.prevent="onDown($event, handle)"
      @pointermove="onMove"
      @pointerup="onUp"
      @pointercancel="onUp"
      @keydown="onKey($event, handle)"
    >
      <span class="grip" aria-hidden="true"></span>
    </div>
  </div>
</template>

<style scoped>
.handles {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.handle {
  position: absolute;
  pointer-events: auto;
  touch-action: none;
}
.handle.x {
  width: 22px;
  margin-left: -11px;
  cursor: ew-resize;
}
.handle.y {
  height: 22px;
  margin-top: -11px;
  cursor: ns-resize;
}
/* Grips at the end leave the rest of the picture to be pointed at. */
.handle.end.x {
  pointer-events: none;
}
.handle.end .grip {
  pointer-events: auto;
}
.grip {
  position: absolute;
  border: 2px solid var(--green);
  border-radius: 6px;
  background: var(--card);
}
.ochre .grip {
  border-color: var(--ochre);
}
.x .grip {
  top: calc(50% - 11px);
  left: 5px;
  width: 12px;
  height: 22px;
}
.y .grip {
  top: 5px;
  left: calc(50% - 11px);
  width: 22px;
  height: 12px;
}
.x.end .grip {
  top: auto;
  bottom: -9px;
  height: 18px;
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
.ochre:focus-visible .grip,
.ochre.dragged .grip {
  background: var(--ochre);
  outline-color: var(--ochre);
}
</style>
