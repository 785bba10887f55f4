<script setup lang="ts">
import { QUESTION_WORDS } from '@verdict/contract';
import { computed, ref } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import SentenceChoice from '../components/fields/sentence-choice.vue';
import { useStudy } from '../stores/study.js';
import { openWords, QUESTION_CHOICES } from './questions.js';
import { useStanding } from './use-standing.js';

/** The question of the study on the path: the recommended analyses, those viewed, and what is still open. It guides, and blocks nothing. */
const store = useStudy();
const route = useRoute();
const { asks, standing } = useStanding();
const open = ref(false);

const seen = computed(() => standing.value.filter((step) => step.seen).length);
const chosen = computed({
  get: () => asks.value ?? '',
  set: (kind) => store.change({ kind: 'change-study', asks: kind === '' ? null : kind }),
});
const nextOpen = computed(() => standing.value.find((step) => !step.seen) ?? null);
</script>

<template>
  <el-tooltip
    v-model:visible="open"
    trigger="click"
    placement="bottom-end"
    effect="light"
    :show-arrow="false"
    popper-class="guide"
    role="dialog"
    aria-label="The question"
  >
    <template #default>
      <button class="ask" type="button" :aria-expanded="open">
        <template v-if="asks"
          >{{ QUESTION_WORDS[asks] }}
          <span class="count" :class="{ all: seen === standing.length }"
            >{{ seen }} of {{ standing.length }} viewed</span
          ></template
        >
        <template v-else>Start from a question</template>
      </button>
    </template>
    <template #content>
      <section class="steps" aria-label="The question">
        <label class="soft"
          >Question of this study:
          <SentenceChoice
            v-model="chosen"
            aria-label="Question of the study"
            :disabled="store.ruled"
            :options="QUESTION_CHOICES"
          />
        </label>
        <template v-if="asks">
          <ol>
            <li v-for="step in standing" :key="step.words" :class="{ seen: step.seen }">
              <span class="mark" aria-hidden="true">{{ step.seen ? '✓' : '' }}</span>
              <RouterLink
                :to="{ name: step.stage, params: { id: route.params.id }, query: step.query ?? {} }"
                @click="open = false"
                >{{ step.words }}</RouterLink
              >
              <span class="unseen">{{ step.seen ? 'viewed' : 'not viewed' }}</span>
            </li>
          </ol>
          <p class="soft note">
            {{ openWords(standing) || 'All recommended analyses were viewed.' }}
            <template v-if="nextOpen">None of these is required. The report lists those that were not viewed.</template>
          </p>
        </template>
        <p v-else class="soft note">
          The path then marks the stages that help to answer it, and shows what was viewed and what is still open.
        </p>
      </section>
    </template>
  </el-tooltip>
</template>

<style scoped>
.steps {
  width: 330px;
  max-width: calc(100vw - 60px);
  padding: 4px 2px;
  font-size: 14px;
  line-height: 1.45;
}
.ask {
  align-self: center;
  border: 0;
  border-bottom: 1px solid var(--line);
  padding: 2px 4px;
  background: none;
  color: var(--ink);
  font: 500 14px/1.4 var(--serif);
  white-space: nowrap;
  cursor: pointer;
}
.ask:hover {
  border-bottom-color: var(--green);
}
.count {
  margin-left: 4px;
  color: var(--soft);
  font: 12px var(--sans);
}
.count.all {
  color: var(--green);
}
ol {
  margin: 10px 0 8px;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 8px;
  padding: 3px 0;
}
li.seen a {
  color: var(--soft);
}
.mark {
  flex: 0 0 14px;
  color: var(--green);
  font-weight: 600;
}
li:not(.seen) .mark {
  align-self: center;
  height: 11px;
  flex: 0 0 11px;
  margin-right: 3px;
  border: 1.4px solid var(--soft);
  border-radius: 50%;
}
.note {
  margin: 0;
  font-size: 12.5px;
}
</style>
