<script setup lang="ts">
import { local } from '../language/language.js';
import type { Term } from './terms.js';

/** Words with what they mean, their formula and where it comes from. */
defineProps<{ terms: readonly Term[] }>();
</script>

<template>
  <dl class="terms">
    <template v-for="{ term, meaning, formula, source } in terms" :key="term">
      <dt :id="`term-${term.replace(/\W+/g, '-')}`">{{ term }}</dt>
      <dd>
        {{ local(meaning) }}
        <span v-if="formula" class="formula">{{ local(formula) }}</span>
        <span v-if="source" class="soft source">{{ source }}</span>
      </dd>
    </template>
  </dl>
</template>

<style scoped>
.terms {
  display: grid;
  grid-template-columns: minmax(110px, 150px) minmax(0, 1fr);
  gap: 7px 14px;
  margin: 6px 0;
  font-size: 13px;
}
dt {
  font-weight: 600;
  overflow-wrap: anywhere;
}
dd {
  margin: 0;
}
.formula {
  display: block;
  font: 14px/1.5 var(--serif);
}
.source {
  display: block;
  font-size: 12px;
}
@media (max-width: 560px) {
  .terms {
    grid-template-columns: minmax(0, 1fr);
    gap: 2px;
  }
  dd {
    margin-bottom: 8px;
  }
}
</style>
