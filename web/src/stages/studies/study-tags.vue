<script setup lang="ts">
import { nextTick, ref } from 'vue';

/** The tags of a study, and a place to change them. */
const props = defineProps<{ tags: readonly string[]; known: readonly string[]; name: string; locked: boolean }>();
const emit = defineEmits<{ change: [tags: string[]]; choose: [tag: string] }>();

const MOST = 12;
const editing = ref(false);
const drafted = ref<string[]>([]);
const field = ref<{ focus(): void }>();

async function edit(): Promise<void> {
  drafted.value = [...props.tags];
  editing.value = true;
  await nextTick();
  field.value?.focus();
}
function done(): void {
  if (!editing.value) return;
  editing.value = false;
  const tags = [...new Set(drafted.value.map((tag) => tag.trim().slice(0, 30)).filter(Boolean))].slice(0, MOST);
  if (tags.join('\n') !== props.tags.join('\n')) emit('change', tags);
}
</script>

<template>
  <el-select
    v-if="editing"
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
    :aria-label="`Tags of ${name}`"
    placeholder="type a tag, Enter"
    @blur="done"
    @keydown.escape.stop="done"
  >
    <el-option v-for="tag in known" :key="tag" :value="tag" :label="tag" />
  </el-select>
  <span v-else class="tags">
    <el-button v-for="tag in tags" :key="tag" class="tag" link @click="emit('choose', tag)">{{ tag }}</el-button>
    <el-button v-if="!locked" class="more" link :aria-label="`Tags of ${name}`" @click="edit">{{
      tags.length ? '±' : '+ tag'
    }}</el-button>
  </span>
</template>

<style scoped>
.tags {
  display: inline-flex;
  margin-left: 10px;
  vertical-align: baseline;
  flex-wrap: wrap;
  gap: 2px 6px;
}
.tag.tag.tag {
  border-radius: 9px;
  padding: 0 8px;
  background: var(--tint);
  color: var(--ink);
  font-size: 12px;
}
.more.more.more {
  font-size: 12px;
}
.edited {
  width: 260px;
}
</style>
