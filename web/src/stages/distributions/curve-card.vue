<script setup lang="ts">
import type { DistributionResult } from '@verdict/core/analyses';
import { computed, ref } from 'vue';
import ChartPicture, { type Place } from '../../charts/chart-picture.vue';
import { distributionChart } from '../../charts/distribution-chart.js';
import type { Picture } from '../../charts/distribution-picture.js';
import { useColours } from '../../charts/use-colours.js';
import DragHandles, { type Handle } from '../../charts/drag-handles.vue';
import PictureActions from '../../components/picture-actions.vue';

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
const box = ref<HTMLElement>();
const colours = useColours(box);
const config = computed(() => (colours.value ? distributionChart(props.picture, colours.value, props.axis) : null));

const place = ref<Place | null>(null);
const handles = computed<Handle[]>(() => {
  const { lower, upper } = props.result;
  return (
    [
      ['lower', lower, 'Lower limit on the picture'],
      ['upper', upper, 'Upper limit on the picture'],
    ] as const
  ).flatMap(([id, value, label]) => (value === null ? [] : [{ id, value, label }]));
});
</script>

<template>
  <section ref="card" class="card picture-card" :class="{ stale }" aria-label="Picture">
    <div class="title">
      <h2>{{ title }}</h2>
      <PictureActions :card="card" :picture="chart" :title="title" />
    </div>
    <div ref="box" class="box">
      <ChartPicture
        v-if="config"
        ref="chart"
        :config="config as never"
        :words="words"
        @placed="(found) => (place = found)"
      />
      <DragHandles
        v-if="place && !stale"
        :handles="handles"
        :place="place"
        :from="picture.window.from"
        :to="picture.window.to"
        :step="result.discrete ? 1 : null"
        @drag="(id, x) => emit('drag', id as 'lower' | 'upper', x)"
      />
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
