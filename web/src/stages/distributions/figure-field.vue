<script setup lang="ts">
import SentenceNumber from '../../components/fields/sentence-number.vue';

/** A figure of the sentence: typed text counts at once, valid or not. */
defineProps<{ label: string; value: string | undefined; wrong: boolean; hint?: string }>();
const emit = defineEmits<{ typed: [text: string] }>();
</script>

<template>
  <SentenceNumber
    live
    :aria-label="label"
    :wrong="wrong"
    :title="hint"
    :model-value="value ?? ''"
    @update:model-value="(text) => emit('typed', text)"
  />
</template>
