<script setup lang="ts">
import { formatValue, groupThousands } from '@verdict/core/format';
import { toDelimited } from '@verdict/core/readings';
import { useElementSize } from '@vueuse/core';
import { ElMessage, type Column } from 'element-plus';
import { computed, h, ref } from 'vue';
import { saveFile } from '../../files/save-file.js';
import { local } from '../../language/language.js';
import type { Rows } from './rows.js';

/** A table of full values: looked at in short, all of it, copied and saved in full. */
const props = defineProps<{ title: string; rows: Rows }>();
const emit = defineEmits<{ close: [] }>();

const LEAST_WIDTH = 88;
const LINE = 30;
const HEAD = 44;
const box = ref<HTMLElement>();
const { width } = useElementSize(box);

const head = computed(() => props.rows[0] ?? []);
const body = computed(() => props.rows.slice(1));
const isNumber = (i: number) => typeof props.rows[1]?.[i] === 'number';
const short = (cell: string | number) => (typeof cell === 'number' ? local(formatValue(cell)) : cell);
const columns = computed<Column<string | number>[]>(() =>
  head.value.map((cell, i) => ({
    key: i,
    title: String(cell),
    dataKey: String(i),
    width: Math.max(LEAST_WIDTH, Math.floor(width.value / head.value.length)),
    align: isNumber(i) ? 'right' : 'left',
    cellRenderer: ({ cellData }: { cellData: string | number }) =>
      h(
        'span',
        { class: 'table-cell', title: typeof cellData === 'number' ? local(String(cellData)) : cellData },
        short(cellData),
      ),
  })),
);
const texts = () => props.rows.map((row) => row.map(String));

async function copy(): Promise<void> {
  await navigator.clipboard.writeText(toDelimited(texts(), '\t'));
  ElMessage.success(`${groupThousands(body.value.length)} rows were copied in full precision.`);
}
const save = () => saveFile(`${props.title}.csv`, toDelimited(texts(), ','), 'text/csv');
</script>

<template>
  <el-dialog :model-value="true" :title="title" width="760" append-to-body @close="emit('close')">
    <div ref="box">
      <el-table-v2
        v-if="width"
        :columns="columns"
        :data="body as (string | number)[][]"
        :width="width"
        :height="Math.min(430, body.length * LINE + HEAD + 12)"
        :row-height="LINE"
        :header-height="HEAD"
      />
    </div>
    <template #footer>
      <span class="soft count">{{ groupThousands(body.length) }} {{ body.length === 1 ? 'row' : 'rows' }}</span>
      <el-button @click="copy">Copy as TSV</el-button>
      <el-button @click="save">Save as CSV</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
/* A long text stands on one line and in full in its title. */
:deep(.table-cell) {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.count {
  float: left;
}
</style>
