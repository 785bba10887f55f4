<script setup lang="ts">
import type { Job } from '@verdict/contract';
import { onMounted, onUnmounted } from 'vue';
import { RouterLink } from 'vue-router';
import { api } from '../api/client.js';
import CautionNote from '../components/caution-note.vue';
import PageHead from '../components/page-head.vue';
import { formatTime, local } from '../language/language.js';
import { useJobs } from '../stores/jobs.js';

/** Long work on the server, of all studies: how far it is, and back to where it was asked. */
const jobs = useJobs();
let unfollow = (): void => undefined;
onMounted(() => {
  document.title = 'Jobs · Verdict';
  void jobs.load();
  unfollow = api.followJobs(jobs.hear, () => void jobs.load());
});
onUnmounted(() => unfollow());

const ENDED: Record<Exclude<Job['state'], 'running'>, string> = {
  done: 'done',
  stopped: 'stopped',
  failed: 'failed',
};
const endWords = ({ state, endedAt, share }: Job) => {
  if (state === 'running') return '';
  const at = endedAt ? `, ${formatTime(endedAt)}` : '';
  return `${ENDED[state]}${state === 'stopped' ? ` at ${Math.floor(share * 100)}\u00a0%` : ''}${at}`;
};
</script>

<template>
  <div class="page">
    <PageHead home />
    <main>
      <h1>Jobs</h1>
      <p class="soft">
        Long calculations on the server. They continue when the page is closed and after a restart of the server. The
        result appears on the page where it was requested.
      </p>
      <CautionNote v-if="jobs.problem" lead="Not done" tone="wrong">
        {{ jobs.problem.detail }} <el-button link @click="jobs.load()">Try again</el-button>
      </CautionNote>
      <p v-if="jobs.state === 'loading'" aria-busy="true">Loading …</p>
      <p v-else-if="jobs.items.length === 0 && jobs.state === 'ready'" class="card none">
        There are no jobs. If a simulation would take more than 20 seconds, “Continue on the server” appears next to its
        progress.
      </p>
      <ul v-else class="card" aria-label="Jobs">
        <li v-for="job in jobs.items" :key="job.id">
          <div class="what">
            <RouterLink :to="job.place">{{ job.study.name || 'Untitled study' }}</RouterLink>
            <p>{{ local(job.method) }}</p>
            <p class="soft">started by {{ job.who }}, {{ formatTime(job.at) }}</p>
          </div>
          <div class="how">
            <el-progress
              v-if="job.state === 'running'"
              :percentage="Math.floor(job.share * 100)"
              :stroke-width="8"
              :aria-label="`Progress of ${job.study.name || 'Untitled study'}`"
            />
            <span v-else :class="{ wrong: job.state === 'failed' }">{{ endWords(job) }}</span>
            <p v-if="job.problem" class="soft">{{ job.problem }}</p>
          </div>
          <div class="do">
            <el-button v-if="job.state === 'running'" size="small" @click="jobs.stop(job)">Stop</el-button>
            <el-button v-if="job.state === 'stopped'" size="small" @click="jobs.resume(job)">Continue</el-button>
            <el-button v-if="job.state !== 'running'" size="small" @click="jobs.remove(job)"
              >Remove from the list</el-button
            >
          </div>
        </li>
      </ul>
    </main>
  </div>
</template>

<style scoped>
.page {
  display: flex;
  flex-direction: column;
  min-height: 100%;
}
main {
  width: min(1080px, 100% - 40px);
  margin: 26px auto 60px;
}
h1 {
  margin: 0 0 4px;
  font: 400 26px var(--serif);
}
p {
  margin: 0 0 10px;
}
.none {
  padding: 18px;
}
ul {
  margin: 14px 0 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 210px 170px;
  gap: 20px;
  align-items: start;
  padding: 14px 18px;
  border-bottom: 1px solid var(--line);
  list-style: none;
}
li:last-child {
  border-bottom: 0;
}
.what a {
  font-weight: 600;
}
.what p {
  margin: 4px 0 0;
  font-size: 13px;
}
.how {
  font-size: 13px;
}
.do {
  text-align: right;
}
@media (max-width: 760px) {
  li {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
  .do {
    text-align: left;
  }
}
</style>
