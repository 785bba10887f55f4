<script setup lang="ts">
import { formatFigure, groupThousands } from '@verdict/core/format';
import type { Sample } from '@verdict/core/readings';
import { computed } from 'vue';
import { local } from '../../language/language.js';

/** The readings of the bars that were chosen: named, shown in the table, set aside together. */
const props = defineProps<{
  sample: Sample;
  /** Indices into the sample. */
  chosen: readonly number[];
  locked: boolean;
  /** False where the table cannot be told which they are. */
  canShow: boolean;
}>();
const emit = defineEmits<{ aside: []; table: []; none: [] }>();

const NAMED = 12;
const named = computed(() =>
  props.chosen
    .slice(0, NAMED)
    .map(
      (i) => `${props.sample.rows[i]}: ${formatFigure(props.sample.values[i]!, 'reading', props.sample.resolution)}`,
    ),
);
</script>

<template>
  <section class="card chosen" aria-label="Chosen readings">
    <p>
      <b>{{ chosen.length === 1 ? '1 reading' : `${groupThousands(chosen.length)} readings` }} chosen</b>
      <span class="soft"> row and value: {{ local(named.join(', ')) }}{{ chosen.length > NAMED ? ' …' : '' }}</span>
    </p>
    <p>
      <el-button v-if="canShow" link @click="emit('table')">Show in the table</el-button>
      <el-button v-if="!locked" link :disabled="chosen.length === 0" @click="emit('aside')">Set aside …</el-button>
      <el-button link @click="emit('none')">Choose none</el-button>
    </p>
  </section>
</template>

<style scoped>
.chosen {
  padding: 8px 14px;
  font-size: 13px;
}
p {
  margin: 0;
}
p + p {
  display: flex;
  gap: 10px;
  margin-top: 2px;
}
</style>
