<script setup lang="ts">
import { useDark, useToggle } from '@vueuse/core';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { useOverlay } from '../composables/use-overlay.js';
import { useJobs } from '../stores/jobs.js';
import { useWho } from '../stores/who.js';
import SentenceText from './fields/sentence-text.vue';

/** The head of every page. It knows no study: inside one, the frame puts its name and its evidence here. */
defineProps<{ home?: boolean }>();
const who = useWho();
const jobs = useJobs();
const working = computed(() => jobs.items.filter(({ state }) => state === 'running').length);
const dark = useDark();
const { show } = useOverlay();
const toggleDark = useToggle(dark);

function setWho(text: string): void {
  who.name = text.trim() || 'somebody';
}
</script>

<template>
  <header class="head no-print">
    <RouterLink to="/" class="mark" aria-label="Verdict: all studies">
      <svg width="22" height="22" viewBox="0 0 22 22" fill="none" aria-hidden="true">
        <path d="M2 19C9 18 13 4 20 3" stroke="var(--green)" stroke-width="2.2" stroke-linecap="round" />
        <circle cx="11.4" cy="11" r="3" fill="var(--card)" stroke="var(--ink)" stroke-width="1.8" />
      </svg>
      Verdict
    </RouterLink>
    <template v-if="!home">
      <RouterLink to="/" class="soft crumb">Studies</RouterLink>
      <span class="soft" aria-hidden="true">/</span>
      <slot name="study" />
    </template>
    <span class="room"></span>
    <template v-if="home">
      <RouterLink to="/" class="aside-link" exact-active-class="here">Studies</RouterLink>
      <RouterLink to="/distributions" class="aside-link" active-class="here">Distributions</RouterLink>
      <RouterLink to="/help" class="aside-link" active-class="here">Methods</RouterLink>
    </template>
    <RouterLink v-if="home || jobs.items.length > 0" to="/jobs" class="aside-link" active-class="here"
      >Jobs<template v-if="working">, {{ working }} running</template></RouterLink
    >
    <el-button link @click="show('search')">Search<kbd class="key">/</kbd></el-button>
    <el-button v-if="!home" link @click="show('help')">Help</el-button>
    <slot name="evidence" />
    <label class="soft who"
      >working as
      <SentenceText leaves aria-label="Working as" maxlength="80" :model-value="who.name" @update:model-value="setWho"
    /></label>
    <el-button link :aria-pressed="dark" @click="toggleDark()">{{ dark ? 'Light' : 'Dark' }}</el-button>
  </header>
</template>

<style scoped>
.head {
  display: flex;
  flex: none;
  height: 46px;
  align-items: center;
  gap: 10px;
  padding: 0 20px;
  border-bottom: 1px solid var(--line);
}
.mark {
  display: flex;
  align-items: center;
  gap: 9px;
  margin-right: 4px;
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
.crumb {
  text-decoration: none;
}
.room {
  flex: 1;
}
.aside-link {
  color: var(--ink);
  font-size: 13px;
  text-decoration: none;
}
.aside-link.here {
  border-bottom: 2px solid var(--ink);
  font-weight: 600;
}
.key {
  margin-left: 6px;
}
.who {
  font-size: 13px;
  white-space: nowrap;
}
@media (max-width: 560px) {
  .head {
    flex-wrap: wrap;
    height: auto;
    min-height: 46px;
    padding: 6px 12px;
  }
}
@media (max-width: 760px) {
  .crumb,
  .crumb + span {
    display: none;
  }
}
</style>
