<script setup lang="ts">
import { DECISION_WORDS, type StudySummary } from '@verdict/contract';
import { groupThousands } from '@verdict/core/format';
import { RouterLink } from 'vue-router';
import { formatTime } from '../../components/time.js';

/** The studies as a table, each with its question; in the bin they can be restored. */
defineProps<{ studies: readonly StudySummary[]; inBin: boolean }>();
const emit = defineEmits<{ restore: [id: string]; bin: [id: string] }>();

const titleOf = ({ name }: StudySummary) => name || 'untitled study';
const stateOf = ({ state, decision }: StudySummary) =>
  state === 'ruled' && decision ? `ruled: ${DECISION_WORDS[decision]}` : state;
const countOf = ({ n, counting }: StudySummary) => (n === null ? (counting ? 'counting …' : '–') : groupThousands(n));
/** What tells two studies of one name apart. */
const originOf = ({ openedAt, example }: StudySummary) =>
  openedAt ? `opened from a file, ${formatTime(openedAt)}` : example ? 'an example' : '';
</script>

<template>
  <div class="card list">
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
            <RouterLink v-else :to="{ name: 'readings', params: { id: study.id } }">{{ titleOf(study) }}</RouterLink>
            <small v-if="originOf(study)" class="soft"> {{ originOf(study) }}</small>
            <p v-if="study.question" class="soft question">{{ study.question }}</p>
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
            <el-button v-if="inBin" link :aria-label="`Restore ${titleOf(study)}`" @click="emit('restore', study.id)">
              Restore
            </el-button>
            <el-button v-else link :aria-label="`Move ${titleOf(study)} to the bin`" @click="emit('bin', study.id)">
              To the bin
            </el-button>
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
  padding: 8px 18px;
  overflow-x: auto;
}
.list .el-button {
  white-space: nowrap;
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
.name small {
  margin-left: 8px;
  font-size: 12px;
}
.question {
  max-width: 62ch;
  margin: 2px 0 0;
  font-size: 12.5px;
}
.state.ruled {
  color: var(--green);
  font-weight: 500;
}
</style>
