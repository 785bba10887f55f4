<script setup lang="ts">
import { noShapeWords, shapeWords, type ProbabilityPlotResult } from '@verdict/core/analyses';
import { computed } from 'vue';
import { local } from '../../../language/language.js';

/** What the plot shows, in words; pointing at them points at the marks. */
const props = defineProps<{ plot: ProbabilityPlotResult }>();
const pointed = defineModel<readonly number[]>({ required: true });
const shapes = computed(() => shapeWords(props.plot));
</script>

<template>
  <section class="shapes" aria-label="What the plot shows">
    <p v-if="shapes.length === 0" class="soft">{{ local(noShapeWords(plot)) }}</p>
    <ul v-else>
      <li v-for="{ shape, name, why, marks } in shapes" :key="shape">
        <button
          v-if="marks.length"
          type="button"
          @mouseenter="pointed = marks"
          @mouseleave="pointed = []"
          @focus="pointed = marks"
          @blur="pointed = []"
        >
          {{ name }}
        </button>
        <b v-else>{{ name }}</b>
        <span class="soft"> {{ local(why) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.shapes {
  margin-top: 6px;
  font-size: 13px;
}
p,
ul {
  margin: 0;
  padding: 0;
}
li {
  list-style: none;
}
button {
  padding: 0;
  border: 0;
  border-bottom: 1px dotted var(--ink);
  background: none;
  color: var(--ink);
  font: inherit;
  font-weight: 600;
  cursor: default;
}
</style>
