<script setup lang="ts">
import { DECISION_WORDS, type StudySummary } from '@verdict/contract';
import { useFileDialog, useTimeoutFn } from '@vueuse/core';
import { computed, onMounted, ref, watch } from 'vue';
import { RouterLink, useRouter } from 'vue-router';
import { groupThousands } from '@verdict/core/format';
import { api, ApiError } from '../../api/client.js';
import CautionNote from '../../components/caution-note.vue';
import PageHead from '../../components/page-head.vue';
import { formatTime } from '../../components/time.js';

/** Home: the studies, and the bin. The list is asked for again after these pauses, in milliseconds, while something is still being counted. */
const FIRST_PAUSE = 300;
const LONGEST_PAUSE = 10_000;
const router = useRouter();
const inBin = ref(false);
const studies = ref<StudySummary[] | null>(null);
const problem = ref('');

async function guarded(call: () => Promise<void>): Promise<void> {
  try {
    problem.value = '';
    await call();
  } catch (error) {
    problem.value = error instanceof ApiError ? error.problem.detail : String(error);
  }
}
const load = () => guarded(async () => void (studies.value = await api.listStudies(inBin.value)));
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

const create = () =>
  guarded(async () => {
    const { id } = await api.createStudy();
    await router.push({ name: 'readings', params: { id } });
  });
/** A saved study, chosen or dropped, opens as it is; readings belong into a study, new or not. */
const { open: chooseFile, onChange } = useFileDialog({ accept: '.json', multiple: false, reset: true });
onChange((files) => void openStudy(files?.[0]));
async function openStudy(file: File | undefined): Promise<void> {
  if (!file) return;
  const { openFile } = await import('../../files/open-file.js');
  const opened = await openFile(file);
  if ('refusal' in opened) problem.value = opened.refusal;
  else if ('incoming' in opened) problem.value = `${file.name} holds readings, not a study. Open it inside a study.`;
  else
    await guarded(async () => {
      const { id } = await api.openSaved(opened.study);
      await router.push({ name: 'readings', params: { id } });
    });
}
const moveToBin = (id: string) => guarded(() => api.binStudy(id).then(load));
const restore = (id: string) => guarded(() => api.restoreStudy(id).then(load));

const titleOf = ({ name }: StudySummary) => name || 'untitled study';
const stateOf = ({ state, decision }: StudySummary) =>
  state === 'ruled' && decision ? `ruled: ${DECISION_WORDS[decision]}` : state;
const countOf = ({ n, counting }: StudySummary) => (n === null ? (counting ? 'counting …' : '–') : groupThousands(n));
const empty = computed(() => studies.value?.length === 0);
</script>

<template>
  <div>
    <PageHead home />
    <main class="home" @dragover.prevent @drop.prevent="openStudy($event.dataTransfer?.files[0])">
      <div class="top">
        <h1>{{ inBin ? 'Studies in the bin' : 'Studies' }}</h1>
        <el-button link @click="inBin = !inBin">{{ inBin ? 'Back to the studies' : 'Bin' }}</el-button>
        <el-button v-if="!inBin" link @click="chooseFile()">Open a saved study</el-button>
        <el-button v-if="!inBin" type="primary" @click="create">New study</el-button>
      </div>
      <CautionNote v-if="problem" lead="Not done" tone="wrong">
        {{ problem }} <el-button link @click="load">Try again</el-button>
      </CautionNote>
      <p v-if="!studies && !problem" class="soft" aria-busy="true">Reading the list …</p>
      <p v-else-if="empty" class="soft">
        {{
          inBin
            ? 'The bin is empty.'
            : 'No study yet. A new one needs nothing but readings to paste; it can be named later.'
        }}
      </p>
      <div v-else-if="studies" class="card list">
        <table class="figures">
          <thead>
            <tr>
              <th>study</th>
              <th>state</th>
              <th>subject</th>
              <th class="number">readings</th>
              <th class="number">{{ inBin ? 'deleted' : 'last change' }}</th>
              <th><span class="unseen">actions</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="study in studies" :key="study.id">
              <td class="name">
                <span v-if="inBin">{{ titleOf(study) }}</span>
                <RouterLink v-else :to="{ name: 'readings', params: { id: study.id } }">{{
                  titleOf(study)
                }}</RouterLink>
              </td>
              <td>
                <span class="state" :class="study.state">{{ stateOf(study) }}</span>
              </td>
              <td>
                <span v-if="study.fault" class="fault" role="note">{{ study.fault }}</span>
                <template v-else>{{ study.subject ?? '–' }}</template>
              </td>
              <td class="number">{{ countOf(study) }}</td>
              <td class="number soft">
                {{ formatTime(inBin && study.deletedAt ? study.deletedAt : study.changedAt) }}
              </td>
              <td class="number">
                <el-button v-if="inBin" link :aria-label="`Restore ${titleOf(study)}`" @click="restore(study.id)">
                  Restore
                </el-button>
                <el-button v-else link :aria-label="`Move ${titleOf(study)} to the bin`" @click="moveToBin(study.id)">
                  To the bin
                </el-button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </main>
  </div>
</template>

<style scoped>
.fault {
  display: block;
  max-width: 30ch;
  color: var(--ochre-text);
  font-size: 12px;
}
.home {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 14px;
  max-width: 1100px;
  margin: 34px auto;
  padding: 0 20px;
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
.list {
  position: relative;
  padding: 8px 18px;
  overflow-x: auto;
}
.list td {
  padding-top: 10px;
  padding-bottom: 10px;
}
.name a {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
.name a:hover {
  color: var(--green);
}
.state.ruled {
  color: var(--green);
  font-weight: 500;
}
</style>
