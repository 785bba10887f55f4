<script setup lang="ts">
import { RouterView } from 'vue-router';
import KeysDialog from './components/keys-dialog.vue';
</script>

<template>
  <RouterView />
  <KeysDialog />
</template>
