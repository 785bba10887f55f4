<script setup lang="ts">
import { DECISION_WORDS, decisionsOf, type AskedKind, type Decision, type Verdict } from '@verdict/contract';
import { FAMILIES } from '@verdict/core/distributions';
import { computed, ref } from 'vue';
import SentenceChoice from '../../components/fields/sentence-choice.vue';
import SentenceText from '../../components/fields/sentence-text.vue';
import { QUESTION_CHOICES } from '../../path/questions.js';

/** The decision by its question, its reason, and why anything is left open; none is taken without the others. */
const props = defineProps<{
  who: string;
  evidenceCount: number;
  asks: AskedKind | null;
  earlier: Verdict | null;
  /** What is open, in words; empty if nothing is. */
  open: string;
  busy: boolean;
}>();
export interface Decided {
  decision: Decision;
  family: string | null;
  reason: string;
  leftOpen: string;
}
const emit = defineEmits<{ rule: [decided: Decided]; ask: [asks: AskedKind | null] }>();

const decision = ref<Decision | undefined>(props.earlier?.decision);
const family = ref(props.earlier?.family ?? '');
const reason = ref('');
const leftOpen = ref('');
const missing = ref('');

const asked = computed({
  get: () => props.asks ?? '',
  set: (kind) => emit('ask', kind === '' ? null : kind),
});
const choices = computed(() => decisionsOf(props.asks));
const families = [
  { value: '', text: 'choose a distribution' },
  ...FAMILIES.map(({ title }) => ({ value: title, text: title })),
];

function rule(): void {
  const chosen = choices.value.find((choice) => choice === decision.value);
  const named = chosen === 'treat-as-family' ? family.value : null;
  missing.value = '';
  if (!chosen) missing.value = 'Choose a decision first.';
  else if (named === '') missing.value = 'Choose the distribution.';
  else if (!reason.value.trim()) missing.value = 'Enter the reason. Somebody may read it in a year.';
  else if (props.open && !leftOpen.value.trim())
    missing.value = 'Answer what is open, or state why it stays open. The report shows both.';
  else
    emit('rule', {
      ...{ decision: chosen, family: named, reason: reason.value.trim() },
      leftOpen: props.open ? leftOpen.value.trim() : '',
    });
}
</script>

<template>
  <section class="card box">
    <h2>Your decision</h2>
    <p class="soft asked">
      <SentenceChoice v-model="asked" aria-label="Decision" :options="QUESTION_CHOICES" />
    </p>
    <el-radio-group v-model="decision" class="choices" aria-label="Decision">
      <el-radio v-for="choice in choices" :key="choice" :value="choice">{{ DECISION_WORDS[choice] }} </el-radio>
    </el-radio-group>
    <p v-if="decision === 'treat-as-family'" class="family">
      treat as <SentenceChoice v-model="family" aria-label="Distribution of the decision" :options="families" />
    </p>
    <label class="soft"
      >Reason
      <SentenceText
        v-model="reason"
        live
        multiline
        aria-label="Reason for the decision"
        :rows="open ? 3 : 5"
        maxlength="1000"
        placeholder="What the results show, and why they answer the question"
      />
    </label>
    <label v-if="open" class="soft open"
      ><span>{{ open }}</span>
      <SentenceText
        v-model="leftOpen"
        live
        multiline
        aria-label="Why it stays open"
        rows="2"
        maxlength="1000"
        placeholder="Answer each caution, or state here why it may stay open"
      />
    </label>
    <p v-if="missing" class="said-wrong" role="alert">{{ missing }}</p>
    <p v-if="evidenceCount === 0" class="soft small">
      No evidence is kept, so the verdict would not be supported by any result.
    </p>
    <el-button type="primary" :loading="busy" @click="rule">Record the verdict as {{ who }}</el-button>
    <p class="soft small">The study is then closed to changes until it is reopened with a reason.</p>
  </section>
</template>

<style scoped>
.box {
  width: 100%;
  padding: 6px 18px 12px;
}
h2 {
  margin: 10px 0 4px;
  font-size: 13px;
  font-weight: 600;
}
.asked {
  margin: 0 0 4px;
}
.choices {
  display: grid;
  justify-items: start;
  margin: 0 0 8px;
}
.choices .el-radio {
  height: 25px;
}
.family {
  margin: 0 0 8px;
}
.open {
  display: block;
  margin-top: 8px;
}
.open span {
  display: block;
  border-left: 3px solid var(--ochre);
  padding-left: 10px;
  color: var(--ink);
  font-size: 13px;
}
.small {
  margin: 6px 0;
  font-size: 12.5px;
}
.el-button {
  margin-top: 8px;
}
</style>
