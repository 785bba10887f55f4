<script setup lang="ts">
/** Which of the columns are looked at together. */
defineProps<{ split: boolean; numeric: readonly { id: string; name: string }[] }>();
const chosen = defineModel<string[]>({ required: true });
</script>

<template>
  <label v-if="!split && numeric.length > 1" class="chosen"
    >Columns
    <el-select v-model="chosen" multiple collapse-tags filterable size="small" aria-label="Columns analysed">
      <el-option v-for="{ id, name } in numeric" :key="id" :value="id" :label="name" />
    </el-select>
  </label>
  <p v-if="!split && numeric.length === 1" class="soft">
    There is one number column. Split it in the bar above to compare its groups.
  </p>
</template>

<style scoped>
.chosen {
  display: flex;
  gap: 10px;
  align-items: center;
  font-size: 13px;
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
