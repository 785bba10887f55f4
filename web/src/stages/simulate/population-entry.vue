<script setup lang="ts">
import { MIXING, POPULATION } from '@verdict/core/analyses';
import { computed } from 'vue';
import SentenceChoice from '../../components/fields/sentence-choice.vue';
import { objectionOf } from '../../workbench/run/asked.js';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import type { FieldValue } from '../../workbench/run/field-values.js';
import type { Populated } from './use-population.js';

/** What samples are drawn from, as the first sentence of every question of the stage. */
const props = defineProps<{
  populated: Populated;
  /** True where the share that is different is what is changed. */
  mixing?: boolean;
}>();
const { run, from, setFrom, subject, column } = props.populated;
const options = computed(() => [
  { value: 'family', text: 'a distribution' },
  { value: 'column', text: 'the readings', whyNot: column.value ? null : 'there is no number column' },
  { value: 'fit', text: 'a fitted distribution', whyNot: column.value ? null : 'there is no number column' },
]);
const rest = computed(() => (props.mixing ? MIXING : POPULATION).rest);
const values = computed(() => {
  if (run.request.value) return run.request.value;
  const read = run.analysis.request.safeParse({ from: 'family', ...run.address.settings.value });
  return read.success ? read.data : undefined;
});
/** Parameters go with their family, and are given anew with another. */
const goesWith = (field: string) =>
  ({ family: { parameters: undefined }, mixedFamily: { mixedParameters: undefined } })[field] ?? {};
const change = (field: string, value: FieldValue) => run.address.setAll({ [field]: value, ...goesWith(field) });
const objection = (field: string, value: FieldValue) =>
  objectionOf(run.analysis, {}, run.request.value ?? {}, { ...goesWith(field), [field]: value });
function choose(where: string): void {
  const fitted = from.value === 'fit' ? run.result.value?.parameters : null;
  // A fit that was looked at is taken over.
  if (where === 'family' && fitted) run.address.setAll({ parameters: Object.values(fitted) });
  setFrom(where);
}
</script>

<template>
  <div class="ask">
    Population
    <SentenceChoice
      :model-value="from"
      aria-label="Source of the population"
      :options="options"
      @update:model-value="choose"
    /><MethodSentence
      class="rest"
      :run="run"
      :parts="rest"
      :subject="subject"
      :values="values"
      :change="change"
      :objection="objection"
    />
    <slot />
  </div>
</template>

<style scoped>
.ask {
  font: 15px/1.75 var(--serif);
}
.rest {
  display: inline;
}
</style>
