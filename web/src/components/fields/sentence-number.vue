<script setup lang="ts">
import SentenceText from './sentence-text.vue';

/** A number of a sentence, as it is typed: whether it will do is for the sentence to say. */
defineProps<{ live?: boolean; wrong?: boolean }>();
const value = defineModel<string>({ required: true });
</script>

<template>
  <SentenceText v-model="value" class="number" :live="live" :wrong="wrong" inputmode="decimal" />
</template>
