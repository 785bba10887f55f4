<script setup lang="ts">
import SentenceText from './sentence-text.vue';

/** A number of a sentence, as it is typed: whether it will do is for the sentence to say. A long one is shown in short until somebody is at it. */
defineProps<{ live?: boolean; wrong?: boolean }>();
const value = defineModel<string>({ required: true });

const MOST_DIGITS = 7;
const isLong = (text: string) => text.includes('.') && text.replace(/\D/g, '').length > MOST_DIGITS + 1;
/** Whole numbers stay whole: no digit of a seed is left out. */
const short = (text: string): string =>
  isLong(text) && Number.isFinite(Number(text)) ? String(Number(Number(text).toPrecision(MOST_DIGITS))) : text;
</script>

<template>
  <SentenceText
    v-model="value"
    class="number"
    :live="live"
    :wrong="wrong"
    :short="short"
    :title="isLong(value) ? value : undefined"
    inputmode="decimal"
  />
</template>
