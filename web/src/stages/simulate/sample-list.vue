<script setup lang="ts">
import type { OneSampleResult } from '@verdict/core/analyses';
import { formatFigure, groupThousands } from '@verdict/core/format';
import { computed } from 'vue';
import { local } from '../../language/language.js';
import ReadingList from '../../workbench/picture/reading-list.vue';

/** The readings of one sample, in the order in which they were drawn. */
const props = defineProps<{ sample: OneSampleResult }>();
const several = computed(() => props.sample.groups.length > 1);
const rows = computed(() =>
  props.sample.groups.flatMap(({ name, values, strange }) =>
    values.map((value, i) => ({ name, place: i + 1, value, strange: strange[i] })),
  ),
);
const hidden = computed(() => props.sample.groups.reduce((sum, { n, values }) => sum + n - values.length, 0));
const anyStrange = computed(() => rows.value.some(({ strange }) => strange));
</script>

<template>
  <ReadingList label="The sample, reading by reading" :hidden="hidden">
    <template #head>
      <tr>
        <th v-if="several">group</th>
        <th class="number">drawn</th>
        <th class="number">reading</th>
        <th v-if="anyStrange"></th>
      </tr>
    </template>
    <tr v-for="row in rows" :key="`${row.name} ${row.place}`">
      <td v-if="several">{{ row.name }}</td>
      <td class="number">{{ groupThousands(row.place) }}</td>
      <td class="number">{{ local(formatFigure(row.value, 'reading', sample.readings.resolution)) }}</td>
      <td v-if="anyStrange">{{ row.strange ? 'different' : '' }}</td>
    </tr>
  </ReadingList>
</template>
