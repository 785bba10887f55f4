<script setup lang="ts">
import type { Described, DescribeResult } from '@verdict/core/analyses';
import { toDelimited } from '@verdict/core/readings';
import { ElMessage } from 'element-plus';
import { computed } from 'vue';
import { saveFile } from '../../files/save-file.js';
import { FIGURE_GROUPS, FIGURES, percentileFigures } from '@verdict/core/analyses';
import { local } from '../../language/language.js';

/** Every figure with its meaning and formula, or one row a group; copied and saved in full precision. */
const props = defineProps<{ result: DescribeResult; subject: string }>();
const emit = defineEmits<{ close: [] }>();

const figures = computed(() => [...FIGURES, ...percentileFigures(props.result)]);
const inGroup = (group: string) => figures.value.filter((figure) => figure.group === group);
const described = computed<Described[]>(() => props.result.groups ?? [props.result]);
const counts = ({ n, missing, setAside }: Described) => [n, missing, setAside].map(String);

/** One row a column or group, a figure in each column, two where it has two ends. */
const rows = computed(() => {
  const ends = (key: string, count: number) =>
    count === 1 ? [key] : [`${key}.lower`, `${key}.upper`, `${key}.coverage`].slice(0, count);
  const widths = figures.value.map(({ key, values }) =>
    key === 'modes' ? 1 : Math.max(1, ...described.value.map((d) => values(d).length)),
  );
  const head = ['name', 'n', 'missing', 'setAside', ...figures.value.flatMap(({ key }, i) => ends(key, widths[i]!))];
  const lines = described.value.map((d) => [
    d.name,
    ...counts(d),
    ...figures.value.flatMap(({ key, values }, i) => {
      const found = values(d).map((value) => (value === null ? '' : String(value)));
      if (key === 'modes') return [found.join(' ')];
      return Array.from({ length: widths[i]! }, (_, k) => found[k] ?? '');
    }),
  ]);
  // A single column reads better down the page: one figure a row.
  return props.result.groups ? [head, ...lines] : head.map((name, i) => [name, lines[0]![i]!]);
});

async function copy(): Promise<void> {
  await navigator.clipboard.writeText(toDelimited(rows.value, '\t'));
  ElMessage.success('The figures were copied in full precision.');
}
const save = () => saveFile(`figures of ${props.subject}.csv`, toDelimited(rows.value, ','), 'text/csv');
</script>

<template>
  <el-dialog :model-value="true" :title="`All figures of ${subject}`" width="900" append-to-body @close="emit('close')">
    <div class="scroll" tabindex="0">
      <table v-if="result.groups" class="figures beside">
        <thead>
          <tr>
            <th>{{ result.by ?? 'column' }}</th>
            <th v-for="group in described" :key="group.name" class="number">{{ group.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>n</td>
            <td v-for="group in described" :key="group.name" class="number">{{ group.n }}</td>
          </tr>
          <tr v-for="figure in figures" :key="figure.key">
            <td>
              {{ figure.name }}
              <small class="soft"
                >{{ local(figure.meaning) }} <span class="formula">{{ local(figure.formula) }}</span></small
              >
            </td>
            <td v-for="group in described" :key="group.name" class="number">{{ local(figure.text(group)) }}</td>
          </tr>
        </tbody>
      </table>
      <template v-else>
        <table v-for="group in FIGURE_GROUPS" :key="group" class="figures plain-figures">
          <thead>
            <tr>
              <th class="named">{{ group }}</th>
              <th class="number"></th>
              <th>meaning</th>
              <th>formula</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="figure in inGroup(group)" :key="figure.key">
              <td class="named">{{ figure.name }}</td>
              <td class="number">{{ local(figure.text(result)) }}</td>
              <td class="soft">{{ local(figure.meaning) }}</td>
              <td class="formula">{{ local(figure.formula) }}</td>
            </tr>
          </tbody>
        </table>
      </template>
    </div>
    <template #footer>
      <el-button @click="copy">Copy as TSV</el-button>
      <el-button @click="save">Save as CSV</el-button>
    </template>
  </el-dialog>
</template>

<style scoped>
.scroll {
  max-height: 60vh;
  overflow: auto;
}
.figures {
  margin-bottom: 10px;
  font-size: 13px;
}
.beside td:first-child,
.beside th:first-child {
  position: sticky;
  left: 0;
  min-width: 240px;
  background: var(--card);
}
small {
  display: block;
  font-size: 12px;
}
.plain-figures {
  table-layout: fixed;
}
.plain-figures th:nth-child(1) {
  width: 200px;
}
.plain-figures th:nth-child(2) {
  width: 220px;
}
.plain-figures th:nth-child(4) {
  width: 200px;
}
.plain-figures td:nth-child(3) {
  padding-left: 14px;
}
th.named {
  color: var(--ink);
  font-weight: 600;
}
.formula {
  font-family: var(--serif);
}
</style>
