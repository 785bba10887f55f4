<script setup lang="ts">
import { DECISION_WORDS, type Decision } from '@verdict/contract';
import { groupThousands } from '@verdict/core/format';
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../../api/client.js';
import DrawnOrSaid from '../../components/drawn-or-said.vue';
import FindingWords from '../../components/finding-words.vue';
import { recomputedWords, standingWords } from '../../components/recomputed-words.js';
import { formatTime } from '../../components/time.js';
import { useEvidence } from '../../stores/evidence.js';
import { useStudy } from '../../stores/study.js';
import { useWho } from '../../stores/who.js';
import KeptPicture from '../../workbench/kept-picture.vue';
import DecisionForm from './decision-form.vue';
import { useKeptPictures } from './use-kept-pictures.js';
import SentenceText from '../../components/fields/sentence-text.vue';

/** The sheet: question, readings, evidence, decision, reason, who. Written here, stored, printed on one page. */
const store = useStudy();
const evidence = useEvidence();
const who = useWho();

const reopening = ref(false);
const reopenReason = ref('');
const busy = ref(false);

const study = computed(() => store.study!);
const standing = computed(() => (store.ruled ? (study.value.verdicts[0] ?? null) : null));
const earlier = computed(() => study.value.verdicts.filter((verdict) => verdict !== standing.value));
/** The evidence the verdict rests on: what it names once ruled, all that is kept before. */
const shown = computed(() => {
  const named = standing.value?.evidence;
  return named ? evidence.items.filter(({ id }) => named.includes(id)) : evidence.items;
});
const asideHere = computed(() => study.value.setAside.filter(({ column }) => column === study.value.subject));
/** Those that were set aside since are told among these. */
const leftHere = computed(() => {
  const aside = new Set(asideHere.value.map(({ row }) => row));
  return study.value.leftIn.filter(({ column, row }) => column === study.value.subject && !aside.has(row));
});
const valueOf = (row: number) => (store.cells[study.value.subject ?? ''] ?? [])[row - 1] ?? '';
const { pictures } = useKeptPictures(shown);

function setQuestion(text: string): void {
  const question = text.trim();
  if (question !== study.value.question) store.change({ kind: 'change-study', question });
}

async function rule(decision: Decision, reason: string): Promise<void> {
  busy.value = true;
  const body = { who: who.name, decision, reason, evidence: evidence.items.map(({ id }) => id) };
  await store.settled(({ id, revision }) => api.rule(id, { ...body, revision }));
  busy.value = false;
}
async function reopen(): Promise<void> {
  if (!reopenReason.value.trim()) return;
  const body = { who: who.name, reason: reopenReason.value };
  if (await store.settled(({ id, revision }) => api.reopen(id, { ...body, revision }))) {
    reopening.value = false;
    reopenReason.value = '';
  }
}
const print = () => window.print();
const readings = (n: number) => `${groupThousands(n)} ${n === 1 ? 'reading' : 'readings'}`;
</script>

<template>
  <div class="verdict">
    <article id="sheet" class="sheet card" tabindex="-1">
      <header>
        <p class="soft kicker">Verdict{{ store.ruled ? '' : ', not yet ruled' }}</p>
        <h1>{{ study.name || 'untitled study' }}</h1>
      </header>
      <section>
        <h2>Question</h2>
        <p v-if="store.ruled" class="serif">{{ study.question || 'No question was written down.' }}</p>
        <SentenceText
          v-else
          multiline
          class="written serif"
          aria-label="Question"
          rows="2"
          maxlength="500"
          placeholder="What has to be decided?"
          :model-value="study.question"
          @update:model-value="setQuestion"
        />
        <p v-if="!store.ruled" class="print-only serif">{{ study.question }}</p>
      </section>
      <section v-if="standing" class="decision">
        <h2>Decision</h2>
        <p class="ruling">{{ DECISION_WORDS[standing.decision] }}</p>
        <p class="serif">{{ standing.reason }}</p>
        <p class="soft">{{ standing.who }}, {{ formatTime(standing.at) }}, after change {{ standing.revision }}</p>
      </section>
      <section>
        <h2>Readings</h2>
        <p v-if="store.sample && store.subject">
          {{ store.subject.name }}<template v-if="store.subject.unit">, {{ store.subject.unit }}</template
          >: {{ readings(store.sample.values.length) }} used<template v-if="store.sample.missing"
            >, {{ store.sample.missing }} missing</template
          ><template v-if="store.sample.unreadable">, {{ store.sample.unreadable }} not a number</template>,
          {{ asideHere.length || 'none' }} set aside. Level {{ study.alpha }}.
        </p>
        <p v-else class="soft">No readings yet.</p>
        <ul v-if="asideHere.length">
          <li v-for="reading in asideHere" :key="reading.row">
            row {{ reading.row }}, {{ valueOf(reading.row) }}: {{ reading.reason }}
            <span class="soft">({{ reading.who }})</span>
          </li>
        </ul>
        <template v-if="leftHere.length">
          <p>Looked at and left in on purpose:</p>
          <ul>
            <li v-for="reading in leftHere" :key="reading.row">
              row {{ reading.row }}, {{ valueOf(reading.row) }}: {{ reading.reason }}
              <span class="soft">({{ reading.who }})</span>
            </li>
          </ul>
        </template>
      </section>
      <section>
        <h2>Evidence</h2>
        <p v-if="shown.length === 0" class="soft">
          Nothing kept. <RouterLink class="no-print" :to="{ name: 'fit' }">Look at the fit</RouterLink
          ><span class="no-print"> and press K to keep what you see.</span>
        </p>
        <div v-for="item in shown" :key="item.id" class="item">
          <FindingWords :pieces="item.finding" />
          <p class="soft small">
            {{ item.method }}
            <template v-if="item.column !== null"
              >Change {{ item.revision }}, data {{ item.fingerprint.slice(0, 12) }},
            </template>
            Verdict
            {{ item.appVersion }}. {{ item.who }}, {{ formatTime(item.at) }}. Recomputed:
            <span :class="{ doubt: item.recomputed && !item.recomputed.same }">{{ standingWords(item) }}</span>.
          </p>
          <p v-if="item.note">{{ item.note }}</p>
          <p class="small no-print">
            <el-button link @click="evidence.recompute(item.id)">Recompute</el-button>
            <span role="status">{{
              recomputedWords(
                evidence.recomputed[item.id],
                item.column === null || store.ruled ? null : (store.study?.revision ?? null),
              )
            }}</span>
          </p>
        </div>
        <div v-if="pictures.length" class="plot">
          <DrawnOrSaid v-for="{ item, draw } in pictures" :key="item.id"><KeptPicture :draw="draw" /></DrawnOrSaid>
        </div>
      </section>
      <section v-for="verdict in earlier" :key="verdict.id" class="soft small">
        Earlier: {{ DECISION_WORDS[verdict.decision] }} ({{ verdict.who }}, {{ formatTime(verdict.at) }}:
        {{ verdict.reason }})<template v-if="verdict.reopened"
          >; reopened by {{ verdict.reopened.who }}, {{ formatTime(verdict.reopened.at) }}:
          {{ verdict.reopened.reason }}</template
        >.
      </section>
    </article>
    <aside id="decision" class="no-print side" tabindex="-1">
      <DecisionForm
        v-if="!standing"
        :who="who.name"
        :evidence-count="evidence.items.length"
        :earlier="earlier[0]?.decision ?? null"
        :busy="busy"
        @rule="rule"
      />
      <section v-else class="card box">
        <h2>On record</h2>
        <p>{{ DECISION_WORDS[standing.decision] }}, by {{ standing.who }}.</p>
        <el-button v-if="!reopening" @click="reopening = true">Reopen …</el-button>
        <template v-else>
          <label class="soft"
            >Why is it opened again?
            <SentenceText
              v-model="reopenReason"
              live
              multiline
              aria-label="Reason for reopening"
              rows="3"
              maxlength="1000"
            />
          </label>
          <el-button type="primary" :disabled="!reopenReason.trim()" @click="reopen">Reopen</el-button>
          <el-button @click="reopening = false">Leave it closed</el-button>
        </template>
      </section>
      <el-button @click="print">Print this sheet</el-button>
    </aside>
  </div>
</template>

<style scoped>
.doubt {
  color: var(--ochre-text);
  font-weight: 600;
}
.verdict {
  display: grid;
  grid-template-columns: minmax(0, 786fr) minmax(280px, 436fr);
  gap: 18px;
  align-items: start;
  height: 100%;
  overflow: auto;
}
.sheet {
  padding: 26px 34px;
}
.kicker {
  margin: 0;
  font-size: 13px;
}
h1 {
  margin: 0 0 12px;
  font: 500 24px/1.3 var(--serif);
  overflow-wrap: anywhere;
}
h2 {
  margin: 14px 0 4px;
  font-size: 13px;
  font-weight: 600;
}
p {
  margin: 4px 0;
  overflow-wrap: anywhere;
}
.serif {
  font: 16px/1.45 var(--serif);
}
.item {
  margin: 6px 0 10px;
}
.item :deep(.finding) {
  font-size: 16px;
}
.small {
  font-size: 12.5px;
}
.plot {
  display: grid;
  grid-auto-columns: minmax(0, 1fr);
  grid-auto-flow: column;
  gap: 14px;
  height: 300px;
  margin-top: 8px;
}
.decision {
  margin: 12px 0 4px;
  border-left: 3px solid var(--green);
  padding-left: 14px;
}
.ruling {
  color: var(--green);
  font: 500 22px/1.4 var(--serif);
}
.ruling::first-letter {
  text-transform: uppercase;
}
.side {
  display: grid;
  gap: 12px;
  justify-items: start;
}
.box {
  width: 100%;
  padding: 6px 18px 16px;
}
ul {
  margin: 2px 0;
  padding-left: 18px;
}
.print-only {
  display: none;
}
@media (max-width: 900px) {
  .verdict {
    grid-template-columns: minmax(0, 1fr);
    height: auto;
  }
}
@media print {
  .verdict {
    display: block;
    height: auto;
    overflow: visible;
  }
  .sheet {
    border: 0;
    padding: 0;
  }
  .written {
    display: none;
  }
  .print-only {
    display: block;
  }
  .item {
    margin: 4px 0 7px;
  }
  .item :deep(.finding) {
    font-size: 15px;
  }
  .small {
    font-size: 11.5px;
  }
  .plot {
    height: 205px;
    break-inside: avoid;
  }
  .decision {
    break-inside: avoid;
  }
}
</style>
