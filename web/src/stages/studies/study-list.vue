<script setup lang="ts">
import { decisionWords, QUESTION_WORDS, type StudySummary } from '@verdict/contract';
import { groupThousands } from '@verdict/core/format';
import { RouterLink } from 'vue-router';
import SmallBars from '../../components/small-bars.vue';
import { formatTime } from '../../language/language.js';
import type { SortBy } from './found-studies.js';
import StudyTags from './study-tags.vue';

/** The studies as a table, each with its question and a small picture; sorted by its heads; in the bin they can be restored. */
const props = defineProps<{
  studies: readonly StudySummary[];
  inBin: boolean;
  by: SortBy;
  turned: boolean;
  knownTags: readonly string[];
}>();
const emit = defineEmits<{
  restore: [id: string];
  bin: [id: string];
  sort: [by: SortBy];
  tag: [tag: string];
  tags: [study: StudySummary, tags: string[]];
}>();

const HEADS: readonly { by: SortBy; words: string; number?: boolean; up: boolean }[] = [
  { by: 'name', words: 'study', up: true },
  { by: 'state', words: 'state', up: true },
  { by: 'readings', words: 'subject', up: false },
  { by: 'changed', words: 'last change', number: true, up: false },
];
const wordsOf = ({ by, words }: (typeof HEADS)[number]) => (by === 'changed' && props.inBin ? 'deleted' : words);
/** The sort direction of a head for screen readers. */
function sortedAs({ by, up }: (typeof HEADS)[number]): 'ascending' | 'descending' | undefined {
  if (by !== props.by) return undefined;
  return up !== props.turned ? 'ascending' : 'descending';
}
const arrowOf = (head: (typeof HEADS)[number]) =>
  ({ ascending: '↑', descending: '↓', none: '' })[sortedAs(head) ?? 'none'];

const titleOf = ({ name }: StudySummary) => name || 'untitled study';
const stateOf = ({ state, decision, family }: StudySummary) =>
  state === 'ruled' && decision ? `decided: ${decisionWords(decision, family)}` : state;
const countOf = ({ n, counting }: StudySummary) =>
  n === null ? (counting ? 'counting …' : '') : `${groupThousands(n)} ${n === 1 ? 'reading' : 'readings'}`;
/** What tells two studies of one name apart. */
const originOf = ({ openedAt, example }: StudySummary) =>
  openedAt ? `opened from a file, ${formatTime(openedAt)}` : example ? 'an example' : '';
const questionOf = ({ question, asks }: StudySummary) => question || (asks ? QUESTION_WORDS[asks] : '');
</script>

<template>
  <div class="card list">
    <table class="figures">
      <thead>
        <tr>
          <th v-for="head in HEADS" :key="head.by" :class="{ number: head.number }" :aria-sort="sortedAs(head)">
            <el-button link class="head" @click="emit('sort', head.by)"
              >{{ wordsOf(head) }}&nbsp;<span aria-hidden="true">{{ arrowOf(head) }}</span></el-button
            >
          </th>
          <th><span class="unseen">actions</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="study in studies" :key="study.id">
          <td class="name">
            <span v-if="inBin">{{ titleOf(study) }}</span>
            <RouterLink v-else :to="{ name: 'readings', params: { id: study.id } }">{{ titleOf(study) }}</RouterLink>
            <small v-if="originOf(study)" class="soft"> {{ originOf(study) }}</small>
            <StudyTags
              v-if="!inBin"
              :tags="study.tags"
              :known="knownTags"
              :name="titleOf(study)"
              :locked="study.state === 'ruled'"
              @choose="(tag) => emit('tag', tag)"
              @change="(tags) => emit('tags', study, tags)"
            />
            <p v-if="questionOf(study)" class="soft question">{{ questionOf(study) }}</p>
          </td>
          <td>
            <span class="state" :class="study.state">{{ stateOf(study) }}</span>
          </td>
          <td class="subject">
            <span v-if="study.fault" class="fault" role="note">{{ study.fault }}</span>
            <div v-else class="seen">
              <SmallBars v-if="study.bins" :counts="study.bins" />
              <span
                >{{ study.subject ?? '–' }}<br /><span class="soft small">{{ countOf(study) }}</span></span
              >
            </div>
          </td>
          <td class="number soft">
            {{ formatTime(inBin && study.deletedAt ? study.deletedAt : study.changedAt) }}<br /><span class="small">{{
              study.changedBy
            }}</span>
          </td>
          <td class="number">
            <!-- Plain buttons: a list has hundreds of them. -->
            <button
              v-if="inBin"
              type="button"
              class="does"
              :aria-label="`Restore ${titleOf(study)}`"
              @click="emit('restore', study.id)"
            >
              Restore
            </button>
            <button
              v-else
              type="button"
              class="does"
              :aria-label="`Delete ${titleOf(study)}`"
              @click="emit('bin', study.id)"
            >
              Delete
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.fault {
  display: block;
  max-width: 30ch;
  color: var(--ochre-text);
  font-size: 12px;
}
.list {
  position: relative;
  padding: 6px 18px;
  overflow-x: auto;
}
.does {
  border: 0;
  padding: 2px 4px;
  background: none;
  color: var(--soft);
  font: inherit;
  white-space: nowrap;
  cursor: pointer;
}
.does:hover {
  color: var(--green);
}
.head.head.head {
  padding: 0;
  font-size: 12px;
}
.list td {
  padding-top: 8px;
  padding-bottom: 8px;
}
.name a {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
.name a:hover {
  color: var(--green);
}
.name small {
  margin-left: 8px;
  font-size: 12px;
}
.question {
  max-width: 84ch;
  margin: 1px 0 0;
  font-size: 12.5px;
}
.seen {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: flex-start;
}
.subject {
  min-width: 190px;
}
.small {
  font-size: 12px;
}
.state.ruled {
  color: var(--green);
  font-weight: 500;
}
</style>
