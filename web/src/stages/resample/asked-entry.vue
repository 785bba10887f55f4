<script setup lang="ts">
import type { NamedParts, SentencePart } from '@verdict/core/road';
import { computed, type Ref } from 'vue';
import SentenceChoice from '../../components/fields/sentence-choice.vue';
import { local } from '../../language/language.js';
import MethodSentence from '../../workbench/sentence/method-sentence.vue';
import TwoChoice from '../../workbench/parts/two-choice.vue';
import TypedFigures from '../../workbench/sentence/typed-figures.vue';
import type { Run } from '../../workbench/run/use-run.js';
import type { Asked } from './use-asked.js';

/** The question as a sentence: what is resampled, and what is looked at. */
const props = defineProps<{
  asked: Asked;
  run: Pick<Run, 'objection' | 'address' | 'parts'> & { request: Ref<object | null> };
  /** The sentence of the question: what stands before the statistic and what follows it. */
  sentence: NamedParts<'lead' | 'rest'>;
  subject: string;
  values?: object;
}>();
const SOURCES = [
  { value: false, label: 'From readings' },
  { value: true, label: 'Typed counts' },
];
const chosen = computed(() => (props.run.request.value ?? {}) as { first?: string; second?: string });
const levels = computed(() => props.asked.levels.value.map((text) => ({ value: text, text })));
const wordsOf = (part: SentencePart) =>
  typeof part === 'string' ? part : 'text' in part ? part.text : 'subject' in part ? props.subject : '';
</script>

<template>
  <section class="card entry" aria-label="Question">
    <div class="row">
      <el-segmented
        :model-value="asked.typed.value"
        size="small"
        :options="SOURCES"
        aria-label="Source of the data"
        @update:model-value="(yes: boolean) => asked.setTyped(yes)"
      />
      <div class="ask">
        <template v-for="(part, i) in sentence.lead" :key="i"
          ><b v-if="typeof part === 'object' && 'subject' in part">{{ subject }}</b
          ><template v-else>{{ local(wordsOf(part)) }}</template></template
        >
        <SentenceChoice
          :model-value="asked.statistic.value"
          aria-label="Statistic"
          :options="asked.options.value"
          @update:model-value="asked.setStatistic"
        /><MethodSentence class="rest" :run="run" :parts="sentence.rest" :subject="subject" :values="values" />
        <template v-if="asked.isTwo.value">
          Of
          <TwoChoice
            :names="asked.names.value"
            :chosen="chosen"
            called="group"
            @choose="(which, name) => asked.two.choose(which, name, chosen)"
          />.
        </template>
        <template v-if="asked.levels.value.length">
          Label:
          <SentenceChoice
            :model-value="asked.level.value"
            aria-label="label that is counted"
            :options="levels"
            @update:model-value="asked.setLevel"
          />.
        </template>
      </div>
    </div>
    <TypedFigures
      v-if="asked.typed.value"
      :fields="asked.counts.fields"
      :texts="asked.counts.texts.value"
      :fault="asked.counts.fault.value"
      @set="asked.counts.set"
    />
  </section>
</template>

<style scoped>
.entry {
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: 7px 16px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  align-items: center;
}
.ask {
  flex: 1 1 420px;
  font: 15px/1.75 var(--serif);
  white-space: pre-wrap;
}
.ask b {
  font: 500 14px var(--sans);
}
.rest {
  display: inline;
}
</style>
