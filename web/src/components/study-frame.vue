<script setup lang="ts">
import { useDocumentVisibility, useEventListener } from '@vueuse/core';
import { computed, defineAsyncComponent, onUnmounted, provide, ref, watch } from 'vue';
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router';
import { isTyping, useKeys } from '../composables/use-keys.js';
import { useWaitingReadings } from '../composables/use-waiting-readings.js';
import { keepAsWritten } from '../language/language.js';
import QuestionGuide from '../path/question-guide.vue';
import { useStanding } from '../path/use-standing.js';
import { BESIDE, PATH, STAGES } from '../stages/stages.js';
import { allStages, FRAME_LANDMARKS, stageOf } from '../workbench/frame/stage.js';
import { useEvidence } from '../stores/evidence.js';
import { useJobs } from '../stores/jobs.js';
import { useLooks } from '../stores/looks.js';
import { useStudy } from '../stores/study.js';
import CautionNote from './caution-note.vue';
import EvidenceButton from './evidence-button.vue';
import PageHead from './page-head.vue';
import SkipLinks from './skip-links.vue';
import StudyName from './study-name.vue';
import SubjectBar from './subject-bar.vue';

/** It knows every analysis by name: fetched once it is looked into. */
const EvidenceDrawer = defineAsyncComponent(() => import('./evidence-drawer.vue'));

/** The frame of every stage: head, path, subject bar, and messages about the connection. */
const props = defineProps<{ id: string }>();
const store = useStudy();
const evidence = useEvidence();
const jobs = useJobs();
const looks = useLooks();
const { stages: answering } = useStanding();
const lookedInto = ref(false);
watch(
  () => evidence.drawerOpen,
  (open) => (lookedInto.value ||= open),
  { immediate: true },
);
provide(allStages, STAGES);
const route = useRoute();
const router = useRouter();
/** The open stage keeps its settings. */
const asked = (name: string) => (route.name === name ? route.query : {});
/** The stage that is looked at. */
const here = computed(() => STAGES.find(({ name }) => name === route.name));

watch(
  () => props.id,
  (id) => {
    void store.open(id);
    void evidence.load(id);
    void jobs.load(id);
    void looks.load(id);
  },
  { immediate: true },
);
const visibility = useDocumentVisibility();
watch(visibility, (now) => store.follow(now === 'visible'));
onUnmounted(() => store.follow(false));
watch(
  () => store.study?.name,
  (name) => (document.title = name ? `${name} · Verdict` : 'Verdict'),
);

// Names are the analyst's, whatever figures stand in them.
keepAsWritten(() =>
  (store.study?.columns ?? []).flatMap(({ id, name, kind }) =>
    kind === 'label' ? [name, ...store.textsOf(id)] : [name],
  ),
);

/** The stages that hold something: evidence of their own, or what they say themselves. */
const holding = computed(() => {
  const kept = new Set(evidence.items.map(({ analysis }) => stageOf(STAGES, analysis)));
  const { study } = store;
  const own = STAGES.filter((stage) => kept.has(stage) || (study && stage.holds?.(study)));
  return new Set(own.map(({ name }) => name));
});

/** What waits here, where it is one cell: then both texts can be weighed. */
const mine = computed(() => {
  const [first] = store.waiting;
  if (store.waiting.length !== 1 || first?.change.kind !== 'edit-cells') return '';
  const [run] = first.change.runs;
  return run?.texts.length === 1 ? `“${run.texts[0]}” in row ${run.row} of ${store.columnById(run.column)?.name}` : '';
});

// Lines pasted where one line belongs are most likely readings: they are offered there instead.
const blocks = useWaitingReadings();
useEventListener('paste', blocks.keepOut, { capture: true });
const taker = STAGES.find(({ takesPastes }) => takesPastes)!.name;
watch(blocks.waiting, (incoming) => {
  if (incoming !== null && route.name !== taker) void router.push({ name: taker });
});

// What is not stored yet would be lost with the page: the browser asks.
useEventListener(window, 'beforeunload', (event) => {
  if (store.waiting.length > 0) event.preventDefault();
});

useKeys(Object.fromEntries(PATH.map(({ name }, i) => [String(i + 1), () => void router.push({ name })])));
useEventListener('keydown', (event) => {
  const key = event.key.toLowerCase();
  if (!(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y') || event.defaultPrevented) return;
  // In a field that is written in, the browser takes back letters; the cursor of the table is one only while it edits.
  if (isTyping(event) && !(event.target as HTMLElement).matches('[data-grid-cursor]:not(.editing)')) return;
  event.preventDefault();
  void (event.shiftKey || key === 'y' ? store.redo() : store.undo());
});
</script>

<template>
  <div class="frame">
    <SkipLinks v-if="here && store.study" :key="here.name" :landmarks="here.landmarks ?? FRAME_LANDMARKS" />
    <PageHead>
      <template #study><StudyName /></template>
      <template #evidence><EvidenceButton /></template>
    </PageHead>
    <nav class="path no-print" aria-label="Stages">
      <template v-for="({ name, title }, i) in PATH" :key="name">
        <span v-if="i > 0" class="dash" aria-hidden="true">—</span>
        <RouterLink
          :to="{ name, params: { id }, query: asked(name) }"
          class="stage"
          :class="{ answers: answering.has(name) }"
          :title="answering.has(name) ? 'It helps to answer the question' : undefined"
          :aria-current="route.name === name ? 'page' : undefined"
        >
          <span class="dot" :class="{ full: holding.has(name) }" aria-hidden="true"></span>{{ title }}
        </RouterLink>
      </template>
      <span class="room"></span>
      <QuestionGuide v-if="store.study" />
      <RouterLink
        v-for="{ name, title } in BESIDE"
        :key="name"
        :to="{ name, params: { id }, query: asked(name) }"
        class="stage"
        :aria-current="route.name === name ? 'page' : undefined"
        >{{ title }}</RouterLink
      >
    </nav>
    <template v-if="store.state === 'ready' && store.study">
      <SubjectBar v-if="here" />
      <div v-if="store.away || store.conflict || store.refused || store.study.notVerified" class="said no-print">
        <CautionNote v-if="store.study.notVerified" lead="Not verified" tone="wrong">
          This study does not agree with its record: {{ store.study.notVerified }} Do not rely on it until the
          difference is explained.
        </CautionNote>
        <CautionNote v-if="store.conflict" lead="Changed in another window" tone="wrong">
          {{ store.conflict.detail }}
          <span v-if="store.conflict.changes?.length"> Other window: {{ store.conflict.changes.join('; ') }}. </span>
          <span v-if="mine"> This window: {{ mine }}. </span>
          <el-button size="small" type="primary" @click="store.takeOver(true)">{{
            store.waiting.length ? 'Apply my change on top' : 'Load the newer state'
          }}</el-button>
          <el-button v-if="store.waiting.length" size="small" @click="store.takeOver(false)">Keep theirs</el-button>
        </CautionNote>
        <CautionNote v-else-if="store.away" lead="Not saved yet" tone="wrong">
          {{ store.away }} {{ store.waiting.length }}
          {{ store.waiting.length === 1 ? 'change waits' : 'changes wait' }} on this page and will be sent again. Keep
          this page open.
        </CautionNote>
        <CautionNote v-if="store.refused" lead="Not done" tone="wrong">
          {{ store.refused.detail }}
          <el-button link @click="store.refused = null">Dismiss</el-button>
        </CautionNote>
      </div>
      <main class="stage-view">
        <h1 class="unseen">{{ store.study.name || 'Untitled study' }}: {{ here?.title ?? 'Sheet' }}</h1>
        <RouterView :key="String(route.query.at ?? '')" />
      </main>
    </template>
    <main v-else-if="store.state === 'loading'" class="state" aria-busy="true">Opening the study …</main>
    <main v-else class="state">
      <h1>The study could not be opened.</h1>
      <p>{{ store.failure?.detail }} Nothing was lost.</p>
      <el-button type="primary" @click="store.open(id)">Try again</el-button>
      <RouterLink to="/">All studies</RouterLink>
    </main>
    <EvidenceDrawer v-if="lookedInto" />
  </div>
</template>

<style scoped>
.frame {
  display: flex;
  flex-direction: column;
  height: 100%;
  min-height: 560px;
}
.path {
  display: flex;
  align-items: stretch;
  flex: 0 0 42px;
  gap: 14px;
  padding: 0 20px;
  border-bottom: 1px solid var(--line);
  background: var(--card);
  overflow-x: auto;
}
.room {
  flex: 1;
}
.dash {
  align-self: center;
  color: var(--line);
}
.stage {
  display: flex;
  align-items: center;
  gap: 7px;
  border-bottom: 3px solid transparent;
  border-top: 3px solid transparent;
  color: var(--soft);
  text-decoration: none;
  padding: 0 2px;
}
.stage[aria-current] {
  border-bottom-color: var(--ink);
  color: var(--ink);
  font-weight: 600;
}
/* A stage that answers the question of the study. */
.stage.answers {
  border-top-color: var(--green);
  color: var(--ink);
}
.dot {
  width: 7px;
  height: 7px;
  border: 1.4px solid var(--soft);
  border-radius: 50%;
}
.dot.full {
  border-color: var(--green);
  background: var(--green);
}
.said {
  display: grid;
  gap: 8px;
  padding: 0 20px 10px;
}
/* The sheet has no subject bar above it. */
.path + .said {
  padding-top: 10px;
}
.said :deep(.el-button) {
  margin-left: 8px;
}
.stage-view {
  flex: 1;
  min-height: 0;
  padding: 0 20px 16px;
}
.state {
  max-width: 560px;
  margin: 110px auto;
  padding: 0 20px;
}
.state a {
  margin-left: 14px;
}
@media (max-width: 900px) {
  .frame {
    height: auto;
    min-height: 100%;
  }
}
@media print {
  .frame {
    display: block;
    height: auto;
  }
  .stage-view {
    padding: 0;
  }
}
</style>
