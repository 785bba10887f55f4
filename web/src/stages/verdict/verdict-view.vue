<script setup lang="ts">
import { decisionWords } from '@verdict/contract';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../../api/client.js';
import { formatTime, local } from '../../language/language.js';
import SentenceText from '../../components/fields/sentence-text.vue';
import { openWords } from '../../path/questions.js';
import { useSheetPieces } from '../../sheet/use-sheet-pieces.js';
import { useEvidence } from '../../stores/evidence.js';
import { useStudy } from '../../stores/study.js';
import { useWho } from '../../stores/who.js';
import { useKeptPictures } from '../../workbench/evidence/use-kept-pictures.js';
import { useRunAgain } from '../../workbench/run/use-run-again.js';
import DecisionForm, { type Decided } from './decision-form.vue';
import EvidencePiece from './evidence-piece.vue';
import LeftOut from './left-out.vue';
import RuledBox from './ruled-box.vue';
import { useVerdict } from './use-verdict.js';

/** The evidence in the order of the work, arranged for the sheet, and the decision that rests on it. */
const store = useStudy();
const evidence = useEvidence();
const who = useWho();
const { onSheet, leftOut, ruling, stale, open, weighed, standing, move } = useVerdict();
const { stageOf } = useSheetPieces();
const { drawOf } = useKeptPictures(onSheet);
const rerun = useRunAgain();
const busy = ref(false);

const study = computed(() => store.study!);
const earlier = computed(() => study.value.verdicts.filter((verdict) => verdict !== ruling.value));
const counted = (n: number, one: string, many: string) => (n === 1 ? `one ${one}` : `${n} ${many}`);
/** What is open before it can be decided, in words. */
const openBefore = computed(() =>
  [
    open.value.length ? `${counted(open.value.length, 'caution is', 'cautions are')} not answered` : '',
    stale.value.length ? `the readings of ${counted(stale.value.length, 'result', 'results')} have changed` : '',
  ]
    .filter(Boolean)
    .join('; ')
    .replace(/^./, (first) => first.toUpperCase()),
);
const notSeen = computed(() => openWords(standing.value));

function setQuestion(text: string): void {
  const question = text.trim();
  if (question !== study.value.question) store.change({ kind: 'change-study', question });
}
async function rule(decided: Decided): Promise<void> {
  busy.value = true;
  const body = { who: who.name, ...decided, evidence: onSheet.value.map(({ id }) => id) };
  await store.settled(({ id, revision }) => api.rule(id, { ...body, revision }));
  busy.value = false;
}
</script>

<template>
  <div class="verdict">
    <div id="evidence" class="work" tabindex="-1">
      <section class="question" aria-label="Verdict">
        <p v-if="store.ruled" class="serif">{{ study.question || 'No question was written down.' }}</p>
        <SentenceText
          v-else
          multiline
          class="written serif"
          aria-label="Question"
          rows="1"
          autosize
          maxlength="500"
          placeholder="What has to be decided?"
          :model-value="study.question"
          @update:model-value="setQuestion"
        />
      </section>
      <p v-if="evidence.problem" class="said-wrong" role="alert">{{ local(evidence.problem.detail) }}</p>
      <p v-if="stale.length > 1 && !store.ruled" class="all" role="note">
        The readings of {{ stale.length }} results have changed since they were kept.
        <el-button size="small" :disabled="rerun.running.value !== null" @click="rerun.again(stale)"
          >Run all of them again</el-button
        >
      </p>
      <p v-if="onSheet.length === 0" class="card none soft">
        No evidence is kept yet. <RouterLink :to="{ name: 'shape' }">Look at the shape</RouterLink> or at
        <RouterLink :to="{ name: 'fit' }">the fit</RouterLink>, and press <kbd>K</kbd> to keep what you see.
      </p>
      <EvidencePiece
        v-for="(item, i) in onSheet"
        :key="item.id"
        :item="item"
        :number="i + 1"
        :count="onSheet.length"
        :stage="stageOf(item.analysis)?.title ?? ''"
        :draw="drawOf(item)"
        :stale="evidence.stale.has(item.id)"
        :share="rerun.running.value?.id === item.id ? rerun.running.value.share : null"
        :problem="rerun.problems.value[item.id] ?? ''"
        @move="(by) => move(item, by)"
        @again="rerun.again([item])"
        @stop="rerun.stop"
      />
      <LeftOut v-if="leftOut.length" :items="leftOut" />
    </div>
    <aside id="decision" class="side" tabindex="-1">
      <DecisionForm
        v-if="!ruling"
        :who="who.name"
        :evidence-count="onSheet.length"
        :asks="study.asks"
        :earlier="earlier[0] ?? null"
        :open="openBefore"
        :busy="busy"
        @rule="rule"
        @ask="(asks) => store.change({ kind: 'change-study', asks })"
      />
      <RuledBox v-else :verdict="ruling" />
      <RouterLink class="el-button to-sheet" :to="{ name: 'sheet', params: { id: study.id } }"
        >Open the report</RouterLink
      >
      <section v-if="weighed || notSeen" class="soft small" aria-label="Analyses viewed">
        <p v-if="weighed">{{ local(weighed) }}</p>
        <p v-if="notSeen">{{ local(notSeen) }}</p>
      </section>
      <section v-for="verdict in earlier" :key="verdict.id" class="soft small">
        Earlier: {{ decisionWords(verdict.decision, verdict.family) }} ({{ verdict.who }}, {{ formatTime(verdict.at) }}:
        {{ verdict.reason }})<template v-if="verdict.reopened"
          >; reopened by {{ verdict.reopened.who }}, {{ formatTime(verdict.reopened.at) }}:
          {{ verdict.reopened.reason }}</template
        >.
      </section>
    </aside>
  </div>
</template>

<style scoped>
.verdict {
  display: grid;
  grid-template-columns: minmax(0, 786fr) minmax(280px, 436fr);
  gap: 18px;
  height: 100%;
  min-height: 0;
}
.work {
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-height: 0;
  overflow: auto;
}
.work > * {
  flex: none;
}
.question p {
  margin: 2px 0;
}
.serif {
  font: 500 17px/1.4 var(--serif);
}
.none {
  margin: 0;
  padding: 22px 18px;
}
.all {
  margin: 0;
  font-size: 13px;
}
.side {
  display: flex;
  flex-direction: column;
  gap: 10px;
  align-items: flex-start;
  min-height: 0;
  overflow: auto;
}
.to-sheet {
  color: var(--ink);
  text-decoration: none;
}
.small {
  font-size: 12.5px;
}
.small p {
  margin: 0 0 4px;
}
@media print {
  .verdict {
    display: block;
    height: auto;
  }
  .work {
    overflow: visible;
  }
}
@media (max-width: 900px) {
  .verdict {
    grid-template-columns: minmax(0, 1fr);
    height: auto;
  }
}
</style>
