<script setup lang="ts">
import {
  complementSentence,
  describeAnalysis,
  distributionAnalysis,
  readingsSentence,
  type DistributionResult,
} from '@verdict/core/analyses';
import { distributionName, familyByName } from '@verdict/core/distributions';
import { NO_READINGS } from '@verdict/core/readings';
import { methodOf, toWire, type Piece } from '@verdict/core/road';
import { ElMessage } from 'element-plus';
import { computed, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { distributionPanels } from '../../charts/pictures/distribution.js';
import FindingWords from '../../components/finding-words.vue';
import { local } from '../../language/language.js';
import { useStudy } from '../../stores/study.js';
import PictureCard from '../../workbench/picture/picture-card.vue';
import StageFrame from '../../workbench/frame/stage-frame.vue';
import { askDistribution } from '../../workbench/frame/ask-distribution.js';
import { useRun } from '../../workbench/run/use-run.js';
import { useStage } from '../../workbench/frame/use-stage.js';
import DistributionFigures from './distribution-figures.vue';
import { useLastQuestions } from './last-questions.js';
import OverSentence from './over-sentence.vue';
import QuestionSentence from './question-sentence.vue';
import { queryOf, shareCaution, windowFault } from './question.js';
import { useDistribution } from './use-distribution.js';
import { useQuestion } from './use-question.js';

/** Ask any distribution: the question, its picture, its answer. `alone` when no study is open. */
const props = defineProps<{ alone?: boolean }>();
const store = useStudy();
const route = useRoute();
const { draft, change, begin } = useQuestion();

const columns = computed(() =>
  props.alone ? [] : (store.study?.columns ?? []).filter(({ kind }) => kind !== 'label'),
);
const column = computed(() => columns.value.find(({ id }) => id === draft.value.column) ?? null);
const sample = computed(() => (column.value ? store.sampleOf(column.value.id) : null));
const asked = useDistribution(draft, sample);
const { run, request, faults, result, over, whyNot, drawn, title, words } = asked;
const stage = useStage({
  runs: () => [run],
  about: () => {
    if (props.alone || !store.study) return null;
    return column.value && sample.value
      ? { column: column.value.id, sample: sample.value }
      : { column: null, sample: NO_READINGS };
  },
});

const sentence = computed(() => (request.value ? methodOf(distributionAnalysis, request.value) : ''));
const finding = computed<Piece[]>(() => (result.value ? distributionAnalysis.finding(result.value) : []));
const rest = computed(() => (result.value ? complementSentence(result.value) : ''));
const beside = computed(() => (result.value ? readingsSentence(result.value) : []));
const plain = (pieces: readonly Piece[]) => pieces.map(({ text }) => text).join('');
const nameOf = ({ family, parameters }: DistributionResult) => distributionName(family, parameters);
/** The parameters that mean and sd stand for. */
const found = computed(() =>
  draft.value.by !== 'parameters' && result.value ? `That is ${nameOf(result.value)}.` : '',
);
const overAnswer = computed(() =>
  over.value ? `Under ${nameOf(over.value)}: ${plain(distributionAnalysis.finding(over.value))}` : '',
);
const caution = computed(() => shareCaution(draft.value));
const axis = computed(() => {
  if (!column.value) return drawn.value?.result.discrete ? 'number' : 'value';
  return [column.value.name, column.value.unit].filter(Boolean).join(', ');
});
const panels = computed(() => {
  const { value: of } = drawn;
  return of && distributionPanels(of.picture, of.result, of.over, axis.value);
});
const HANDLES = [
  ['lower', 'Lower limit on the picture'],
  ['upper', 'Upper limit on the picture'],
] as const;
const handles = computed(() =>
  HANDLES.flatMap(([id, label]) => {
    const value = drawn.value?.result[id] ?? null;
    return value === null ? [] : [{ id, value, label }];
  }),
);

/** Inside a study the first question is about the subject's own fit, in full figures. */
const subject = computed(() => (props.alone ? null : store.sample));
const first = useRun(describeAnalysis, subject, {
  fixed: () => (props.alone || !store.subject ? null : { column: store.subject.name }),
  settled: () => ({}),
});
watch(first.result, (found) => {
  const of = store.subject;
  if (of && found?.sd)
    begin(askDistribution({ column: of, family: 'normal', parameters: { mean: found.mean, sd: found.sd } }));
});

/** A question that has stood for a moment belongs to the last ones. */
const { questions, remember, forget } = useLastQuestions();
const LINGER = 1500;
let timer: ReturnType<typeof setTimeout> | undefined;
watch(
  [sentence, finding],
  () => {
    clearTimeout(timer);
    if (!result.value) return;
    const { column: _, ...query } = queryOf(draft.value);
    timer = setTimeout(() => remember({ query, question: sentence.value, answer: plain(finding.value) }), LINGER);
  },
  { immediate: true },
);

async function copySentence(): Promise<void> {
  const text = [sentence.value, plain(finding.value), rest.value, plain(beside.value)].filter(Boolean).join(' ');
  await navigator.clipboard.writeText(text);
  ElMessage.success('Question and answer were copied.');
}
async function copyJson(): Promise<void> {
  const { id, version } = distributionAnalysis;
  const all = { analysis: id, version, request: request.value, method: sentence.value, result: toWire(result.value) };
  await navigator.clipboard.writeText(JSON.stringify(all, null, 2));
  ElMessage.success('Request and result were copied in full precision.');
}
</script>

<template>
  <StageFrame
    :runs="stage"
    label="Answer"
    :finding="finding"
    :cautions="caution ? [caution] : []"
    :keepable="!alone && !!result"
  >
    <template #above>
      <section class="card question" aria-label="Question">
        <QuestionSentence
          :draft="draft"
          :faults="faults"
          :counted="familyByName(draft.family).discrete || column !== null"
          @change="change"
        />
        <p v-if="found" class="soft found">{{ local(found) }}</p>
      </section>
    </template>
    <template #picture>
      <PictureCard
        v-if="drawn"
        :panels="panels"
        :title="title"
        :words="words"
        :handles="handles"
        :step="drawn.result.discrete ? 1 : null"
        :stale="!result"
        @drag="(side, x) => change(asked.drag(side as 'lower' | 'upper', x))"
      />
      <section v-else class="card waiting soft">The picture appears with the first complete question.</section>
    </template>
    <template #words>
      <p v-if="!result" class="soft">{{ local(whyNot || 'No answer until the question above is corrected.') }}</p>
      <p v-if="rest" class="rest">{{ local(rest) }}</p>
      <FindingWords v-if="beside.length" class="small" :pieces="beside" />
      <p v-if="overAnswer" class="rest over">{{ local(overAnswer) }}</p>
    </template>
    <template #figures><DistributionFigures v-if="result" :result="result" :over="over" /></template>
    <template v-if="result" #actions>
      <el-button link @click="copySentence">Copy the answer</el-button>
      <el-button link @click="copyJson">Copy as JSON</el-button>
    </template>
    <template #after>
      <p v-if="alone" class="soft hint">
        Within a study, its readings can be compared with the distribution and the answer kept as evidence.
      </p>
      <section v-if="questions.length" class="last" aria-label="Last questions">
        <h2>Last questions <el-button link @click="forget">Clear the list</el-button></h2>
        <ul>
          <li v-for="one in questions" :key="one.question">
            <RouterLink :to="{ path: route.path, query: one.query }">{{ local(one.question) }}</RouterLink>
            <span class="soft answered">{{ local(one.answer) }}</span>
          </li>
        </ul>
      </section>
    </template>
    <template #below>
      <OverSentence
        :draft="draft"
        :faults="faults"
        :columns="columns"
        :window-fault="windowFault(draft)"
        @change="change"
      />
    </template>
  </StageFrame>
</template>

<style scoped>
.question {
  padding: 8px 16px 9px;
}
.found {
  margin: 2px 0 0;
  font: 14px/1.5 var(--serif);
}
.waiting {
  padding: 40px;
}
.rest {
  margin: 6px 0 0;
  color: var(--soft);
  font-size: 13.5px;
}
.rest.over {
  border-left: 2px dashed var(--ochre);
  padding-left: 10px;
}
.small {
  font-size: 14.5px;
}
.hint {
  margin: 0;
  font-size: 12.5px;
}
.last h2 {
  display: flex;
  justify-content: space-between;
  margin: 0 0 4px;
  font-size: 13px;
  font-weight: 600;
}
.last ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.last li {
  border-top: 1px solid var(--line);
  padding: 5px 0;
  font-size: 12.5px;
}
.answered {
  display: block;
}
.last a {
  text-decoration: none;
}
</style>
