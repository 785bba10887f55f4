<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { useParts } from './use-parts.js';
import SentenceChoice from '../../components/fields/sentence-choice.vue';

/** By what the subject is split: the levels of a label column, or other columns beside it. */
const { labels, others, split, beside, splitBy, putBeside } = useParts();
const BESIDE = 'beside';
const MOST_BESIDE = 11;

/** Other columns are wanted, though none is chosen yet. */
const wanted = ref(false);
const choice = computed(() => split.value?.id ?? (beside.value.length > 0 || wanted.value ? BESIDE : ''));
watch(split, () => (wanted.value = false));

function choose(value: string): void {
  wanted.value = value === BESIDE;
  if (value !== BESIDE) splitBy(value);
  else putBeside(others.value[0] ? [others.value[0].id] : []);
}
const ids = computed(() => beside.value.map(({ id }) => id));
</script>

<template>
  <template v-if="labels.length || others.length">
    <label class="soft"
      >split by
      <SentenceChoice
        aria-label="Split by"
        :model-value="choice"
        :options="[
          { value: '', text: 'nothing' },
          ...labels.map((column) => ({ value: column.id, text: column.name })),
          ...(others.length ? [{ value: BESIDE, text: 'columns to compare' }] : []),
        ]"
        @update:model-value="choose"
    /></label>
    <el-select
      v-if="choice === BESIDE"
      class="beside"
      multiple
      collapse-tags
      size="small"
      :multiple-limit="MOST_BESIDE"
      aria-label="Columns to compare with the subject"
      placeholder="which columns"
      :model-value="ids"
      @update:model-value="putBeside"
    >
      <el-option v-for="column in others" :key="column.id" :value="column.id" :label="column.name" />
    </el-select>
  </template>
</template>

<style scoped>
.beside {
  width: 190px;
}
</style>
