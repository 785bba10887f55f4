<script setup lang="ts">
import { computed } from 'vue';
import { useStudy } from '../stores/study.js';
import DraftField from './draft-field.vue';

/** The name of the open study, changed in place. */
const store = useStudy();
const name = computed(() => store.study?.name ?? '');

function rename(text: string): void {
  const wanted = text.trim();
  if (wanted !== name.value) store.change({ kind: 'change-study', name: wanted });
}
</script>

<template>
  <DraftField
    v-if="store.study"
    class="name"
    leaves
    aria-label="Name of the study"
    placeholder="untitled study: click to name it"
    maxlength="120"
    :disabled="store.ruled"
    :value="name"
    :title="name"
    @commit="rename"
  />
</template>

<style scoped>
.name {
  flex: 0 1 420px;
  min-width: 80px;
  border: 0;
  border-bottom: 1px solid transparent;
  padding: 2px 4px;
  background: transparent;
  color: var(--ink);
  font: 600 14px var(--sans);
  text-overflow: ellipsis;
}
.name:hover:enabled,
.name:focus {
  border-bottom-color: var(--green);
}
</style>
