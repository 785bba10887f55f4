<script setup lang="ts">
import { ref, watch } from 'vue';

/**
 * A field whose text is the analyst's until it is committed (Enter, or leaving it). A value that arrives from elsewhere meanwhile does not
 * wipe out what is being typed; Escape takes the value back.
 */
const props = defineProps<{
  value: string;
  multiline?: boolean;
  /** Enter leaves the field: what is pasted next is not meant for it. */
  leaves?: boolean;
}>();
const emit = defineEmits<{ commit: [text: string] }>();

const draft = ref(props.value);
const touched = ref(false);
watch(
  () => props.value,
  (value) => {
    if (!touched.value) draft.value = value;
  },
);

function commit(): void {
  if (!touched.value) return;
  touched.value = false;
  emit('commit', draft.value);
}
function enter(event: KeyboardEvent): void {
  commit();
  if (props.leaves) (event.target as HTMLElement).blur();
}
function revert(): void {
  touched.value = false;
  draft.value = props.value;
}
</script>

<template>
  <textarea
    v-if="multiline"
    v-model="draft"
    @input="touched = true"
    @blur="commit"
    @keydown.esc.stop="revert"
  ></textarea>
  <input
    v-else
    v-model="draft"
    autocomplete="off"
    @input="touched = true"
    @blur="commit"
    @keydown.enter="enter"
    @keydown.esc.stop="revert"
  />
</template>
