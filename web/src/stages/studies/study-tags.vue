<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue';

/** The tags of a study, and a place to change them, fetched when it is asked for. */
const TagsField = defineAsyncComponent(() => import('./tags-field.vue'));
const props = defineProps<{ tags: readonly string[]; known: readonly string[]; name: string; locked: boolean }>();
const emit = defineEmits<{ change: [tags: string[]]; choose: [tag: string] }>();

const editing = ref(false);
function done(tags: string[]): void {
  editing.value = false;
  if (tags.join('\n') !== props.tags.join('\n')) emit('change', tags);
}
</script>

<template>
  <TagsField v-if="editing" :tags="tags" :known="known" :label="`Tags of ${name}`" @done="done" />
  <span v-else class="tags">
    <!-- Plain buttons: a list of studies has hundreds, and those of the component library cost ten times as much. -->
    <button v-for="tag in tags" :key="tag" class="tag" type="button" @click="emit('choose', tag)">{{ tag }}</button>
    <button v-if="!locked" class="more" type="button" :aria-label="`Tags of ${name}`" @click="editing = true">
      {{ tags.length ? 'edit' : '+ tag' }}
    </button>
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
.tag,
.more {
  border: 0;
  padding: 0 4px;
  background: none;
  color: var(--soft);
  font: 12px/1.6 var(--sans);
  cursor: pointer;
}
.tag:hover,
.more:hover {
  color: var(--green);
}
.tag {
  border-radius: 9px;
  padding: 0 8px;
  background: var(--tint);
  color: var(--ink);
}
</style>
