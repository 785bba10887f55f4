<script setup lang="ts">
import { replicateAnalysis, type ReplicateResult } from '@verdict/core/analyses';
import { computed, ref } from 'vue';
import ChartPicture from '../../charts/chart-picture.vue';
import { chartOf } from '../../charts/drawn.js';
import { replicatePanels } from '../../charts/pictures/resample.js';
import { useColours } from '../../charts/use-colours.js';
import FindingWords from '../../components/finding-words.vue';

/** Single replicate beside the readings it was drawn from. */
const props = defineProps<{
  result: ReplicateResult;
  inPairs: boolean;
  of: string;
  count: number;
}>();
const number = defineModel<number>({ required: true });
const card = ref<HTMLElement>();
const colours = useColours(card);
const config = computed(() =>
  colours.value ? chartOf(replicatePanels(props.result, props.inPairs, props.of), colours.value, null) : null,
);
const words = computed(() => replicateAnalysis.finding(props.result));
const said = computed(() => words.value.map(({ text }) => text).join(''));
</script>

<template>
  <section ref="card" class="one" aria-label="Single replicate">
    <div class="head">
      <FindingWords class="words" :pieces="words" />
      <el-button size="small" :disabled="number <= 1" aria-label="Previous replicate" @click="number--"
        >Previous</el-button
      >
      <el-button size="small" :disabled="number >= count" aria-label="Next replicate" @click="number++">Next</el-button>
    </div>
    <!-- Counted or not: two heaps of dots show nothing that the list does not. -->
    <div v-if="result.as !== 'share'" class="box"><ChartPicture v-if="config" :config="config" :words="said" /></div>
  </section>
</template>

<style scoped>
.one {
  margin-top: 4px;
  border-top: 1px solid var(--line);
  padding-top: 4px;
}
.head {
  display: flex;
  gap: 6px;
  align-items: baseline;
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
  height: 150px;
}
</style>
