<script setup lang="ts">
import { ref, watch } from 'vue';

/**
 * Words that are typed. They are the analyst's until they are committed (Enter, or leaving the field): a value that arrives from elsewhere
 * meanwhile does not wipe out what is being typed, and Escape takes the value back. `live` commits every letter.
 */
const props = defineProps<{
  live?: boolean;
  multiline?: boolean;
  /** Enter leaves the field: what is pasted next is not meant for it. */
  leaves?: boolean;
  /** What was typed will not do. */
  wrong?: boolean;
}>();
const value = defineModel<string>({ required: true });

const draft = ref(value.value);
const touched = ref(false);
watch(value, (now) => {
  if (!touched.value || props.live) draft.value = now;
});

function onInput(): void {
  if (props.live) value.value = draft.value;
  else touched.value = true;
}
function commit(): void {
  if (!touched.value) return;
  touched.value = false;
  value.value = draft.value;
}
function onKey(event: KeyboardEvent | Event): void {
  const { key, target } = event as KeyboardEvent;
  if (key === 'Enter' && !props.multiline) {
    commit();
    if (props.leaves) (target as HTMLElement).blur();
  }
  if (key === 'Escape' && !props.live) {
    event.stopPropagation();
    touched.value = false;
    draft.value = value.value;
  }
}
const input = ref<{ focus(): void }>();
defineExpose({ focus: () => input.value?.focus() });
</script>

<template>
  <el-input
    ref="input"
    v-model="draft"
    :class="[multiline ? 'written' : 'field', { wrong }]"
    :type="multiline ? 'textarea' : 'text'"
    :aria-invalid="wrong"
    autocomplete="off"
    @input="onInput"
    @blur="commit"
    @keydown="onKey"
  />
</template>
