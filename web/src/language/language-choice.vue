<script setup lang="ts">
import { computed } from 'vue';
import SentenceChoice from '../components/fields/sentence-choice.vue';
import { browserLanguageWords, chosenLanguage, LANGUAGES, languageWords } from './language.js';

/** How numbers and dates are written, on every page of this browser. */
const options = computed(() => [
  { value: '', text: browserLanguageWords() },
  ...LANGUAGES.map((tag) => ({ value: tag as string, text: languageWords(tag) })),
]);
</script>

<template>
  <label class="soft language"
    >Numbers and dates <SentenceChoice v-model="chosenLanguage" aria-label="Numbers and dates" :options="options"
  /></label>
</template>

<style scoped>
.language {
  font-size: 13px;
}
</style>
