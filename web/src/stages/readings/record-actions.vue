<script setup lang="ts">
import { computed, ref } from 'vue';
import RecordDrawer from '../../components/record-drawer.vue';
import { useStudy } from '../../stores/study.js';

/** Whether everything is stored, the way back and forth, and the record of all changes. */
const store = useStudy();
const recordOpen = ref(false);
const saved = computed(() =>
  store.waiting.length ? `${store.waiting.length} not saved yet` : `saved, change ${store.study?.revision}`,
);
/** What would be taken back or done again, with the key for it. */
const hint = (key: string, what: string | null | undefined) => (what ? `${what} (${key})` : key);
</script>

<template>
  <span class="soft" role="status">{{ saved }}</span>
  <el-button
    link
    :disabled="!store.study?.canUndo || store.ruled"
    :title="hint('Ctrl + Z', store.study?.canUndo)"
    @click="store.undo()"
    >Undo</el-button
  >
  <el-button
    link
    :disabled="!store.study?.canRedo || store.ruled"
    :title="hint('Ctrl + Y', store.study?.canRedo)"
    @click="store.redo()"
    >Redo</el-button
  >
  <el-button link @click="recordOpen = true">Record</el-button>
  <RecordDrawer v-model="recordOpen" />
</template>
