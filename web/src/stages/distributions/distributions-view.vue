<script setup lang="ts">
import { complementSentence, distributionAnalysis, distributionName, readingsSentence } from '@verdict/core/analyses';
import { familyByName } from '@verdict/core/distributions';
import { NO_READINGS } from '@verdict/core/readings';
import { methodOf, toWire, type Piece } from '@verdict/core/road';
import { ElMessage } from 'element-plus';
import { computed, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import CautionList from '../../components/caution-list.vue';
import CautionNote from '../../components/caution-note.vue';
import FindingWords from '../../components/finding-words.vue';
import { useKeeping, type About } from '../../composables/use-keeping.js';
import { useKeys } from '../../composables/use-keys.js';
import { useStudy } from '../../stores/study.js';
import CurveCard from './curve-card.vue';
import DistributionFigures from './distribution-figures.vue';
import { windowFault } from './dragging.js';
import { useLastQuestions } from './last-questions.js';
import OverSentence from './over-sentence.vue';
import QuestionSentence from './question-sentence.vue';
import { queryOf, shareCaution } from './question.js';
import { useDistribution } from './use-distribution.js';
import { useQuestion } from './use-question.js';

/** Ask any distribution: the question, its picture, its answer. `alone` when no study is open. */
const props = defineProps<{ alone?: boolean }>();
const store = useStudy();
const route = useRoute();
const { draft, change } = useQuestion();

const columns = computed(() =>
  props.alone ? [] : (store.study?.columns ?? []).filter(({ kind }) => kind !== 'label'),
);
const column = computed(() => columns.value.find(({ id }) => id === draft.value.column) ?? null);
const sample = computed(() => (column.value ? store.sampleOf(column.value.id) : null));
const asked = useDistribution(draft, sample);
const { request, faults, result, over, whyNot, picture, drawn, title, words } = asked;

const sentence = computed(() => (request.value ? methodOf(distributionAnalysis, request.value) : ''));
const finding = computed<Piece[]>(() => (result.value ? distributionAnalysis.finding(result.value) : []));
const rest = computed(() => (result.value ? complementSentence(result.value) : ''));
const beside = computed(() => (result.value ? readingsSentence(result.value) : []));
const plain = (pieces: readonly Piece[]) => pieces.map(({ text }) => text).join('');
/** The parameters that mean and sd stand for. */
const found = computed(() =>
  draft.value.by !== 'parameters' && result.value
    ? `That is ${distributionName(result.value.family, result.value.parameters)}.`
    : '',
);
const overAnswer = computed(() => {
  if (!over.value) return '';
  const of = distributionName(over.value.family, over.value.parameters);
  return `Under ${of}: ${plain(distributionAnalysis.finding(over.value))}`;
});
const caution = computed(() => shareCaution(draft.value));
const axis = computed(() =>
  column.value
    ? [column.value.name, column.value.unit].filter(Boolean).join(', ')
    : drawn.value?.discrete
      ? 'number'
      : 'value',
);

const legend = computed(() => [
  {
    mark: drawn.value?.discrete && draft.value.view === 'density' ? ('numbers' as const) : ('curve' as const),
    text: drawn.value ? distributionName(drawn.value.family, drawn.value.parameters) : '',
  },
  ...(over.value
    ? [
        {
          mark: over.value.discrete && draft.value.view === 'density' ? ('marks' as const) : ('over' as const),
          text: distributionName(over.value.family, over.value.parameters),
        },
      ]
    : []),
  ...(result.value?.readings
    ? [{ mark: 'bars' as const, text: `${result.value.readings.n} readings of ${result.value.readings.column}` }]
    : []),
]);

const shown = computed(() => [
  { analysis: distributionAnalysis, request: request.value, result: result.value, whole: result.value !== null },
]);
const about = computed<About | null>(() => {
  if (props.alone || !store.study) return null;
  return column.value && sample.value
    ? { column: column.value.id, sample: sample.value }
    : { column: null, sample: NO_READINGS };
});
const { keep, keeping, kept, problem } = useKeeping(shown, about);
const canKeep = computed(() => about.value !== null && result.value !== null && !store.ruled);
useKeys({ k: () => canKeep.value && void keep() });

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
  ElMessage.success('Question and answer are on the clipboard.');
}
async function copyJson(): Promise<void> {
  const { id, version } = distributionAnalysis;
  const all = { analysis: id, version, request: request.value, method: sentence.value, result: toWire(result.value) };
  await navigator.clipboard.writeText(JSON.stringify(all, null, 2));
  ElMessage.success('Request and result are on the clipboard, in full precision.');
}
</script>

<template>
  <div class="distributions">
    <section class="card question" aria-label="Question">
      <QuestionSentence
        :draft="draft"
        :faults="faults"
        :counted="familyByName(draft.family).discrete || column !== null"
        @change="change"
      />
      <p v-if="found" class="soft found">{{ found }}</p>
    </section>
    <div class="upper">
      <CurveCard
        v-if="picture && drawn"
        :picture="picture"
        :result="drawn"
        :axis="axis"
        :title="title"
        :words="words"
        :legend="legend"
        :stale="!result"
        @drag="(side, x) => change(asked.dragged(side, x))"
      />
      <section v-else class="card waiting soft">
        The picture comes with the first question that can be answered.
      </section>
      <section class="side" aria-label="Answer">
        <div aria-live="polite">
          <FindingWords v-if="result" :pieces="finding" />
          <p v-else class="soft">{{ whyNot || 'No answer until the sentence above is mended.' }}</p>
          <p v-if="rest" class="rest">{{ rest }}</p>
        </div>
        <FindingWords v-if="beside.length" class="small" :pieces="beside" />
        <p v-if="overAnswer" class="rest over">{{ overAnswer }}</p>
        <CautionList :texts="[...(caution ? [caution] : []), ...(result?.notes ?? []).map(({ text }) => text)]" />
        <DistributionFigures v-if="result" :result="result" :over="over" />
        <CautionNote v-if="problem" lead="Not kept" tone="wrong">{{ problem }}</CautionNote>
        <div v-if="result" class="actions">
          <el-button v-if="!alone" type="primary" :loading="keeping" :disabled="!canKeep" @click="keep()"
            >Keep as evidence <kbd>K</kbd></el-button
          >
          <button class="plain" @click="copySentence">Copy the answer</button>
          <button class="plain" @click="copyJson">Copy as JSON</button>
          <span v-if="kept" class="soft" role="status">{{ kept }}</span>
        </div>
        <p v-if="alone" class="soft hint">
          Inside a study, its readings can be laid under the curve and the answer kept as evidence.
        </p>
        <section v-if="questions.length" class="last" aria-label="Last questions">
          <h2>Last questions <button class="plain" @click="forget">Forget them</button></h2>
          <ul>
            <li v-for="one in questions" :key="one.question">
              <RouterLink :to="{ path: route.path, query: one.query }">{{ one.question }}</RouterLink>
              <span class="soft answered">{{ one.answer }}</span>
            </li>
          </ul>
        </section>
      </section>
    </div>
    <OverSentence
      :draft="draft"
      :faults="faults"
      :columns="columns"
      :window-fault="windowFault(draft)"
      @change="change"
    />
  </div>
</template>

<style scoped>
.distributions {
  display: flex;
  flex-direction: column;
  gap: 12px;
  height: 100%;
}
.question {
  padding: 8px 16px 9px;
}
.found {
  margin: 2px 0 0;
  font: 14px/1.5 var(--serif);
}
.upper {
  display: grid;
  grid-template-columns: minmax(0, 786fr) minmax(300px, 436fr);
  flex: 1;
  gap: 18px;
  min-height: 330px;
}
.waiting {
  padding: 40px;
}
.side {
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-height: 0;
  overflow: auto;
}
.rest {
  margin: 6px 0 0;
  color: var(--soft);
  font-size: 13.5px;
}
.rest.over {
  margin: 0;
  border-left: 2px dashed var(--ochre);
  padding-left: 10px;
}
.small {
  font-size: 14.5px;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
.actions kbd {
  margin-left: 8px;
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
@media (max-width: 900px) {
  .distributions {
    height: auto;
  }
  .upper {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
