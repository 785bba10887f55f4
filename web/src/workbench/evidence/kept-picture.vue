<script setup lang="ts">
import { computed, ref } from 'vue';
import ChartPicture from '../../charts/chart-picture.vue';
import { chartOf } from '../../charts/drawn.js';
import { useColours } from '../../charts/use-colours.js';
import type { KeptPicture } from '../frame/stage.js';

/** A picture of kept evidence, which cannot be changed. `bare`: without a title, where the text beside it names it. */
const props = defineProps<{ draw: () => KeptPicture; bare?: boolean }>();
const root = ref<HTMLElement>();
const colours = useColours(root);
const picture = computed(() => props.draw());
const config = computed(() => (colours.value ? chartOf(picture.value.panels, colours.value, null) : null));
</script>

<template>
  <figure ref="root">
    <figcaption v-if="!bare">{{ picture.title }}</figcaption>
    <div class="drawing"><ChartPicture v-if="config" :config="config" :words="picture.title" /></div>
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
figcaption::first-letter {
  text-transform: uppercase;
}
.drawing {
  flex: 1;
  min-height: 0;
}
</style>
