<script setup lang="ts">
import type { RecordEntry } from '@verdict/contract';
import { ref, watch } from 'vue';
import { api, ApiError } from '../api/client.js';
import { formatTime } from './time.js';
import { useStudy } from '../stores/study.js';

/** Every change of the study, the newest first: what, who, when, why. */
const open = defineModel<boolean>({ required: true });
const store = useStudy();
const entries = ref<RecordEntry[]>([]);
const failed = ref('');

watch([open, () => store.study?.revision], async () => {
  if (!open.value || !store.study) return;
  try {
    entries.value = await api.readRecord(store.study.id);
    failed.value = '';
  } catch (error) {
    failed.value = error instanceof ApiError ? error.problem.detail : String(error);
  }
});
</script>

<template>
  <el-drawer v-model="open" title="Record" size="440" append-to-body>
    <p v-if="failed" class="said-wrong" role="alert">{{ failed }}</p>
    <p v-else-if="entries.length === 0" class="soft">Nothing has been changed yet.</p>
    <ol class="record">
      <li v-for="entry in entries" :key="entry.revision">
        <div>
          <span class="number">{{ entry.revision }}</span>
          <template v-if="entry.undoes !== null">Undone {{ entry.undoes }}: </template>{{ entry.text }}
        </div>
        <div v-if="entry.reason" class="reason">“{{ entry.reason }}”</div>
        <div class="soft small">{{ entry.who }}, {{ formatTime(entry.at) }}</div>
      </li>
    </ol>
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
.number {
  display: inline-block;
  min-width: 26px;
  color: var(--soft);
}
.reason,
.small {
  padding-left: 26px;
  font-size: 13px;
}
</style>
