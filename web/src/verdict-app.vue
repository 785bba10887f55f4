<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { defineAsyncComponent } from 'vue';
import { RouterView } from 'vue-router';
import { isTyping } from './composables/use-keys.js';
import { useOverlay } from './composables/use-overlay.js';

/** Fetched with the first key or press that asks for it: the first page has no dialog to carry. */
const OVERLAYS = {
  keys: defineAsyncComponent(() => import('./components/keys-dialog.vue')),
  search: defineAsyncComponent(() => import('./search/search-dialog.vue')),
  help: defineAsyncComponent(() => import('./help/help-drawer.vue')),
};
const { asked, open, show } = useOverlay();

useEventListener('keydown', (event) => {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === '?') show('keys');
  if (event.key === '/') {
    event.preventDefault();
    show('search');
  }
});
</script>

<template>
  <RouterView />
  <component
    :is="OVERLAYS[name]"
    v-for="name in asked"
    :key="name"
    :model-value="open === name"
    @update:model-value="(shown: boolean) => (open = shown ? name : null)"
  />
</template>
