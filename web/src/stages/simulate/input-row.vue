<script setup lang="ts">
import type { StudyColumn } from '@verdict/contract';
import { FAMILIES, familyByName, parameterFaults, type Parameters } from '@verdict/core/distributions';
import { fieldText } from '@verdict/core/road';
import { computed, ref } from 'vue';
import SentenceChoice from '../../components/fields/sentence-choice.vue';
import SentenceText from '../../components/fields/sentence-text.vue';
import { local } from '../../language/language.js';
import { typedValue } from '../../workbench/run/field-values.js';
import type { InputRow } from './use-inputs.js';

/** One input of a formula: of a law, or from the readings of a column have it. */
const props = defineProps<{ row: InputRow; columns: readonly StudyColumn[] }>();
const emit = defineEmits<{ law: [family: string, parameters: Parameters]; column: [id: string | null] }>();
const LAW = '';
const sources = computed(() => [
  { value: LAW, text: 'from a distribution, the' },
  ...props.columns.map(({ id, name }) => ({ value: id, text: `from the readings of ${name}` })),
]);
const families = FAMILIES.map(({ family: value, title: text }) => ({ value, text }));
const usual = (family: string): Parameters =>
  Object.fromEntries(familyByName(family).parameters.map(({ name, usual: value }) => [name, value]));
const field = computed(() => ({
  ...{ field: 'parameters', type: 'parameters' as const, empty: '' },
  label: `parameters of ${props.row.name}`,
}));
const wrong = ref('');
function typed(text: string): void {
  const read = typedValue(field.value, text);
  const numbers = (read?.value ?? []) as readonly number[];
  const specs = familyByName(props.row.family).parameters;
  const needed = specs.filter(({ optional }) => !optional).length;
  if (numbers.length < needed || numbers.length > specs.length) {
    wrong.value = `“${text}” is not valid. Enter ${specs.map(({ title }) => title).join(', ')}, in this order.`;
    return;
  }
  const given = Object.fromEntries(specs.map(({ name, usual: value }, i) => [name, numbers[i] ?? value]));
  const [fault] = parameterFaults(familyByName(props.row.family), given);
  wrong.value = fault?.message ?? '';
  if (!fault) emit('law', props.row.family, given);
}
function choose(family: string): void {
  wrong.value = '';
  emit('law', family, usual(family));
}
</script>

<template>
  <span class="input">
    <b>{{ row.name }}</b>{{ ' '
    }}<SentenceChoice
      :model-value="row.column ?? LAW"
      :aria-label="`source of ${row.name}`"
      :options="sources"
      @update:model-value="(id) => emit('column', id || null)"
    /><template v-if="row.column === null">
      <SentenceChoice
        :model-value="row.family"
        :aria-label="`distribution of ${row.name}`"
        :options="families"
        @update:model-value="choose" />
      with
      <SentenceText
        :wrong="wrong !== ''"
        :aria-label="field.label"
        :model-value="local(fieldText(field, row.parameters))"
        @update:model-value="typed" /></template
    ><span v-if="wrong" class="said-wrong" role="alert"> {{ local(wrong) }}</span>
  </span>
</template>

<style scoped>
.input b {
  font: 600 14px var(--sans);
}
</style>
