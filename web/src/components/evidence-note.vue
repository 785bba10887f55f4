<script setup lang="ts">
import type { Evidence } from '@verdict/contract';
import { useEvidence } from '../stores/evidence.js';
import { useStudy } from '../stores/study.js';
import SentenceText from './fields/sentence-text.vue';

/** The note beside a piece of evidence, written in place. */
defineProps<{ item: Evidence; name: string }>();
const store = useStudy();
const evidence = useEvidence();
</script>

<template>
  <label class="soft note"
    >note
    <SentenceText
      :aria-label="`Note on the ${name.toLowerCase()}`"
      maxlength="2000"
      placeholder="none"
      :disabled="store.ruled"
      :model-value="item.note"
      @update:model-value="(text) => evidence.say(item.id, { note: text })"
    />
  </label>
</template>

<style scoped>
.note {
  display: flex;
  gap: 8px;
  align-items: baseline;
  font-size: 13px;
}
.note :deep(.field) {
  flex: 1;
}
</style>
