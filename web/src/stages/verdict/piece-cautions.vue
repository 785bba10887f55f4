<script setup lang="ts">
import { local } from '../../language/language.js';
import type { Caution } from '../../sheet/pieces.js';
import SentenceText from '../../components/fields/sentence-text.vue';

/** What a piece of evidence warns of, each caution with its answer. */
defineProps<{ cautions: readonly Caution[]; of: string; locked: boolean }>();
const emit = defineEmits<{ answer: [to: string, words: string] }>();
</script>

<template>
  <ul class="cautions" :aria-label="`Cautions of the ${of}`">
    <li v-for="(caution, i) in cautions" :key="caution.text" :class="{ answered: caution.answer }">
      <p><strong>Caution</strong> {{ local(caution.text) }}</p>
      <label class="answer soft"
        >answer
        <SentenceText
          :aria-label="`Answer to caution ${i + 1} of the ${of}`"
          maxlength="1000"
          placeholder="why it is acceptable, or what was done"
          :disabled="locked"
          :model-value="caution.answer?.words ?? ''"
          @update:model-value="(words) => emit('answer', caution.text, words)"
        />
        <span v-if="caution.answer" class="who">{{ caution.answer.who }}</span>
      </label>
    </li>
  </ul>
</template>

<style scoped>
.cautions {
  display: grid;
  gap: 6px;
  margin: 6px 0;
  padding: 0;
  list-style: none;
}
li {
  border-left: 3px solid var(--ochre);
  border-radius: 0 6px 6px 0;
  padding: 5px 10px;
  background: var(--ochre-tint);
  font-size: 13px;
}
li.answered {
  border-left-color: var(--line);
  background: none;
}
strong {
  color: var(--ochre-text);
  font-weight: 600;
}
p {
  margin: 0;
  overflow-wrap: anywhere;
}
.answer {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: baseline;
}
.answer :deep(.field) {
  flex: 1;
  min-width: 160px;
}
.who {
  font-size: 12px;
}
</style>
