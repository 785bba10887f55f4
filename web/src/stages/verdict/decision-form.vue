<script setup lang="ts">
import { DECISION_WORDS, DECISIONS, type Decision } from '@verdict/contract';
import { ref } from 'vue';
import SentenceText from '../../components/fields/sentence-text.vue';

/** The decision and its reason; neither is taken without the other. */
const props = defineProps<{ who: string; evidenceCount: number; earlier: Decision | null; busy: boolean }>();
const emit = defineEmits<{ rule: [decision: Decision, reason: string] }>();

const decision = ref<Decision | undefined>(props.earlier ?? undefined);
const reason = ref('');
const missing = ref('');

function rule(): void {
  missing.value = '';
  if (!decision.value) missing.value = 'Choose a decision first.';
  else if (!reason.value.trim()) missing.value = 'Say why: the reason is what somebody will read in a year.';
  else emit('rule', decision.value, reason.value.trim());
}
</script>

<template>
  <section class="card box">
    <h2>Your decision</h2>
    <el-radio-group v-model="decision" class="choices" aria-label="Decision">
      <el-radio v-for="choice in DECISIONS" :key="choice" :value="choice">{{ DECISION_WORDS[choice] }}</el-radio>
    </el-radio-group>
    <label class="soft"
      >Reason
      <SentenceText
        v-model="reason"
        live
        multiline
        aria-label="Reason for the decision"
        rows="5"
        maxlength="1000"
        placeholder="What you saw, and why it settles the question"
      />
    </label>
    <p v-if="missing" class="said-wrong" role="alert">{{ missing }}</p>
    <p v-if="evidenceCount === 0" class="soft small">No evidence is kept: the verdict would rest on your word alone.</p>
    <el-button type="primary" :loading="busy" @click="rule">Put on record as {{ who }}</el-button>
    <p class="soft small">The study is then closed to changes until it is reopened with a reason.</p>
  </section>
</template>

<style scoped>
.box {
  width: 100%;
  padding: 6px 18px 16px;
}
h2 {
  margin: 14px 0 4px;
  font-size: 13px;
  font-weight: 600;
}
.choices {
  display: grid;
  justify-items: start;
  margin: 0 0 10px;
}
.choices .el-radio {
  height: 26px;
}
.small {
  margin: 6px 0;
  font-size: 12.5px;
}
</style>
