<script setup lang="ts">
import { groupThousands } from '@verdict/core/format';
import { computed } from 'vue';
import type { Found } from './use-found.js';

/** Narrows the list of studies: by words, and by a tag. */
const { found } = defineProps<{ found: Found }>();

const MOST_TAGS = 10;
const tags = computed(() => {
  const some = found.tags.value.slice(0, MOST_TAGS);
  const { tag } = found.wanted.value;
  return tag && !some.some((one) => one.tag === tag) ? [{ tag, count: 0 }, ...some] : some;
});
const toggle = (tag: string) => found.chooseTag(found.wanted.value.tag === tag ? null : tag);
const count = computed(() => {
  const n = found.all.value.length;
  return `${groupThousands(n)} ${n === 1 ? 'study' : 'studies'}`;
});
</script>

<template>
  <div class="search">
    <el-input
      class="words"
      :model-value="found.wanted.value.text"
      aria-label="Search the studies"
      placeholder="name, column, question, decision, who"
      clearable
      @input="found.search"
    />
    <span v-if="tags.length" role="group" aria-label="Tags" class="tags">
      <el-check-tag
        v-for="{ tag, count: used } in tags"
        :key="tag"
        role="button"
        tabindex="0"
        :aria-pressed="found.wanted.value.tag === tag"
        :checked="found.wanted.value.tag === tag"
        @change="(on: boolean) => found.chooseTag(on ? tag : null)"
        @keydown.enter="toggle(tag)"
        @keydown.space.prevent="toggle(tag)"
        >{{ tag }} {{ used || '' }}</el-check-tag
      >
    </span>
    <span class="soft count" role="status">{{ count }}</span>
  </div>
</template>

<style scoped>
.search {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
}
.words {
  width: 340px;
  max-width: 100%;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.tags :deep(.el-check-tag) {
  padding: 4px 10px;
  border-radius: 11px;
  background: var(--head-cell);
  color: var(--ink);
  font-size: 12px;
  font-weight: 400;
}
.tags :deep(.el-check-tag.is-checked) {
  background: var(--green);
  color: var(--card);
}
.count {
  margin-left: auto;
  font-size: 13px;
}
</style>
