<script setup lang="ts">
import { QUESTION_WORDS, QUESTIONS, type AskedKind, type StudySummary } from '@verdict/contract';
import { useEventListener, useFileDialog, useIntersectionObserver, useTimeoutFn } from '@vueuse/core';
import { groupThousands } from '@verdict/core/format';
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api, ApiError } from '../../api/client.js';
import CautionNote from '../../components/caution-note.vue';
import PageHead from '../../components/page-head.vue';
import WordMenu from '../../components/word-menu.vue';
import { useWaitingReadings } from '../../composables/use-waiting-readings.js';
import { pasted, type Incoming } from '../../files/incoming.js';
import LanguageChoice from '../../language/language-choice.vue';
import { useWho } from '../../stores/who.js';
import { takeList } from './first-list.js';
import FirstSteps from './first-steps.vue';
import StudyList from './study-list.vue';
import StudySearch from './study-search.vue';
import { useFound } from './use-found.js';

/** Home: the studies, and the bin. The list is asked for again after these pauses, in milliseconds, while something is still being counted. */
const FIRST_PAUSE = 300;
const LONGEST_PAUSE = 10_000;
const router = useRouter();
const inBin = ref(false);
const who = useWho();
// Shallow: thousands of studies are shown, none is changed in place.
const studies = shallowRef<StudySummary[] | null>(null);
const problem = ref('');

async function guarded(call: () => Promise<void>): Promise<void> {
  try {
    problem.value = '';
    await call();
  } catch (error) {
    problem.value = error instanceof ApiError ? error.problem.detail : String(error);
  }
}
const load = () => guarded(async () => void (studies.value = await (inBin.value ? api.listStudies(true) : takeList())));
/** Large studies are counted after the list has come: it is asked for again until all are. */
const pause = ref(FIRST_PAUSE);
const { start: lookAgain, stop } = useTimeoutFn(() => void load(), pause, { immediate: false });
watch(studies, (list) => {
  if (!list?.some(({ counting }) => counting)) return stop();
  lookAgain();
  pause.value = Math.min(LONGEST_PAUSE, pause.value * 1.5);
});
onMounted(() => {
  document.title = 'Verdict';
  void load();
});
watch(inBin, () => {
  studies.value = null;
  void load();
});

/** A new study, open at its readings; `query` says how it begins, `asks` what it is about. */
const create = (query: Record<string, string> = {}, asks: AskedKind | null = null) =>
  guarded(async () => {
    const { id } = await api.createStudy({ asks });
    await router.push({ name: 'readings', params: { id }, query });
  });
const ASKS = QUESTIONS.map((id) => ({ id, title: QUESTION_WORDS[id] }));
const setTags = ({ id, revision }: StudySummary, tags: string[]) =>
  guarded(async () => {
    const change = { kind: 'change-study', tags };
    await api.change(id, { token: crypto.randomUUID(), revision, who: who.name, change });
    await load();
  });
const found = useFound(studies);
/** The end of the list comes into sight: then there is more of it. */
const end = ref<HTMLElement>();
useIntersectionObserver(end, ([seen]) => seen?.isIntersecting && found.more(), { rootMargin: '300px' });

const elsewhere = useWaitingReadings();
/** Readings that were pasted or opened here begin a study of their own. */
const begin = (readings: Incoming) => (elsewhere.waiting.value = readings);
watch(elsewhere.waiting, (readings) => {
  if (readings !== null) void create();
});
useEventListener('paste', elsewhere.keepOut, { capture: true });
async function pasteByButton(): Promise<void> {
  try {
    begin(pasted(await navigator.clipboard.readText()));
  } catch {
    problem.value = 'The browser does not allow reading the clipboard with a button here. Press Ctrl + V instead.';
  }
}
useEventListener('paste', (event: ClipboardEvent) => {
  if (inBin.value || (event.target as HTMLElement).closest?.('input, textarea')) return;
  const text = event.clipboardData?.getData('text/plain') ?? '';
  if (text.trim() !== '') begin(pasted(text));
});

const { open: chooseFile, onChange } = useFileDialog({
  accept: '.csv,.tsv,.txt,.json,.xlsx,.zip,text/csv',
  multiple: false,
  reset: true,
});
onChange((files) => void openFrom(files?.[0]));
/** A saved study opens as it is; readings begin a study of their own. */
async function openFrom(file: File | undefined): Promise<void> {
  if (!file) return;
  const { openFile } = await import('../../files/open-file.js');
  const opened = await openFile(file);
  if ('refusal' in opened) problem.value = opened.refusal;
  else if ('incoming' in opened) begin(opened.incoming);
  else
    await guarded(async () => {
      const { id } = await api.openSaved(opened.study, who.name);
      await router.push({ name: 'readings', params: { id } });
    });
}
const moveToBin = (id: string) => guarded(() => api.binStudy(id, who.name).then(load));
const restore = (id: string) => guarded(() => api.restoreStudy(id, who.name).then(load));

const empty = computed(() => studies.value?.length === 0);
/** Nothing here but the examples: somebody is new. */
const isNew = computed(() => !inBin.value && (studies.value?.every(({ example }) => example) ?? false));
</script>

<template>
  <div>
    <PageHead home />
    <main class="home" @dragover.prevent @drop.prevent="openFrom($event.dataTransfer?.files[0])">
      <div class="top">
        <h1>{{ inBin ? 'Studies in the bin' : 'Studies' }}</h1>
        <el-button link @click="inBin = !inBin">{{ inBin ? 'Back to the studies' : 'Bin' }}</el-button>
        <el-button v-if="!inBin && !isNew" link @click="chooseFile()">Open a file</el-button>
        <WordMenu
          v-if="studies && !inBin && !isNew"
          title="Start from a question"
          :items="ASKS"
          @choose="(id) => create({}, id as AskedKind)"
        />
        <el-button v-if="!inBin" type="primary" @click="create()">New study</el-button>
      </div>
      <CautionNote v-if="problem" lead="Not done" tone="wrong">
        {{ problem }} <el-button link @click="load">Try again</el-button>
      </CautionNote>
      <FirstSteps
        v-if="isNew"
        @paste="pasteByButton"
        @open="chooseFile()"
        @make-up="create({ begin: 'made-up' })"
        @ask="(asks) => create({}, asks)"
      />
      <p v-if="!studies && !problem" class="soft" aria-busy="true">Loading …</p>
      <StudySearch v-if="studies && !empty && !isNew" :found="found" />
      <p v-if="empty" class="soft">
        {{ inBin ? 'The bin is empty.' : 'No studies yet. To create one, paste readings; it can be named later.' }}
      </p>
      <p v-else-if="studies && found.all.value.length === 0" class="soft" role="status">
        No study matches all of these words (name, question, columns, decision, tags).
      </p>
      <StudyList
        v-else-if="studies"
        :studies="found.shown.value"
        :in-bin="inBin"
        :by="found.wanted.value.by"
        :turned="found.wanted.value.turned"
        :known-tags="found.tags.value.map(({ tag }) => tag)"
        @sort="found.sortBy"
        @tag="found.chooseTag"
        @tags="setTags"
        @restore="restore"
        @bin="moveToBin"
      />
      <p v-if="found.left.value > 0" ref="end">
        <el-button @click="found.more">Show more</el-button>
        <span class="soft left">{{ groupThousands(found.left.value) }} more studies</span>
      </p>
      <LanguageChoice class="language-choice" />
    </main>
  </div>
</template>

<style scoped>
.home {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  max-width: 1100px;
  margin: 34px auto;
  padding: 0 20px;
}
.left {
  margin-left: 12px;
}
.language-choice {
  justify-self: end;
}
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
}
h1 {
  flex: 1;
  margin: 0;
  font: 500 26px var(--serif);
}
</style>
