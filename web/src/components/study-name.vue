<script setup lang="ts">
import { computed } from 'vue';
import { useStudy } from '../stores/study.js';
import SentenceText from './fields/sentence-text.vue';

/** The name of the open study, changed in place. */
const store = useStudy();
const name = computed(() => store.study?.name ?? '');

function rename(text: string): void {
  const wanted = text.trim();
  if (wanted !== name.value) store.change({ kind: 'change-study', name: wanted });
}
</script>

<template>
  <SentenceText
    v-if="store.study"
    class="name"
    leaves
    aria-label="Name of the study"
    placeholder="untitled study (click to name it)"
    maxlength="120"
    :disabled="store.ruled"
    :model-value="name"
    :title="name"
    @update:model-value="rename"
  />
</template>

<style scoped>
.name.name {
  flex: 0 1 420px;
  min-width: 80px;
  border-bottom-color: transparent;
  font-weight: 600;
}
.name:hover:not(:has(:disabled)),
.name:focus-within {
  border-bottom-color: var(--green);
}
</style>
