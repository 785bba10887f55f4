<script setup lang="ts">
import { formatFigure, formatValue } from '@verdict/core/format';
import { readOffWords, type ProbabilityPlotResult, type ReadOff } from '@verdict/core/analyses';
import { computed, ref } from 'vue';
import SentenceText from '../../../components/fields/sentence-text.vue';
import { typedNumber } from '../../../components/fields/typed-number.js';
import { local } from '../../../language/language.js';

/** "10 % lie below 7.87 mm": either is typed, the other follows. */
const props = defineProps<{ plot: ProbabilityPlotResult; read: ReadOff; confidence: number }>();
const emit = defineEmits<{ ask: [asked: { share: number } | { value: number }] }>();

/** Why what was typed will not do. */
const wrong = ref('');
const shareText = computed(() => formatValue(Number((props.read.share * 100).toPrecision(4))));
const valueText = computed(() => formatFigure(props.read.value, 'location', props.plot.resolution));
const words = computed(() => readOffWords(props.plot, props.read, props.confidence));

function askShare(text: string): void {
  const percent = typedNumber(text.replace('%', ''));
  if (!(percent > 0 && percent < 100)) {
    wrong.value = `“${text}” is not valid. Enter a percentage between 0 and 100.`;
    return;
  }
  wrong.value = '';
  emit('ask', { share: percent / 100 });
}
function askValue(text: string): void {
  const value = typedNumber(text);
  if (!Number.isFinite(value)) {
    wrong.value = `“${text}” is not a number.`;
    return;
  }
  wrong.value = '';
  emit('ask', { value });
}
</script>

<template>
  <section class="card read" aria-label="Read off">
    <p>
      <SentenceText aria-label="percentage below" :model-value="shareText" @update:model-value="askShare" /> % of the
      distribution lies below
      <SentenceText aria-label="value" :model-value="valueText" @update:model-value="askValue" />
      {{ plot.unit }}
    </p>
    <p v-if="words" class="soft words">{{ local(words) }}</p>
    <p v-if="wrong" class="said-wrong" role="alert">{{ local(wrong) }}</p>
  </section>
</template>

<style scoped>
.read {
  padding: 6px 14px;
}
p {
  margin: 0;
  font-size: 13px;
}
.words {
  margin-top: 2px;
}
</style>
