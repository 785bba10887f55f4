<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';

/**
 * Words that are typed. They are the analyst's until they are committed (Enter, or leaving the field): a value that arrives from elsewhere
 * meanwhile does not wipe out what is being typed, and Escape takes the value back. `live` commits every letter.
 */
const props = defineProps<{
  live?: boolean;
  multiline?: boolean;
  /** Enter leaves the field: what is pasted next is not meant for it. */
  leaves?: boolean;
  /** An emptied field is told as such, and what stood there comes back. */
  needed?: boolean;
  /** What was typed will not do. */
  wrong?: boolean;
  /** How a text is shown while nobody is at it; it stands in full once somebody is. */
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

/** As wide as its short text while somebody is at the full one: what stands behind it must not move away under the pointer. */
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
