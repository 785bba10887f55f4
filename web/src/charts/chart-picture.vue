<script setup lang="ts">
import { Chart, type ChartConfiguration } from 'chart.js';
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { decimalMark, local } from '../language/language.js';
import { chartToPng, chartToSvg } from './export-chart.js';
import { writeLocally } from './local-context.js';

/** Draws a configuration and says which mark is pointed at. It knows nothing of what is drawn. */
const props = defineProps<{
  config: ChartConfiguration;
  words: string;
  /** Finds what lies at a place in pixels. */
  hitAt?: (chart: Chart, x: number, y: number) => number | null;
}>();
const emit = defineEmits<{
  point: [index: number | null];
  choose: [index: number | null, event: MouseEvent];
  step: [by: number];
  enter: [];
  placed: [place: Place];
}>();

/** Where the chart's area lies in its box, in pixels, for what is laid over it. */
export interface Place {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const canvas = ref<HTMLCanvasElement>();
let chart: Chart | null = null;

function draw(): void {
  if (!canvas.value) return;
  const config = {
    ...props.config,
    options: { ...props.config.options, onHover, onClick, onResize: () => requestAnimationFrame(say) },
  } as ChartConfiguration;
  if (!chart) {
    writeLocally(canvas.value.getContext('2d')!);
    chart = new Chart(canvas.value, config);
  } else {
    chart.data = config.data;
    chart.options = config.options!;
    chart.update('none');
  }
  say();
}

function say(): void {
  if (!chart) return;
  const { left, right, top, bottom } = chart.chartArea;
  emit('placed', { left, right, top, bottom });
}

type Heard = NonNullable<NonNullable<ChartConfiguration['options']>['onHover']>;
const found = (...[event]: Parameters<Heard>): number | null =>
  chart && props.hitAt ? props.hitAt(chart, event.x ?? -1, event.y ?? -1) : null;
const onHover: Heard = (...heard) => emit('point', found(...heard));
const onClick: Heard = (...heard) => emit('choose', found(...heard), heard[0].native as MouseEvent);

const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 };
function onKey(event: KeyboardEvent): void {
  const by = STEPS[event.key];
  if (by === undefined && event.key !== 'Enter') return;
  event.preventDefault();
  if (by === undefined) emit('enter');
  else emit('step', by);
}

const dress = (title: string) => {
  const style = getComputedStyle(canvas.value!);
  const token = (name: string) => style.getPropertyValue(name).trim();
  return { title, ground: token('--card') || '#fff', ink: token('--ink') };
};
const sizeNow = () => ({ width: canvas.value!.clientWidth, height: canvas.value!.clientHeight });
defineExpose({
  /** The picture as it stands, under a title, on the ground of the page. */
  toPng: (title: string) => chartToPng(props.config, sizeNow(), dress(title)),
  toSvg: (title: string) => chartToSvg(props.config, sizeNow(), dress(title)),
});

// Canvas text is drawn once: it must wait for the fonts that ship with the page.
onMounted(() => void document.fonts.ready.then(draw));
watch([() => props.config, decimalMark], draw);
onBeforeUnmount(() => chart?.destroy());
</script>

<template>
  <div class="picture">
    <canvas ref="canvas" tabindex="0" role="img" :aria-label="local(words)" @keydown="onKey"></canvas>
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  width: 100%;
  height: 100%;
  min-height: 0;
}
</style>
