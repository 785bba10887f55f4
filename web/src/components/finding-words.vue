<script setup lang="ts">
import type { Piece } from '@verdict/core/road';
import { local } from '../language/language.js';
import TermWords from './term-words.vue';

/** A finding. With `terms` its terms say what they mean where they stand. */
defineProps<{ pieces: readonly Piece[]; terms?: boolean }>();
</script>

<template>
  <p class="finding">
    <template v-for="(piece, i) in pieces" :key="i"
      ><strong v-if="piece.strong">{{ local(piece.text) }}</strong
      ><TermWords v-else-if="terms" :text="piece.text" /><template v-else>{{ local(piece.text) }}</template></template
    >
  </p>
</template>

<style scoped>
.finding {
  margin: 0;
  font: 19px/1.42 var(--serif);
  overflow-wrap: anywhere;
}
strong {
  font-weight: 500;
  color: var(--green);
}
</style>
