<script setup lang="ts">
import { fieldText, isField, visibleParts, type Field, type SentencePart } from '@verdict/core/road';
import { computed, ref } from 'vue';
import { rangeOf, typedValue, type FieldValue } from '../composables/field-values.js';
import DraftField from './draft-field.vue';

/** The method as a sentence whose variable words are the controls. */
const props = defineProps<{
  parts: readonly SentencePart[];
  values: Record<string, unknown>;
  subject: string;
  /** Why a field cannot take a value beside the others. */
  objection?: (field: string, value: FieldValue) => string | null;
}>();
const emit = defineEmits<{ change: [field: string, value: FieldValue] }>();

const shown = computed(() => visibleParts(props.parts, props.values));
/** What is wrong with what was typed, by field; the old value stays in force. */
const wrong = ref<Record<string, string>>({});

const textOf = (part: SentencePart) =>
  typeof part === 'string' ? part : 'text' in part ? part.text : 'subject' in part ? props.subject : '';

function accept(field: Exclude<Field, { type: 'choice' }>, text: string): void {
  const typed = typedValue(field, text);
  if (typed) take(field.field, typed.value);
  else say(field.field, `“${text}” will not do: ${field.label} takes ${rangeOf(field)}.`);
}
const say = (field: string, text: string) => void (wrong.value = { ...wrong.value, [field]: text });

function take(field: string, value: FieldValue): void {
  const objection = props.objection?.(field, value);
  if (objection) return say(field, objection);
  wrong.value = {};
  emit('change', field, value);
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
        @change="take(part.field, ($event.target as HTMLSelectElement).value)"
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
