<script setup lang="ts">
import { formatValue, groupThousands } from '@verdict/core/format';
import { toDelimited } from '@verdict/core/readings';
import { ElMessage } from 'element-plus';
import { computed } from 'vue';
import { saveFile } from '../files/save-file.js';
import type { Rows } from './rows.js';

/** A table of full values: looked at in short, copied and saved in full. */
const props = defineProps<{ title: string; rows: Rows }>();
const emit = defineEmits<{ close: [] }>();

const SHOWN = 500;
const head = computed(() => props.rows[0] ?? []);
const body = computed(() => props.rows.slice(1, SHOWN + 1));
const short = (cell: string | number) => (typeof cell === 'number' ? formatValue(cell) : cell);
const texts = () => props.rows.map((row) => row.map(String));

async function copy(): Promise<void> {
  await navigator.clipboard.writeText(toDelimited(texts(), '\t'));
  ElMessage.success(`${groupThousands(props.rows.length - 1)} rows are on the clipboard, in full precision.`);
}
const save = () => saveFile(`${props.title}.csv`, toDelimited(texts(), ','), 'text/csv');
</script>

<template>
  <el-dialog :model-value="true" :title="title" width="720" append-to-body @close="emit('close')">
    <div class="scroll" tabindex="0">
      <table class="figures">
        <thead>
          <tr>
            <th v-for="(cell, i) in head" :key="i" :class="{ number: typeof rows[1]?.[i] === 'number' }">{{ cell }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in body" :key="i">
            <td v-for="(cell, k) in row" :key="k" :class="{ number: typeof cell === 'number' }">{{ short(cell) }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="rows.length - 1 > SHOWN" class="soft">
        The first {{ SHOWN }} of {{ groupThousands(rows.length - 1) }}; copying and saving give all.
      </p>
    </div>
    <template #footer>
      <el-button @click="copy">Copy as TSV</el-button>
      <el-button @click="save">Save as CSV</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.scroll {
  max-height: 56vh;
  overflow: auto;
}
</style>
