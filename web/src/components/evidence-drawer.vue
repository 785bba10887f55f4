<script setup lang="ts">
import type { Evidence } from '@verdict/contract';
import { analysisById } from '@verdict/core/analyses';
import { useEvidence } from '../stores/evidence.js';
import { useStudy } from '../stores/study.js';
import FindingWords from './finding-words.vue';
import { recomputedWords, standingWords } from './recomputed-words.js';
import { formatTime, local } from '../language/language.js';
import EvidenceNote from './evidence-note.vue';

/** The kept evidence: finding, method, and how to reproduce the numbers. */
const evidence = useEvidence();
const store = useStudy();

/** Stale once the study has moved on; what needs no column never is, nor what a verdict rests on: nothing changes under it. */
const foundWords = ({ id, column }: Evidence) =>
  recomputedWords(evidence.recomputed[id], column === null || store.ruled ? null : (store.study?.revision ?? null));
const columnOf = ({ column, request }: Evidence) =>
  column === null ? '' : ` of ${store.study?.columns.find(({ id }) => id === column)?.name ?? String(request.column)}`;
</script>

<template>
  <el-drawer v-model="evidence.drawerOpen" title="Evidence" size="480">
    <p v-if="evidence.unread" class="said-wrong" role="alert">
      The evidence could not be read: {{ evidence.unread.detail }}
      <el-button v-if="store.study" link @click="evidence.load(store.study.id)">Try again</el-button>
    </p>
    <p v-else-if="evidence.items.length === 0" class="soft">
      Nothing kept yet. On a stage, press <kbd>K</kbd> to keep what you see, with its settings and the seed, so that
      anyone can recompute it.
    </p>
    <p v-if="evidence.problem" class="said-wrong" role="alert">{{ evidence.problem.detail }}</p>
    <article v-for="item in evidence.items" :key="item.id" class="item">
      <h3>{{ analysisById(item.analysis).name }}{{ columnOf(item) }}</h3>
      <FindingWords :pieces="item.finding" />
      <p class="method">{{ local(item.method) }}</p>
      <EvidenceNote :item="item" :name="analysisById(item.analysis).name" />
      <dl>
        <dt>data</dt>
        <dd v-if="item.column === null">none needed</dd>
        <dd v-else>
          change {{ item.revision }}, fingerprint
          <code :title="item.fingerprint">{{ item.fingerprint.slice(0, 12) }}…</code>
          <span v-if="store.study && !store.ruled && store.study.revision > item.revision" class="since"
            >; the study is at change {{ store.study.revision }} now</span
          >
        </dd>
        <dt>calculated by</dt>
        <dd>
          {{ item.analysis }} {{ item.version }}, Verdict {{ item.appVersion
          }}<template v-if="item.seed !== null">, seed {{ item.seed }}</template>
        </dd>
        <dt>kept</dt>
        <dd>{{ item.who }}, {{ formatTime(item.at) }}</dd>
        <dt>recomputed</dt>
        <dd :class="{ doubt: item.recomputed && !item.recomputed.same }">{{ standingWords(item) }}</dd>
      </dl>
      <div class="again">
        <el-button
          size="small"
          :loading="evidence.recomputed[item.id] === 'running'"
          @click="evidence.recompute(item.id)"
          >Recompute</el-button
        >
        <span role="status" class="answer">{{ local(foundWords(item)) }}</span>
      </div>
    </article>
  </el-drawer>
</template>

<style scoped>
.item {
  padding: 14px 0 16px;
  border-bottom: 1px solid var(--line);
}
.item:first-of-type {
  padding-top: 0;
}
h3 {
  margin: 0 0 4px;
  font-size: 13px;
  font-weight: 600;
}
.item :deep(.finding) {
  font-size: 16px;
}
.method {
  margin: 6px 0;
  color: var(--soft);
  font: 14px/1.5 var(--serif);
}
dl {
  display: grid;
  grid-template-columns: 96px 1fr;
  gap: 2px 10px;
  margin: 6px 0 10px;
  font-size: 13px;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
}
.doubt {
  color: var(--ochre-text);
  font-weight: 600;
}
code {
  font: 12px var(--mono);
}
.again {
  display: flex;
  align-items: center;
  gap: 10px;
}
.answer {
  font-size: 13px;
}
</style>
