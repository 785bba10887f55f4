<script setup lang="ts">
import { toRef } from 'vue';
import { SAVE_FORMS, usePictureActions, type Leaving } from './use-picture-actions.js';
import WordMenu from '../../components/word-menu.vue';

/** What can be done with every picture: copied, saved, enlarged together with its card. */
const props = defineProps<{ card: HTMLElement | undefined; picture: Leaving | undefined; title: string }>();
const { copy, save, enlarge, isFullscreen } = usePictureActions(
  toRef(props, 'card'),
  toRef(props, 'picture'),
  () => props.title,
);
</script>

<template>
  <el-button link @click="copy">Copy</el-button>
  <WordMenu title="Save" :items="SAVE_FORMS" @choose="save" />
  <el-button link @click="enlarge">{{ isFullscreen ? 'Smaller' : 'Enlarge' }}</el-button>
</template>
