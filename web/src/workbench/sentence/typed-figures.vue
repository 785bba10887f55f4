<script setup lang="ts">
import type { TypedField } from '@verdict/core/analyses';
import SentenceText from '../../components/fields/sentence-text.vue';
import { local } from '../../language/language.js';

/** Figures that are typed in place of readings: what a certificate gives. */
const { texts } = defineProps<{
  fields: readonly TypedField[];
  texts: Readonly<Record<string, string>>;
  /** The field at fault, and why. */
  fault: { field: string; problem: string };
}>();
const emit = defineEmits<{ set: [key: string, text: string] }>();
/** An empty field is asked for, not at fault. */
const asked = ({ field }: { field: string }) => (texts[field] ?? '').trim() === '';
</script>

<template>
  <p class="typed">
    <label v-for="{ key, label, example, optional } in fields" :key="key" class="soft"
      >{{ label }}
      <SentenceText
        :class="{ long: example.length > 8 }"
        :model-value="texts[key] ?? ''"
        :aria-label="label"
        :placeholder="local(optional ? `${example} (if known)` : example)"
        :wrong="fault.field === key && !asked(fault)"
        @update:model-value="(text: string) => emit('set', key, text)"
    /></label>
    <span v-if="fault.problem" :class="asked(fault) ? 'soft' : 'said-wrong'" role="status">{{
      local(fault.problem)
    }}</span>
  </p>
</template>

<style scoped>
.typed {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  margin: 0;
  font-size: 13px;
}
.long {
  width: 300px;
}
</style>
