<script setup lang="ts">
import {
  groupWords,
  oneSampleAnalysis,
  populationAnalysis,
  type OneSampleResult,
  type PopulationResult,
} from '@verdict/core/analyses';
import { computed, ref } from 'vue';
import ChartPicture from '../../charts/chart-picture.vue';
import { chartOf, pointedAt, pointedIn } from '../../charts/drawn.js';
import type { Chart } from 'chart.js';
import { populationPanels } from '../../charts/pictures/simulate.js';
import { useColours } from '../../charts/use-colours.js';
import FindingWords from '../../components/finding-words.vue';
import { local } from '../../language/language.js';

/** The population, with the readings of one sample and the statistic computed from them. */
const props = defineProps<{ population: PopulationResult; sample: OneSampleResult | null; count: number }>();
const number = defineModel<number | null>({ required: true });
const card = ref<HTMLElement>();
const colours = useColours(card);
const pointed = ref<number | null>(null);
const panels = computed(() => populationPanels(props.population, props.sample));
const config = computed(() => (colours.value ? chartOf(panels.value, colours.value, pointed.value) : null));
const find = (of: Chart, x: number, y: number) => pointedAt(panels.value, of, x, y);
const words = computed(() =>
  props.sample ? oneSampleAnalysis.finding(props.sample) : populationAnalysis.finding(props.population),
);
const said = computed(() => words.value.map(({ text }) => text).join(''));
const hit = computed(() => (pointed.value === null ? null : pointedIn(panels.value, pointed.value)));
const besides = computed(() => hit.value?.words ?? (props.sample ? groupWords(props.sample).join('; ') : ''));
const step = (by: number) => (number.value = Math.max(1, Math.min(props.count, (number.value ?? 0) + by)));
</script>

<template>
  <section ref="card" class="strip" aria-label="Population and sample">
    <div class="head">
      <FindingWords class="words" :pieces="words" />
      <template v-if="sample">
        <el-button size="small" :disabled="(number ?? 1) <= 1" aria-label="Previous sample" @click="step(-1)"
          >Previous</el-button
        >
        <el-button size="small" :disabled="(number ?? 0) >= count" aria-label="Next sample" @click="step(1)"
          >Next</el-button
        >
        <el-button size="small" title="Hide the single sample" @click="number = null">Hide</el-button>
      </template>
    </div>
    <div class="box">
      <ChartPicture v-if="config" :config="config" :words="said" :hit-at="find" @point="(index) => (pointed = index)" />
    </div>
    <p v-if="besides" class="soft besides">{{ local(besides) }}</p>
  </section>
</template>

<style scoped>
.strip {
  margin-bottom: 4px;
  border-bottom: 1px solid var(--line);
}
.head {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
.head :deep(.el-button + .el-button) {
  margin-left: 0;
}
.words {
  flex: 1;
}
.words :deep(p),
.words {
  margin: 0;
  font-size: 14px;
}
.box {
  height: 116px;
}
.besides {
  margin: 0 0 2px;
  font-size: 12.5px;
}
</style>
