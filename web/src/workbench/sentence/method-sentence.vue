<script setup lang="ts">
import { fieldText, isField, visibleParts, type SentencePart } from '@verdict/core/road';
import { computed, ref, type Ref } from 'vue';
import { local } from '../../language/language.js';
import type { Run } from '../run/use-run.js';
import { rangeOf, shareSlip, typedValue, type FieldValue, type TypedInto } from '../run/field-values.js';
import SentenceChoice from '../../components/fields/sentence-choice.vue';
import SentenceChoices from '../../components/fields/sentence-choices.vue';
import SentenceText from '../../components/fields/sentence-text.vue';

/** The method as a sentence whose variable words are the controls. */
const props = defineProps<{
  run: Pick<Run, 'objection'> & {
    parts: Ref<readonly SentencePart[]>;
    address: Pick<Run['address'], 'set'>;
    request: Ref<object | null>;
  };
  subject: string;
  /** A part of the sentence, where the page shows it in several places; the whole by default. */
  parts?: readonly SentencePart[];
  /** The values of the fields, if they are not those of the request. */
  values?: object;
  /** Fields that are asked on this page already: here they are words. */
  said?: readonly string[];
  /** Why a field cannot take a value beside the others. */
  objection?: (field: string, value: FieldValue) => string | null;
  /** What a changed field changes, where it is not just itself. */
  change?: (field: string, value: FieldValue) => void;
}>();

const values = computed<Record<string, unknown>>(() => ({ ...(props.values ?? props.run.request.value) }));
const asked = computed(() => props.values !== undefined || props.run.request.value !== null);
const shown = computed(() => visibleParts(props.parts ?? props.run.parts.value, values.value));
/** The fault of a typed text, by field; the old value stays in force. */
const wrong = ref<Record<string, string>>({});

const textOf = (part: SentencePart | undefined) => {
  if (typeof part !== 'object') return part ?? '';
  return 'text' in part ? part.text : 'subject' in part ? props.subject : '';
};
/** A formula keeps the point, where a comma lies between arguments. */
const typedText = (part: TypedInto) => {
  const text = fieldText(part, values.value[part.field]);
  return part.type === 'text' ? text : local(text);
};
/** The marks that follow a field stay in its line: none begins the next one. */
const LEADING_MARKS = /^[.,;:)]+/;
const marksAfter = (i: number) => LEADING_MARKS.exec(textOf(shown.value[i + 1]))?.[0] ?? '';
const withoutMarks = (i: number) => {
  const before = shown.value[i - 1];
  const text = textOf(shown.value[i]);
  return before && isField(before) ? text.replace(LEADING_MARKS, '') : text;
};

function accept(field: TypedInto, text: string): void {
  const typed = typedValue(field, text);
  if (typed) take(field.field, typed.value);
  else say(field.field, `“${text}” is not valid: ${field.label} must be ${rangeOf(field)}.${shareSlip(field, text)}`);
}
const say = (field: string, text: string) => void (wrong.value = { ...wrong.value, [field]: text });

function take(field: string, value: FieldValue): void {
  const objection = (props.objection ?? props.run.objection)(field, value);
  if (objection) return say(field, objection);
  wrong.value = {};
  (props.change ?? props.run.address.set)(field, value);
}
</script>

<template>
  <p v-if="asked" class="sentence">
    <template v-for="(part, i) in shown" :key="i">
      <span v-if="isField(part)" class="held"
        ><template v-if="said?.includes(part.field)">{{ local(fieldText(part, values[part.field])) }}</template>
        <SentenceChoice
          v-else-if="part.type === 'choice'"
          :aria-label="part.label"
          :options="part.options.map((option) => ({ ...option, text: local(option.text) }))"
          :model-value="String(values[part.field])"
          @update:model-value="(value) => take(part.field, value)"
        />
        <SentenceChoices
          v-else-if="part.type === 'choices'"
          :aria-label="part.label"
          :options="part.options"
          :most="part.most"
          :model-value="(values[part.field] as string[]) ?? []"
          @update:model-value="(some) => take(part.field, some)"
        />
        <SentenceText
          v-else
          :wrong="!!wrong[part.field]"
          :aria-label="part.label"
          :model-value="typedText(part)"
          @update:model-value="(text) => accept(part, text)"
        />{{ marksAfter(i) }}</span
      >
      <span v-else-if="typeof part === 'object' && 'subject' in part" class="subject">{{ subject }}</span>
      <template v-else>{{ local(withoutMarks(i)) }}</template>
    </template>
    <span v-for="text in wrong" :key="text" class="said-wrong" role="alert"> {{ local(text) }}</span>
  </p>
</template>

<style scoped>
.sentence {
  margin: 0;
  font: 15px/1.75 var(--serif);
  white-space: pre-wrap;
}
.held {
  white-space: nowrap;
}
.subject {
  font: 500 14px var(--sans);
}
</style>
