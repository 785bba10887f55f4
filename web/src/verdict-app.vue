<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { defineAsyncComponent, ref } from 'vue';
import { RouterView } from 'vue-router';
import { isTyping } from './composables/use-keys.js';

/** Fetched with the first question mark: the first page has no dialog to carry. */
const KeysDialog = defineAsyncComponent(() => import('./components/keys-dialog.vue'));
const asked = ref(false);
const open = ref(false);
useEventListener('keydown', (event) => {
  if (event.key !== '?' || isTyping(event)) return;
  asked.value = open.value = true;
});
</script>

<template>
  <RouterView />
  <KeysDialog v-if="asked" v-model="open" />
</template>
