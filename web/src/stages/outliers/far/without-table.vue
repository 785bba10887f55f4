<script setup lang="ts">
import { WITHOUT_COLUMNS, withoutFigures, type OutliersResult } from '@verdict/core/analyses';
import { formatFigure } from '@verdict/core/format';
import { computed, ref } from 'vue';
import FigureTable from '../../../components/figures/figure-table.vue';

/** What changes without the named readings: all of them together, or one alone. */
const props = defineProps<{ result: OutliersResult }>();
const ALL = 'all';
const which = ref<string>(ALL);
const found = computed(() => props.result.without);
const choices = computed(() => [
  ...(found.value?.all && found.value.each.length > 1 ? [{ value: ALL, label: `all ${found.value.each.length}` }] : []),
  ...(found.value?.each ?? []).map(({ row, value }) => ({
    value: String(row),
    label: `row ${row} (${formatFigure(value, 'reading', props.result.resolution)})`,
  })),
]);
const after = computed(() => {
  const { value: of } = found;
  if (!of) return null;
  return of.each.find(({ row }) => String(row) === which.value)?.after ?? of.all;
});
const rows = computed(() =>
  found.value && after.value ? withoutFigures(props.result, found.value.before, after.value) : [],
);
</script>

<template>
  <div class="card box">
    <p v-if="!found" class="soft" aria-busy="true">The test is still running.</p>
    <p v-else-if="!found.all" class="soft">
      The rule of the study flags no reading, so nothing changes. The influence of each reading is shown under
      Influence, above the picture.
    </p>
    <template v-else>
      <label v-if="choices.length > 1" class="which"
        >Without
        <el-select v-model="which" size="small" aria-label="Readings left out">
          <el-option v-for="choice in choices" :key="choice.value" :value="choice.value" :label="choice.label" />
        </el-select>
      </label>
      <FigureTable :rows="rows" :heads="WITHOUT_COLUMNS" />
    </template>
  </div>
</template>

<style scoped>
.box {
  padding: 6px 14px;
  font-size: 13px;
}
p {
  margin: 4px 0;
}
.which {
  display: flex;
  gap: 10px;
  align-items: center;
}
.which .el-select {
  width: 200px;
}
</style>
