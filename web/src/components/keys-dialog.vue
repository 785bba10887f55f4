<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { ref } from 'vue';
import { isTyping } from '../composables/use-keys.js';

const open = ref(false);
const KEYS = [
  ['1 – 3', 'go to Readings, Fit, Verdict'],
  ['K', 'keep the result as evidence'],
  ['X', 'set aside the pointed-at reading (Fit)'],
  ['Ctrl + Z, Ctrl + Shift + Z', 'undo, redo'],
  ['Ctrl + V', 'paste readings (Readings)'],
  ['← →', 'step from reading to reading, with the plot in focus'],
  ['Escape, then Tab', 'leave the table'],
  ['?', 'this list'],
];

useEventListener('keydown', (event) => {
  if (event.key !== '?' || isTyping(event)) return;
  open.value = true;
});
</script>

<template>
  <el-dialog v-model="open" title="Keys" width="460">
    <table class="figures">
      <tbody>
        <tr v-for="[key, does] in KEYS" :key="key">
          <td>
            <kbd>{{ key }}</kbd>
          </td>
          <td>{{ does }}</td>
        </tr>
      </tbody>
    </table>
  </el-dialog>
</template>
