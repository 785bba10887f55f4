<script setup lang="ts">
import { decisionWords, type Verdict } from '@verdict/contract';
import { ref } from 'vue';
import { api } from '../../api/client.js';
import SentenceText from '../../components/fields/sentence-text.vue';
import { formatTime } from '../../language/language.js';
import { useStudy } from '../../stores/study.js';
import { useWho } from '../../stores/who.js';

/** The verdict as it stands on record, and opening the study again with a reason. */
defineProps<{ verdict: Verdict }>();
const store = useStudy();
const who = useWho();
const reopening = ref(false);
const reason = ref('');

async function reopen(): Promise<void> {
  if (!reason.value.trim()) return;
  const body = { who: who.name, reason: reason.value };
  if (await store.settled(({ id, revision }) => api.reopen(id, { ...body, revision }))) reopening.value = false;
}
</script>

<template>
  <section class="card box" aria-label="Decision on record">
    <h2>On record</h2>
    <p class="ruling">{{ decisionWords(verdict.decision, verdict.family) }}</p>
    <p>{{ verdict.reason }}</p>
    <p v-if="verdict.leftOpen"><span class="soft">Left open:</span> {{ verdict.leftOpen }}</p>
    <p class="soft small">{{ verdict.who }}, {{ formatTime(verdict.at) }}, after change {{ verdict.revision }}</p>
    <el-button v-if="!reopening" @click="reopening = true">Reopen …</el-button>
    <template v-else>
      <label class="soft"
        >Why is it reopened?
        <SentenceText v-model="reason" live multiline aria-label="Reason for reopening" rows="3" maxlength="1000" />
      </label>
      <p class="both">
        <el-button type="primary" :disabled="!reason.trim()" @click="reopen">Reopen</el-button>
        <el-button @click="reopening = false">Cancel</el-button>
      </p>
    </template>
  </section>
</template>

<style scoped>
.box {
  width: 100%;
  padding: 6px 18px 14px;
}
h2 {
  margin: 10px 0 2px;
  font-size: 13px;
  font-weight: 600;
}
p {
  margin: 4px 0;
  overflow-wrap: anywhere;
}
.ruling {
  color: var(--green);
  font: 500 21px/1.4 var(--serif);
}
.ruling::first-letter {
  text-transform: uppercase;
}
.small {
  font-size: 12.5px;
}
.both {
  margin-top: 8px;
}
</style>
