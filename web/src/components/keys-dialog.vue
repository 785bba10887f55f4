<script setup lang="ts">
import { PATH, STAGES } from '../stages/stages.js';
import { FRAME_LANDMARKS } from '../workbench/frame/stage.js';

const open = defineModel<boolean>({ required: true });
const places = [...FRAME_LANDMARKS, ...STAGES.flatMap(({ landmarks }) => landmarks ?? [])];
const KEYS = [
  [`1 – ${PATH.length}`, `go to ${PATH.map(({ title }) => title).join(', ')}`],
  [places.map(({ key }) => key.toUpperCase()).join(', '), `go to ${places.map(({ title }) => title).join(', ')}`],
  ['K', 'keep the result as evidence'],
  ['X, in the table Alt + X', 'set aside the indicated or chosen readings'],
  ['Ctrl + Z', 'undo'],
  ['Ctrl + Y, Ctrl + Shift + Z', 'redo'],
  ['Ctrl + C, X, V', 'copy, cut, paste cells and readings (Readings)'],
  ['Shift + arrows, Ctrl + A', 'choose a range of cells, or all'],
  ['Ctrl + D, Delete', 'fill the first row of the range down; clear the range'],
  ['Alt + Insert, Alt + Delete', 'insert rows above, remove the chosen rows'],
  ['Ctrl + F', 'find in the table, go to a row'],
  ['← →, with Shift ten steps', 'move the handle on a picture in focus'],
  ['← →', 'move from point to point (picture in focus)'],
  ['Enter', 'choose the current bar'],
  ['Escape, then Tab', 'leave the table'],
  ['/', 'search everywhere'],
  ['?', 'show this list'],
];
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
