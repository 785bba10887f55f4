<script setup lang="ts">
/** Several words of a sentence, chosen from a list that can be searched by typing; one always stays. */
const props = defineProps<{ options: readonly { value: string; text: string }[]; most: number }>();
const chosen = defineModel<readonly string[]>({ required: true });
const set = (some: string[]) => {
  if (some.length > 0) chosen.value = some;
};
const isFull = (value: string) => chosen.value.length >= props.most && !chosen.value.includes(value);
</script>

<template>
  <el-select
    class="field choices-field"
    popper-class="choices"
    :model-value="[...chosen]"
    multiple
    filterable
    :fit-input-width="false"
    :show-arrow="false"
    no-match-text="no match"
    @update:model-value="set"
  >
    <el-option
      v-for="{ value, text } in options"
      :key="value"
      :value="value"
      :label="text"
      :data-value="value"
      :disabled="isFull(value)"
    />
  </el-select>
</template>

<style scoped>
.choices-field {
  width: fit-content;
  min-width: 160px;
  max-width: min(760px, 88vw);
}
.choices-field :deep(.el-tag) {
  height: 24px;
  padding: 0 4px 0 8px;
  color: var(--ink);
  font: 500 13px var(--sans);
  background: var(--tint);
}
.choices-field :deep(.el-select__suffix) {
  display: none;
}
</style>
