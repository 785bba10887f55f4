<script setup lang="ts">
import type { ReplicateResult } from '@verdict/core/analyses';
import { formatFigure, groupThousands } from '@verdict/core/format';
import { computed } from 'vue';

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
  <section class="card list" aria-label="The replicate, reading by reading" tabindex="0">
    <table class="figures">
      <thead>
        <tr>
          <th class="number">row</th>
          <th class="number">reading</th>
          <th v-if="several">{{ heads.group }}</th>
          <th>{{ heads.now }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(reading, i) in result.readings" :key="i" :class="{ moved: reading.moved }">
          <td class="number">{{ reading.row }}</td>
          <td class="number">{{ told(reading.value) }}</td>
          <td v-if="several">{{ reading.group }}</td>
          <td>{{ reading.now }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="hidden > 0" class="soft">and {{ groupThousands(hidden) }} more</p>
  </section>
</template>

<style scoped>
.list {
  flex: none;
  max-height: 210px;
  padding: 4px 12px;
  overflow: auto;
  font-size: 12.5px;
}
table {
  width: 100%;
}
table.figures td,
table.figures th {
  padding: 1px 6px;
}
th {
  position: sticky;
  top: -4px;
  background: var(--card);
  font-weight: 400;
  text-align: left;
}
th.number {
  text-align: right;
}
.moved td:last-child {
  color: var(--green);
  font-weight: 600;
}
</style>
