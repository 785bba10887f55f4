<script setup lang="ts">
import { computed } from 'vue';
import { termSegments } from '../help/term-segments.js';
import { local } from '../language/language.js';

/** A text whose terms say what they mean where they stand: when they are pointed at or reached by keys. */
const { text } = defineProps<{ text: string }>();
const segments = computed(() => termSegments(local(text)));
</script>

<template>
  <template v-for="({ text: words, term }, i) in segments" :key="i"
    ><el-tooltip
      v-if="term"
      :trigger="['hover', 'focus', 'click']"
      :trigger-keys="[]"
      :show-after="250"
      :persistent="false"
      placement="top"
      effect="light"
      popper-class="term-hint"
      ><template #content
        ><b>{{ term.term }}</b> {{ local(term.meaning) }}
        <span v-if="term.formula" class="formula">{{ local(term.formula) }}</span>
        <span v-if="term.source" class="source">{{ term.source }}</span></template
      ><dfn tabindex="0">{{ words }}</dfn></el-tooltip
    ><template v-else>{{ words }}</template></template
  >
</template>

<style>
dfn {
  font-style: inherit;
  text-decoration: underline dotted var(--soft) 1px;
  text-underline-offset: 3px;
  cursor: help;
}
.term-hint.el-popper {
  max-width: 340px;
  font-size: 12.5px;
}
.term-hint .formula,
.term-hint .source {
  display: block;
  margin-top: 2px;
}
.term-hint .formula {
  font-family: var(--serif);
}
.term-hint .source {
  color: var(--soft);
}
</style>
