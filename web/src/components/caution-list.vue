<script setup lang="ts">
import CautionNote from './caution-note.vue';
import TermWords from './term-words.vue';

/** The cautions, in one box. It stands before the figures: below them it would be scrolled out of sight. */
defineProps<{ texts: readonly string[] }>();
</script>

<template>
  <CautionNote v-if="texts.length">
    <span v-for="(text, i) in texts" :key="text" :class="{ next: i > 0 }"><TermWords :text="text" /></span>
  </CautionNote>
</template>

<style scoped>
.next {
  display: block;
  margin-top: 4px;
}
</style>
