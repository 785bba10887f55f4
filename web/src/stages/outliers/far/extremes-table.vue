<script setup lang="ts">
import type { ExtremeRow } from '@verdict/core/analyses';
import { computed, ref, watch } from 'vue';
import { local } from '../../../language/language.js';

/** The most extreme readings; pointing at one points at it in the picture, pressing its number holds it. */
const props = defineProps<{
  rows: readonly ExtremeRow[];
  /** The row pointed at in the picture. */
  pointed: number | null;
  canSetAside: boolean;
}>();
const emit = defineEmits<{ point: [row: number]; aside: [row: number]; table: [rows: readonly number[]] }>();
const labelled = computed(() => props.rows.some(({ group }) => group !== ''));
const slips = computed(() => props.rows.filter((row) => row.slips.length > 0 && (row.named || row.fence !== '')));
/** The row whose number was pressed: on the way to its buttons the mouse passes over others. */
const held = ref<number | null>(null);
watch(
  () => props.pointed,
  (row) => row !== held.value && (held.value = null),
);
function pass(row: number): void {
  if (held.value === null) emit('point', row);
}
function hold(row: number): void {
  held.value = row;
  emit('point', row);
}
const chosen = computed(() => props.rows.find(({ row }) => row === props.pointed) ?? null);
</script>

<template>
  <div class="card box">
    <table class="figures">
      <thead>
        <tr>
          <th>row</th>
          <th class="number">value</th>
          <th v-if="labelled">label</th>
          <th
            class="number"
            title="(x − mean)/SD; in brackets without the more extreme readings, so that one outlier does not mask the next"
          >
            z
          </th>
          <th class="number" :title="local('0.6745 · (x − median)/MAD')">modified z</th>
          <th :title="local('Outside: more than 1.5 IQR beyond a quartile; beyond the outer fence: more than 3 IQR')">
            fence
          </th>
          <th
            class="number"
            title="The probability of a reading at least as extreme in this position in clean samples of this size, without the readings above it"
          >
            probability
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="row in rows"
          :key="row.row"
          :class="{ named: row.named, pointed: row.row === pointed }"
          @mouseenter="pass(row.row)"
        >
          <td>
            <el-button link :aria-pressed="row.row === pointed" @click="hold(row.row)">{{ row.row }}</el-button>
          </td>
          <td class="number">{{ local(row.value) }}</td>
          <td v-if="labelled" class="label" :title="row.group">{{ row.group }}</td>
          <td class="number">{{ local(row.z) }}{{ row.zWithout === row.z ? '' : ` (${local(row.zWithout)})` }}</td>
          <td class="number">{{ local(row.modifiedZ) }}</td>
          <td>{{ row.fence }}</td>
          <td class="number">{{ local(row.probability) }}</td>
        </tr>
      </tbody>
    </table>
    <p class="do">
      <template v-if="chosen">
        <span>Row {{ chosen.row }}, {{ local(chosen.value) }}</span>
        <el-button v-if="canSetAside" link @click="emit('aside', chosen.row)">Set aside …</el-button>
        <slot name="chosen" :row="chosen.row" />
        <el-button link @click="emit('table', [chosen.row])">Show in the table</el-button>
      </template>
      <span v-else class="soft">Point at a row, here or in the picture.</span>
    </p>
    <p v-for="row in slips" :key="row.row" class="slip">
      Row {{ row.row }}, {{ local(row.value) }}: possible typing error.
      {{ local(row.slips.map(({ words }) => words).join('; or ')) }} would fit. Nothing is changed automatically.
      <el-button link @click="emit('table', [row.row])">Correct it in the table</el-button>
    </p>
  </div>
</template>

<style scoped>
.box {
  padding: 6px 14px;
  font-size: 13px;
}
table {
  width: 100%;
}
th {
  font-weight: 400;
}
table.figures td {
  padding-top: 2px;
  padding-bottom: 2px;
}
.named td {
  color: var(--ochre-text);
  font-weight: 600;
}
.pointed td {
  background: var(--tint);
}
td .el-button.is-link {
  padding: 0;
  border: 0;
  color: inherit;
  font-weight: inherit;
}
.label {
  max-width: 84px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.do {
  display: flex;
  gap: 10px;
  align-items: baseline;
  min-height: 22px;
  margin: 6px 0 0;
}
.slip {
  margin: 6px 0 0;
  border-left: 3px solid var(--ochre);
  padding-left: 8px;
}
</style>
