<script setup lang="ts">
import type { DescribeResult } from '@verdict/core/analyses';
import { formatValue } from '@verdict/core/format';
import type { Sample } from '@verdict/core/readings';
import { foundFigures } from '@verdict/core/road';
import { computed, ref } from 'vue';
import { FIGURES } from '@verdict/core/analyses';
import FigureTable from '../../components/figures/figure-table.vue';
import { typedNumber } from '../../components/fields/typed-number.js';
import SentenceNumber from '../../components/fields/sentence-number.vue';
import { local } from '../../language/language.js';

/** One reading moved for a moment: which, where to, and what that does. Nothing of it is stored. */
const props = defineProps<{
  sample: Sample;
  moved: { row: number; value: number };
  now: DescribeResult | null;
  before: DescribeResult | null;
}>();
const emit = defineEmits<{ move: [row: number, value: number] }>();

const SHOWN = ['mean', 'median', 'sd', 'quartiles', 'skewness', 'max'];
const figures = FIGURES.filter(({ key }) => SHOWN.includes(key));
const rows = computed(() =>
  foundFigures(figures, [...(props.before ? [props.before] : []), ...(props.now ? [props.now] : [])]),
);
const stored = computed(() => props.sample.values[props.sample.rows.indexOf(props.moved.row)]);
const wrong = ref('');

function toRow(text: string): void {
  const row = typedNumber(text);
  const at = props.sample.rows.indexOf(row);
  wrong.value = at < 0 ? `Row “${text}” has no reading in this column.` : '';
  if (at >= 0) emit('move', row, props.sample.values[at]!);
}
function toValue(text: string): void {
  const value = typedNumber(text);
  wrong.value = Number.isFinite(value) ? '' : `“${text}” is not a number; the reading does not change.`;
  if (Number.isFinite(value)) emit('move', props.moved.row, value);
}
</script>

<template>
  <section class="what-if card" aria-label="What if a reading changed">
    <p class="sentence">
      What if the reading in row
      <SentenceNumber aria-label="Row of the reading" :model-value="String(moved.row)" @update:model-value="toRow" />
      were
      <SentenceNumber aria-label="Its value" :model-value="String(moved.value)" @update:model-value="toValue" />
      instead of {{ local(stored === undefined ? '' : formatValue(stored)) }}?
    </p>
    <p v-if="wrong" class="said-wrong" role="alert">{{ local(wrong) }}</p>
    <FigureTable v-if="now && before" :rows="rows" :heads="['as stored', 'if it changed']" />
    <p class="soft">Drag the ochre line on the picture, or type a value. Nothing is saved.</p>
  </section>
</template>

<style scoped>
.what-if {
  padding: 10px 14px;
}
.sentence {
  margin: 0;
  font: 15px/1.75 var(--serif);
}
p {
  margin: 6px 0;
  font-size: 13px;
}
</style>
