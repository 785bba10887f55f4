<script setup lang="ts">
import type { Bounds, Evidence } from '@verdict/contract';
import { subjectWords } from '@verdict/core/road';
import { computed, ref } from 'vue';
import ChartPicture from '../../charts/chart-picture.vue';
import { panelsChart } from '../../charts/panels.js';
import type { Titles } from '../../charts/shape/value-axis.js';
import { useColours } from '../../charts/use-colours.js';
import { panelsOf, usualTitle, type Shown } from './pictures.js';

/** A picture as it was kept, for the sheet of the verdict: nothing in it can be changed. */
const props = defineProps<{ item: Evidence; bounds: Bounds | null }>();
const root = ref<HTMLElement>();
const colours = useColours(root);

const NOTHING: ReadonlySet<number> = new Set();
const titles = computed(() => props.item.request as Titles);
const subject = computed(() => subjectWords(props.item.request));
const shown = computed(() => ({ id: props.item.analysis, result: props.item.result }) as Shown);
const title = computed(() => titles.value.title ?? usualTitle(shown.value.id, subject.value));
const config = computed(() => {
  const setting = { bounds: props.bounds, titles: titles.value, lines: [], hold: null };
  const panels = panelsOf(shown.value, setting, NOTHING);
  return panels && colours.value ? panelsChart(panels, colours.value, null) : null;
});
</script>

<template>
  <figure ref="root" class="card">
    <figcaption>{{ title }}</figcaption>
    <div class="drawing"><ChartPicture v-if="config" :config="config" :words="title" /></div>
  </figure>
</template>

<style scoped>
figure {
  display: flex;
  flex-direction: column;
  min-width: 0;
  height: 100%;
  margin: 0;
}
figcaption {
  font-size: 13px;
  font-weight: 600;
}
.drawing {
  flex: 1;
  min-height: 0;
}
</style>
