<script setup lang="ts">
import type { Evidence } from '@verdict/contract';
import { analysisById } from '@verdict/core/analyses';
import FindingWords from '../../components/finding-words.vue';
import { formatTime } from '../../language/language.js';
import { useEvidence } from '../../stores/evidence.js';
import { useStudy } from '../../stores/study.js';

/** Evidence that is kept and does not stand in the report: left out, or run again since. The sheet says that there is such. */
const props = defineProps<{ items: readonly Evidence[] }>();
const store = useStudy();
const evidence = useEvidence();
const nameOf = ({ analysis }: Evidence) => analysisById(analysis).name;
const isReplaced = ({ id }: Evidence) => evidence.items.some(({ replaces }) => replaces === id);
const title = () => `Excluded from the report (${props.items.length})`;
</script>

<template>
  <details class="card">
    <summary>{{ title() }}</summary>
    <article v-for="item in items" :key="item.id" :aria-label="`Excluded: ${nameOf(item)}`">
      <p class="head">
        {{ nameOf(item) }}
        <span class="soft"
          >{{ isReplaced(item) ? 'run again since; ' : '' }}{{ item.who }}, {{ formatTime(item.at) }}</span
        >
        <el-button
          v-if="!store.ruled"
          link
          :aria-label="`Include the ${nameOf(item).toLowerCase()} in the report again`"
          @click="evidence.say(item.id, { leftOut: false })"
          >Include it again</el-button
        >
      </p>
      <FindingWords :pieces="item.finding" />
      <p v-if="item.note" class="soft">{{ item.note }}</p>
    </article>
  </details>
</template>

<style scoped>
details {
  padding: 8px 18px;
}
summary {
  cursor: pointer;
  font-size: 13px;
}
article {
  margin-top: 8px;
  border-top: 1px solid var(--line);
  padding-top: 6px;
  font-size: 13px;
}
p {
  margin: 2px 0;
}
.head {
  font-weight: 600;
}
.head .soft {
  font-weight: 400;
}
article :deep(.finding) {
  font-size: 14.5px;
}
</style>
