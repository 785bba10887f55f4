<script setup lang="ts">
import { computed, ref } from 'vue';
import RecordDrawer from '../../components/record-drawer.vue';
import { useStudy } from '../../stores/study.js';

/** Whether everything is stored, the way back and forth, and the record of all changes. */
const store = useStudy();
const recordOpen = ref(false);
const saved = computed(() =>
  store.waiting.length ? `${store.waiting.length} not stored yet` : `stored, change ${store.study?.revision}`,
);
</script>

<template>
  <span class="soft" role="status">{{ saved }}</span>
  <el-button
    link
    :disabled="!store.study?.canUndo || store.ruled"
    :title="store.study?.canUndo ?? ''"
    @click="store.undo()"
    >Undo</el-button
  >
  <el-button
    link
    :disabled="!store.study?.canRedo || store.ruled"
    :title="store.study?.canRedo ?? ''"
    @click="store.redo()"
    >Redo</el-button
  >
  <el-button link @click="recordOpen = true">Record</el-button>
  <RecordDrawer v-model="recordOpen" />
</template>
