<script setup lang="ts">
import { local } from '../../language/language.js';
import SentenceText from './sentence-text.vue';
import { typedNumber } from './typed-number.js';

/**
 * A number field in a sentence. It holds text: whether it is valid is decided by the sentence. A long number is shown in short until the field has
 * the focus.
 */
defineProps<{ live?: boolean; wrong?: boolean }>();
const value = defineModel<string>({ required: true });

const MOST_DIGITS = 7;
const isLong = (text: string) => /[.,]/.test(text) && text.replace(/\D/g, '').length > MOST_DIGITS + 1;
/** Whole numbers stay whole: no digit of a seed is left out. */
const short = (text: string): string =>
  isLong(text) && Number.isFinite(typedNumber(text))
    ? local(String(Number(typedNumber(text).toPrecision(MOST_DIGITS))))
    : text;
</script>

<template>
  <SentenceText
    :model-value="local(value)"
    class="number"
    :live="live"
    :wrong="wrong"
    :short="short"
    :title="isLong(value) ? local(value) : undefined"
    inputmode="decimal"
    @update:model-value="(text) => (value = text)"
  />
</template>
