<script setup lang="ts">
import { nextTick, onMounted, ref } from 'vue';

/** Tags as they are typed; what stands there is taken when the field is left. */
const props = defineProps<{ tags: readonly string[]; known: readonly string[]; label: string }>();
const emit = defineEmits<{ done: [tags: string[]] }>();

const MOST = 12;
const drafted = ref([...props.tags]);
const field = ref<{ focus(): void }>();
let left = false;

onMounted(async () => {
  await nextTick();
  field.value?.focus();
});
function leave(): void {
  if (left) return;
  left = true;
  const tags = drafted.value.map((tag) => tag.trim().slice(0, 30)).filter(Boolean);
  emit('done', [...new Set(tags)].slice(0, MOST));
}
</script>

<template>
  <el-select
    ref="field"
    v-model="drafted"
    class="edited"
    size="small"
    multiple
    filterable
    allow-create
    default-first-option
    :multiple-limit="MOST"
    :reserve-keyword="false"
    :aria-label="label"
    placeholder="type a tag, Enter"
    @blur="leave"
  >
    <el-option v-for="tag in known" :key="tag" :value="tag" :label="tag" />
  </el-select>
</template>

<style scoped>
.edited {
  width: 260px;
}
.edited :deep(.el-tag) {
  --el-tag-text-color: var(--ink);
}
</style>
