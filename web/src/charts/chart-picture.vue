<script setup lang="ts">
import {
  Chart,
  Filler,
  LineController,
  LineElement,
  LinearScale,
  PointElement,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js';
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';

Chart.register(LineController, LineElement, LinearScale, PointElement, Tooltip, Filler);

/** Draws a configuration and says which mark is pointed at. It knows nothing of what is drawn. */
const props = defineProps<{ config: ChartConfiguration; words: string }>();
const emit = defineEmits<{ point: [index: number | null]; step: [by: number]; placed: [place: Place] }>();

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
    options: { ...props.config.options, onHover, onResize: () => requestAnimationFrame(say) },
  } as ChartConfiguration;
  if (!chart) chart = new Chart(canvas.value, config);
  else {
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

const onHover: NonNullable<ChartConfiguration['options']>['onHover'] = (_event, elements) => {
  const hit = elements.find(({ datasetIndex }) => datasetIndex === 0);
  emit('point', hit ? hit.index : null);
};

const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 };
function onKey(event: KeyboardEvent): void {
  const by = STEPS[event.key];
  if (by === undefined) return;
  event.preventDefault();
  emit('step', by);
}

/** The picture as a PNG at twice its size, on the ground of the page. */
async function toPng(): Promise<Blob> {
  const source = canvas.value!;
  const copy = document.createElement('canvas');
  copy.width = source.clientWidth * 2;
  copy.height = source.clientHeight * 2;
  const context = copy.getContext('2d')!;
  context.fillStyle = getComputedStyle(source).getPropertyValue('--card').trim() || '#fff';
  context.fillRect(0, 0, copy.width, copy.height);
  const ratio = chart!.options.devicePixelRatio;
  chart!.options.devicePixelRatio = 2;
  chart!.resize();
  context.drawImage(source, 0, 0, copy.width, copy.height);
  chart!.options.devicePixelRatio = ratio;
  chart!.resize();
  return new Promise((resolve, reject) =>
    copy.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be made.'))), 'image/png'),
  );
}
defineExpose({ toPng });

// Canvas text is drawn once: it must wait for the fonts that ship with the page.
onMounted(() => void document.fonts.ready.then(draw));
watch(() => props.config, draw);
onBeforeUnmount(() => chart?.destroy());
</script>

<template>
  <div class="picture">
    <canvas ref="canvas" tabindex="0" role="img" :aria-label="words" @keydown="onKey"></canvas>
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
