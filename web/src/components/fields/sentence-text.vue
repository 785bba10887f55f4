<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';

/**
 * A text field in a sentence. The text is committed with Enter or on leaving the field: until then a value that arrives from elsewhere does not
 * overwrite it, and Escape restores the value. `live` commits every letter.
 */
const props = defineProps<{
  live?: boolean;
  multiline?: boolean;
  /** Enter leaves the field, so that a following paste does not go into it. */
  leaves?: boolean;
  /** An emptied field is reported, and its former value returns. */
  needed?: boolean;
  /** The typed text is invalid. */
  wrong?: boolean;
  /** How the text is shown without focus; with focus it is shown in full. */
  short?: (text: string) => string;
}>();
const value = defineModel<string>({ required: true });
const emit = defineEmits<{ emptied: [] }>();

const draft = ref(value.value);
const focused = ref(false);
const shown = computed(() => (props.short && !focused.value ? props.short(draft.value) : draft.value));
const touched = ref(false);
watch(value, (now) => {
  if (!touched.value || props.live) draft.value = now;
});

/** As wide as the short text while the full one is edited, so that what follows does not move under the pointer. */
const fixed = ref<{ width: string; fieldSizing: 'fixed' }>();
async function enter(event: FocusEvent): Promise<void> {
  const field = event.target as HTMLInputElement;
  const isShort = shown.value !== draft.value;
  if (isShort) fixed.value = { width: `${field.offsetWidth}px`, fieldSizing: 'fixed' };
  focused.value = true;
  await nextTick();
  // Another text takes the selection with it: what is typed next would be added to the number.
  if (isShort) field.select();
}
function onInput(text: string): void {
  fixed.value = undefined;
  draft.value = text;
  if (props.live) value.value = draft.value;
  else touched.value = true;
}
function commit(): void {
  if (!touched.value) return;
  touched.value = false;
  if (props.needed && draft.value.trim() === '') {
    draft.value = value.value;
    emit('emptied');
  } else value.value = draft.value;
}
function leave(): void {
  focused.value = false;
  fixed.value = undefined;
  commit();
}
function onKey(event: KeyboardEvent | Event): void {
  const { key, target } = event as KeyboardEvent;
  if (key === 'Enter' && !props.multiline) {
    commit();
    if (props.leaves) (target as HTMLElement).blur();
  }
  if (key === 'Escape' && !props.live) {
    event.stopPropagation();
    // Once more leaves the field, so that single letters are keys of the stage again.
    if (!touched.value) (target as HTMLElement).blur();
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
    :model-value="shown"
    :class="[multiline ? 'written' : 'field', { wrong }]"
    :type="multiline ? 'textarea' : 'text'"
    :aria-invalid="wrong"
    :input-style="fixed"
    autocomplete="off"
    @input="onInput"
    @focus="enter"
    @blur="leave"
    @keydown="onKey"
  />
</template>
