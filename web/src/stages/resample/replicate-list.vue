<script setup lang="ts">
import type { ReplicateResult } from '@verdict/core/analyses';
import { formatFigure } from '@verdict/core/format';
import { computed } from 'vue';
import { local } from '../../language/language.js';
import ReadingList from '../../workbench/picture/reading-list.vue';

/** A replicate, reading by reading. */
const props = defineProps<{ result: ReplicateResult; heads: { group: string; now: string } }>();
const told = (value: number) =>
  props.result.as === 'share'
    ? value === 1
      ? 'counted'
      : 'not'
    : formatFigure(value, 'reading', props.result.resolution);
/** One group alone needs no name. */
const several = computed(() => props.result.readings.some(({ group }) => group !== props.result.readings[0]!.group));
const hidden = computed(() => props.result.n - props.result.readings.length);
</script>

<template>
  <ReadingList label="The replicate, reading by reading" :hidden="hidden">
    <template #head>
      <tr>
        <th class="number">row</th>
        <th class="number">reading</th>
        <th v-if="several">{{ heads.group }}</th>
        <th>{{ heads.now }}</th>
      </tr>
    </template>
    <tr v-for="(reading, i) in result.readings" :key="i" :class="{ moved: reading.moved }">
      <td class="number">{{ reading.row }}</td>
      <td class="number">{{ local(told(reading.value)) }}</td>
      <td v-if="several">{{ reading.group }}</td>
      <td>{{ reading.now }}</td>
    </tr>
  </ReadingList>
</template>

<style scoped>
.moved td:last-child {
  color: var(--green);
  font-weight: 600;
}
</style>
