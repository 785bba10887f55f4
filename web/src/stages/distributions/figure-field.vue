<script setup lang="ts">
/** A figure of the sentence: what is typed counts at once, whether it can be read or not. */
defineProps<{ label: string; value: string | undefined; wrong: boolean; hint?: string }>();
const emit = defineEmits<{ typed: [text: string] }>();
</script>

<template>
  <input
    class="field"
    :class="{ wrong }"
    autocomplete="off"
    :aria-label="label"
    :aria-invalid="wrong"
    :title="hint"
    :value="value"
    @input="emit('typed', ($event.target as HTMLInputElement).value)"
  />
</template>

<style scoped>
.field {
  max-width: 100%;
  margin-left: 3px;
}
</style>
