<script setup lang="ts">
import type { Evidence } from '@verdict/contract';
import { analysisById } from '@verdict/core/analyses';
import { computed } from 'vue';
import { heightOf } from '../../charts/height-of.js';
import DrawnOrSaid from '../../components/drawn-or-said.vue';
import FindingWords from '../../components/finding-words.vue';
import EvidenceNote from '../../components/evidence-note.vue';
import { recomputedWords, standingWords } from '../../components/recomputed-words.js';
import { formatTime, local } from '../../language/language.js';
import { cautionsWithAnswers } from '../../sheet/pieces.js';
import { useEvidence } from '../../stores/evidence.js';
import { useStudy } from '../../stores/study.js';
import { useWho } from '../../stores/who.js';
import KeptPicture from '../../workbench/evidence/kept-picture.vue';
import type { KeptPicture as Kept } from '../../workbench/frame/stage.js';
import PieceCautions from './piece-cautions.vue';

/** A piece of evidence as the verdict takes it: finding, picture, method, cautions with their answers, note; its place on the sheet. */
const props = defineProps<{
  item: Evidence;
  number: number;
  count: number;
  stage: string;
  draw: (() => Kept) | null;
  stale: boolean;
  /** How far it is, while it is run again. */
  share: number | null;
  problem: string;
}>();
const emit = defineEmits<{ move: [by: -1 | 1]; again: []; stop: [] }>();
const store = useStudy();
const evidence = useEvidence();
const who = useWho();

/** Of what cannot be drawn, as high as others: it says so there. */
const height = computed(() => {
  try {
    return props.draw ? heightOf(props.draw().panels, 220) : 220;
  } catch {
    return 220;
  }
});
const name = computed(() => analysisById(props.item.analysis).name);
const heading = computed(() => {
  const { column, request } = props.item;
  if (column === null) return name.value;
  return `${name.value} of ${store.columnById(column)?.name ?? String(request.column)}`;
});
const cautions = computed(() => cautionsWithAnswers(props.item));
const answer = (to: string, words: string) =>
  void evidence.say(props.item.id, { answer: { to, words, who: who.name } });
const revision = computed(() => (props.item.column === null || store.ruled ? null : (store.study?.revision ?? null)));
</script>

<template>
  <article class="piece card" :class="{ stale, leads: item.leads }" :aria-label="`${number}. ${heading}`">
    <header>
      <h2>
        <span class="number">{{ number }}</span> {{ heading }}
        <span v-if="item.leads" class="lead">headline of the report</span>
      </h2>
      <span class="soft small">{{ stage }}, {{ item.who }}, {{ formatTime(item.at) }}</span>
    </header>
    <p v-if="stale" class="changed" role="note">
      <strong>Data changed since this was kept</strong> since change {{ item.revision }}: the result refers to the
      earlier data.
      <template v-if="share !== null"
        ><el-progress class="bar" :percentage="Math.floor(share * 100)" :stroke-width="8" aria-label="Run again" />
        <el-button link @click="emit('stop')">Stop</el-button></template
      >
      <el-button v-else-if="!store.ruled" size="small" @click="emit('again')">Run again</el-button>
    </p>
    <p v-if="problem" class="said-wrong" role="alert">It was not run again: {{ problem }} The evidence is unchanged.</p>
    <div class="body">
      <div>
        <FindingWords :pieces="item.finding" />
        <p class="method soft">{{ local(item.method) }}</p>
        <PieceCautions
          v-if="cautions.length"
          :cautions="cautions"
          :of="name.toLowerCase()"
          :locked="store.ruled"
          @answer="answer"
        />
        <EvidenceNote :item="item" :name="name" />
        <div class="actions small">
          <template v-if="!store.ruled">
            <el-button link :disabled="number === 1" :aria-label="`Move ${heading} up`" @click="emit('move', -1)"
              >Up</el-button
            >
            <el-button link :disabled="number === count" :aria-label="`Move ${heading} down`" @click="emit('move', 1)"
              >Down</el-button
            >
            <el-button link :aria-pressed="item.leads" @click="evidence.say(item.id, { leads: !item.leads })">{{
              item.leads ? 'Remove as headline' : 'Make it the headline'
            }}</el-button>
            <el-button link @click="evidence.say(item.id, { leftOut: true })">Exclude from the report</el-button>
          </template>
          <el-button link @click="evidence.recompute(item.id)">Recompute</el-button>
          <span class="soft" role="status">{{
            recomputedWords(evidence.recomputed[item.id], revision) || `recomputed: ${standingWords(item)}`
          }}</span>
        </div>
      </div>
      <div v-if="draw" class="picture" :style="{ height: `${height}px` }">
        <DrawnOrSaid><KeptPicture bare :draw="draw" /></DrawnOrSaid>
      </div>
    </div>
  </article>
</template>

<style scoped>
.piece {
  padding: 10px 18px 8px;
}
.piece.leads {
  border-left: 3px solid var(--green);
}
.piece.stale {
  border-left: 3px solid var(--ochre);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  align-items: baseline;
  justify-content: space-between;
}
h2 {
  margin: 0;
  font-size: 13px;
  font-weight: 600;
}
.number {
  margin-right: 4px;
  color: var(--soft);
  font-weight: 400;
}
.lead {
  margin-left: 8px;
  color: var(--green);
  font-size: 12px;
  font-weight: 500;
}
.changed {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  margin: 4px 0;
  font-size: 13px;
}
.changed strong {
  color: var(--ochre-text);
  font-weight: 600;
}
.bar {
  width: 140px;
}
.body {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 350px);
  gap: 16px;
}
.body > :only-child {
  grid-column: 1 / -1;
}
.body :deep(.finding) {
  font-size: 16px;
}
.method {
  margin: 4px 0;
  font: 13.5px/1.45 var(--serif);
  overflow-wrap: anywhere;
}
.actions {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
  margin-top: 4px;
}
.small {
  font-size: 12.5px;
}
@media (max-width: 700px) {
  .body {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
