<script setup lang="ts">
import { toRef } from 'vue';
import { SAVE_FORMS, usePictureActions, type Leaving } from '../charts/use-picture-actions.js';
import WordMenu from './word-menu.vue';

/** What can be done with every picture: copied, saved, enlarged together with its card. */
const props = defineProps<{ card: HTMLElement | undefined; picture: Leaving | undefined; title: string }>();
const { copy, save, enlarge, isFullscreen } = usePictureActions(
  toRef(props, 'card'),
  toRef(props, 'picture'),
  () => props.title,
);
</script>

<template>
  <button class="plain" @click="copy">Copy</button>
  <WordMenu title="Save" :items="SAVE_FORMS" @choose="save" />
  <button class="plain" @click="enlarge">{{ isFullscreen ? 'Smaller' : 'Enlarge' }}</button>
</template>
