<script setup lang="ts">
import type { Checked, RecordEntry } from '@verdict/contract';
import { OUTSIDE_READINGS } from '@verdict/contract';
import { toDelimited } from '@verdict/core/readings';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api, ApiError } from '../api/client.js';
import { saveFile } from '../files/save-file.js';
import { useStudy } from '../stores/study.js';
import { formatTime, local } from '../language/language.js';
import SentenceChoice from './fields/sentence-choice.vue';
import SentenceText from './fields/sentence-text.vue';

/** Every change of the study, the newest first: what, who, when, why; to find one, go to its place, take it back, save them all; to check the record. */
const open = defineModel<boolean>({ required: true });
const store = useStudy();
const router = useRouter();
const entries = ref<RecordEntry[]>([]);
const failed = ref('');
/** The hash of the last entry of the chain. */
const head = ref<string | null>(null);
const checked = ref<Checked | 'running' | null>(null);
const wanted = ref('');
const kind = ref<'all' | 'cells' | 'columns' | 'aside' | 'decisions'>('all');

async function guarded(work: () => Promise<void>): Promise<void> {
  try {
    await work();
    failed.value = '';
  } catch (error) {
    failed.value = error instanceof ApiError ? error.problem.detail : String(error);
  }
}
watch([open, () => store.study?.revision], () => {
  checked.value = null;
  if (open.value && store.study) void guarded(read);
});
async function read(): Promise<void> {
  const { id } = store.study!;
  const [record, now] = await Promise.all([api.readRecord(id), api.readStudy(id)]);
  entries.value = record;
  head.value = now.head;
}
/** Entries that come in pages: the number of the first one tells whether there are older ones. */
const older = computed(() => (entries.value.at(-1)?.revision ?? 1) - 1);
const readOlder = () =>
  guarded(async () => {
    const page = await api.readRecord(store.study!.id, older.value + 1);
    entries.value = [...entries.value, ...page];
  });
async function check(): Promise<void> {
  checked.value = 'running';
  await guarded(async () => {
    checked.value = await api.auditStudy(store.study!.id);
    store.study!.notVerified = checked.value.notVerified;
  });
  if (checked.value === 'running') checked.value = null;
}

const KINDS: Record<Exclude<typeof kind.value, 'all'>, RecordEntry['kind'][]> = {
  cells: ['edit-cells', 'insert-rows', 'remove-rows'],
  columns: [
    ...(['add-columns', 'remove-columns', 'return-columns', 'change-column'] as const),
    ...(['order-columns', 'freeze-column', 'thaw-column'] as const),
  ],
  aside: ['set-aside', 'put-back', 'leave-in', 'look-again'],
  decisions: ['change-study', 'rule', 'reopen', 'bin', 'restore'],
};
const shown = computed(() => {
  const text = wanted.value.trim().toLowerCase();
  const kinds = kind.value === 'all' ? null : KINDS[kind.value];
  return entries.value.filter(
    (entry) =>
      (!kinds || kinds.includes(entry.kind)) &&
      `${entry.revision} ${entry.text} ${entry.reason ?? ''} ${entry.who}`.toLowerCase().includes(text),
  );
});
const MOST = 300;

const words = ({ undoes, text }: RecordEntry) => (undoes === null ? text : `Undone ${undoes}: ${text}`);
const canTakeBack = (entry: RecordEntry) =>
  !store.ruled && entry.undoneBy === null && !OUTSIDE_READINGS.has(entry.kind);
const canGo = ({ place }: RecordEntry) => place !== null && store.columnById(place.column) !== null;

function go({ place }: RecordEntry): void {
  open.value = false;
  // The same address twice would not move anything: the moment makes it another.
  void router.push({ name: 'readings', query: { row: place!.row, column: place!.column, at: Date.now() } });
}
async function save(): Promise<void> {
  while (older.value > 0 && !failed.value) await readOlder();
  const rows = [...entries.value]
    .reverse()
    .map((e) => [
      String(e.revision),
      e.kind,
      words(e),
      e.reason ?? '',
      e.who,
      e.at,
      e.undoneBy === null ? '' : String(e.undoneBy),
    ]);
  const text = toDelimited([['change', 'kind', 'what', 'why', 'who', 'when', 'undone by'], ...rows], ',');
  saveFile(`record of ${store.study?.name || 'study'}.csv`, text, 'text/csv;charset=utf-8');
}
</script>

<template>
  <el-drawer v-model="open" title="Record" size="480" append-to-body>
    <p v-if="failed" class="said-wrong" role="alert">{{ failed }}</p>
    <p v-else-if="entries.length === 0" class="soft">There are no changes yet.</p>
    <template v-else>
      <div class="filter">
        Show
        <SentenceChoice
          v-model="kind"
          aria-label="Kind of change"
          :options="[
            { value: 'all', text: 'every change' },
            { value: 'cells', text: 'cells and rows' },
            { value: 'columns', text: 'columns' },
            { value: 'aside', text: 'set aside and restored' },
            { value: 'decisions', text: 'study and verdict' },
          ]"
        />
        with <SentenceText v-model="wanted" live aria-label="Words in the record" placeholder="search text" />
        <span class="room"></span>
        <el-button link @click="save">Save as CSV</el-button>
      </div>
      <p v-if="store.refused" class="said-wrong" role="alert">
        {{ store.refused.detail }} <el-button link @click="store.refused = null">Dismiss</el-button>
      </p>
      <div class="checking">
        <el-button size="small" :loading="checked === 'running'" @click="check">Check the record</el-button>
        <p v-if="checked && checked !== 'running'" :role="checked.notVerified ? 'alert' : 'status'">
          <template v-if="checked.notVerified"
            ><b class="said-wrong">Not verified:</b> {{ checked.notVerified }}</template
          >
          <template v-else
            >Verified: {{ checked.entries }} {{ checked.entries === 1 ? 'entry' : 'entries' }} in an unbroken chain;
            cells, evidence and verdicts agree with them.</template
          >
          <template v-if="checked.earlier">
            {{ checked.earlier }} {{ checked.earlier === 1 ? 'change was' : 'changes were' }} recorded before the chain
            began and cannot be verified.</template
          >
        </p>
        <p v-if="head" class="soft">
          Head of the record: <code>{{ head }}</code>. A printed report shows the head at that time.
        </p>
      </div>
      <ol class="record">
        <li v-for="entry in shown.slice(0, MOST)" :key="entry.revision" :class="{ undone: entry.undoneBy !== null }">
          <div>
            <span class="number">{{ entry.revision }}</span>{{ local(words(entry)) }}
          </div>
          <div v-if="entry.reason" class="reason">“{{ entry.reason }}”</div>
          <div class="soft small">
            {{ entry.who }}, {{ formatTime(entry.at) }}
            <template v-if="entry.undoneBy !== null">· undone by change {{ entry.undoneBy }}</template>
            <el-button
              v-if="canGo(entry)"
              link
              :aria-label="`Go to the place of change ${entry.revision}`"
              @click="go(entry)"
            >
              Go there
            </el-button>
            <el-button
              v-if="canTakeBack(entry)"
              link
              :aria-label="`Undo change ${entry.revision}`"
              @click="store.takeBack(entry.revision)"
            >
              Undo
            </el-button>
          </div>
        </li>
      </ol>
      <p v-if="shown.length > MOST" class="soft">
        and {{ shown.length - MOST }} older ones. Refine the search, or save all.
      </p>
      <p v-else-if="shown.length === 0" class="soft">No change matches.</p>
      <p v-if="older > 0" class="soft">
        The {{ older === 1 ? 'oldest change is' : `oldest ${older} changes are` }} not shown.
        <el-button link @click="readOlder">Show older changes</el-button>
      </p>
    </template>
  </el-drawer>
</template>

<style scoped>
.record {
  margin: 0;
  padding: 0;
  list-style: none;
}
.record li {
  padding: 9px 0;
  border-bottom: 1px solid var(--line);
  overflow-wrap: anywhere;
}
.record li > div:first-child {
  padding-left: 26px;
}
.number {
  display: inline-block;
  min-width: 26px;
  margin-left: -26px;
  color: var(--soft);
}
.reason,
.small {
  padding-left: 26px;
  font-size: 13px;
}
.filter {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: baseline;
  padding-bottom: 8px;
}
.room {
  flex: 1;
}
.checking {
  padding-bottom: 8px;
  font-size: 13px;
}
.checking p {
  margin: 6px 0 0;
}
.checking code {
  overflow-wrap: anywhere;
  font-size: 12px;
}
.undone > div:first-child {
  color: var(--soft);
  text-decoration: line-through;
}
</style>
