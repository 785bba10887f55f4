<script setup lang="ts">
import { fieldText, isField, visibleParts, type Field, type SentencePart } from '@verdict/core';
import { computed, ref } from 'vue';
import { rangeOf, typedValue, type FieldValue } from '../composables/field-values.js';
import DraftField from './draft-field.vue';

/** The method as a sentence whose variable words are the controls. */
const props = defineProps<{
  parts: readonly SentencePart[];
  values: Record<string, unknown>;
  subject: string;
}>();
const emit = defineEmits<{ change: [field: string, value: FieldValue] }>();

const shown = computed(() => visibleParts(props.parts, props.values));
/** What is wrong with what was typed, by field; the old value stays in force. */
const wrong = ref<Record<string, string>>({});

const textOf = (part: SentencePart) =>
  typeof part === 'string' ? part : 'text' in part ? part.text : 'subject' in part ? props.subject : '';

function accept(field: Exclude<Field, { type: 'choice' }>, text: string): void {
  const typed = typedValue(field, text);
  if (!typed) {
    wrong.value = { ...wrong.value, [field.field]: `“${text}” will not do: ${field.label} takes ${rangeOf(field)}.` };
    return;
  }
  const { [field.field]: _, ...others } = wrong.value;
  wrong.value = others;
  emit('change', field.field, typed.value);
}
</script>

<template>
  <p class="sentence">
    <template v-for="(part, i) in shown" :key="i">
      <select
        v-if="isField(part) && part.type === 'choice'"
        class="field"
        :aria-label="part.label"
        :value="values[part.field]"
        @change="emit('change', part.field, ($event.target as HTMLSelectElement).value)"
      >
        <option v-for="option in part.options" :key="option.value" :value="option.value">{{ option.text }}</option>
      </select>
      <DraftField
        v-else-if="isField(part)"
        class="field"
        :class="{ wrong: wrong[part.field] }"
        :aria-label="part.label"
        :aria-invalid="part.field in wrong"
        :size="Math.max(3, fieldText(part, values[part.field]).length)"
        :value="fieldText(part, values[part.field])"
        @commit="(text) => accept(part, text)"
      />
      <span v-else-if="typeof part === 'object' && 'subject' in part" class="subject">{{ subject }}</span>
      <template v-else>{{ textOf(part) }}</template>
    </template>
    <span v-for="text in wrong" :key="text" class="said-wrong" role="alert"> {{ text }}</span>
  </p>
</template>

<style scoped>
.sentence {
  margin: 0;
  font: 15px/1.75 var(--serif);
  white-space: pre-wrap;
}
.subject {
  font: 500 14px var(--sans);
}
</style>
