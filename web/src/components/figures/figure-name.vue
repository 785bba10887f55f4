<script setup lang="ts">
import type { Explained } from '@verdict/core/road';
import { local } from '../../language/language.js';

/** The name of a figure, which says what it means when it is pointed at or reached by keys, and everything when it is pressed. */
defineProps<{ figure: Explained; open?: boolean; called?: string }>();
const emit = defineEmits<{ ask: [] }>();
</script>

<template>
  <el-tooltip
    :content="local(figure.use ? `${figure.meaning} ${figure.use}` : figure.meaning)"
    :trigger="['hover', 'focus']"
    :trigger-keys="[]"
    :show-after="250"
    :persistent="false"
    placement="left"
    effect="light"
    popper-class="figure-hint"
  >
    <el-button link class="figure-name" :aria-expanded="open" @click="emit('ask')">{{
      called ?? figure.name
    }}</el-button>
  </el-tooltip>
</template>

<style>
.el-button.is-link.figure-name {
  --el-button-text-color: var(--ink);
  padding: 0;
  font-size: inherit;
  font-weight: inherit;
  text-align: left;
  white-space: normal;
}
.figure-hint.el-popper {
  max-width: 340px;
  font-size: 12.5px;
}
</style>
