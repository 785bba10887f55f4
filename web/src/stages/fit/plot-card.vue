<script setup lang="ts">
import { probabilityPlotAnalysis, type ProbabilityPlotResult } from '@verdict/core/analyses';
import { formatPercent } from '@verdict/core/format';
import { computed, ref, watch } from 'vue';
import ChartPicture from '../../charts/chart-picture.vue';
import { plotPoints, pointWords, probabilityPlotChart } from '../../charts/probability-plot-chart.js';
import { useColours } from '../../charts/use-colours.js';
import PictureActions from '../../components/picture-actions.vue';
import PlotTable from './plot-table.vue';

const props = defineProps<{ result: ProbabilityPlotResult; column: string; locked?: boolean; printed?: boolean }>();
/** The mark pointed at, as an index into the result's table. */
const pointed = defineModel<number | null>('pointed', { default: null });
const emit = defineEmits<{ setAside: [] }>();

const card = ref<HTMLElement>();
const picture = ref<InstanceType<typeof ChartPicture>>();
const tableOpen = ref(false);
const colours = useColours(card);
const points = computed(() => plotPoints(props.result));
const config = computed(
  () => colours.value && probabilityPlotChart(props.result, props.column, colours.value, pointed.value),
);
const words = computed(
  () =>
    `Normal probability plot. ${probabilityPlotAnalysis
      .finding(props.result)
      .map(({ text }) => text)
      .join('')} Arrow keys step from reading to reading.`,
);
const bandWords = computed(() =>
  props.result.band
    ? `${formatPercent(props.result.band.confidence)} of normal samples stay wholly inside the shaded band`
    : '',
);
const pointedWords = computed(() => (pointed.value === null ? '' : pointWords(props.result, pointed.value).join(', ')));

function onPoint(index: number | null): void {
  // Moving off a mark keeps it: the way to the key X or the button is long.
  if (index !== null) pointed.value = points.value[index]?.index ?? null;
}
function onStep(by: number): void {
  const last = props.result.n - 1;
  pointed.value = pointed.value === null ? (by > 0 ? 0 : last) : Math.max(0, Math.min(last, pointed.value + by));
}
watch(
  () => props.result.rows,
  () => (pointed.value = null),
);
</script>

<template>
  <section ref="card" class="card plot" :class="{ printed }" aria-label="Probability plot">
    <div v-if="!printed" class="title">
      <h2>{{ column }} on normal probability scale</h2>
      <button class="plain" @click="tableOpen = true">Table</button>
      <PictureActions :card="card" :picture="picture" :title="`probability plot of ${column}`" />
    </div>
    <div class="drawing">
      <ChartPicture v-if="config" ref="picture" :config="config" :words="words" @point="onPoint" @step="onStep" />
      <span v-if="bandWords" class="band">{{ bandWords }}</span>
    </div>
    <p v-if="!printed" class="pointed" role="status">
      <template v-if="pointed !== null">
        {{ pointedWords }}
        <button v-if="!locked" class="plain" @click="emit('setAside')">Set aside <kbd>X</kbd></button>
      </template>
      <span v-else class="soft">Point at a mark to see its row.</span>
    </p>
    <PlotTable v-if="tableOpen" :result="result" :column="column" @close="tableOpen = false" />
  </section>
</template>

<style scoped>
.plot {
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
  padding: 14px 16px 8px;
}
.plot:fullscreen {
  border-radius: 0;
}
.title {
  display: flex;
  gap: 12px;
  align-items: baseline;
}
h2 {
  flex: 1;
  margin: 0 0 8px;
  font-size: 15px;
  font-weight: 600;
  overflow-wrap: anywhere;
}
h2::first-letter {
  text-transform: uppercase;
}
.drawing {
  position: relative;
  flex: 1;
  min-height: 0;
}
.band {
  position: absolute;
  right: 18px;
  bottom: 96px;
  max-width: 210px;
  color: var(--green);
  font-size: 12px;
  pointer-events: none;
}
.pointed {
  min-height: 24px;
  margin: 2px 0 0;
  font-size: 13px;
}
@media (max-width: 900px) {
  .plot:not(.printed) {
    height: 460px;
  }
}
.printed {
  border: 0;
  padding: 0;
}
</style>
