<script setup lang="ts">
import type { Piece } from '@verdict/core/road';

defineProps<{ pieces: readonly Piece[] }>();
</script>

<template>
  <p class="finding">
    <template v-for="(piece, i) in pieces" :key="i"
      ><strong v-if="piece.strong">{{ piece.text }}</strong
      ><template v-else>{{ piece.text }}</template></template
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
