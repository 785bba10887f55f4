<script setup lang="ts">
import { ANALYSES } from '@verdict/core/analyses';
import { ref, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import LanguageChoice from '../language/language-choice.vue';
import { STAGES } from '../stages/stages.js';
import { stageOf } from '../workbench/frame/stage.js';
import TermList from './term-list.vue';
import { termsIn, type Term } from './terms.js';

/** Help with the open page: its terms, and how its results are calculated. */
const open = defineModel<boolean>({ required: true });
const route = useRoute();
const terms = ref<Term[]>([]);
const analyses = ref<{ id: string; name: string; title: string }[]>([]);

/** The text of the page. */
const textOfPage = () => document.querySelector('main')?.textContent ?? '';
watch(
  open,
  (now) => {
    if (!now) return;
    terms.value = termsIn(textOfPage());
    const stage = STAGES.find(({ name }) => name === route.name);
    analyses.value = ANALYSES.filter(({ id }) => stage && stageOf(STAGES, id) === stage).map(({ id, name, title }) => ({
      ...{ id, name, title },
    }));
  },
  { immediate: true },
);
</script>

<template>
  <el-drawer v-model="open" title="Help with this page" size="480">
    <p v-if="terms.length === 0" class="soft">There are no technical terms on this page.</p>
    <section v-else aria-label="Terms on this page">
      <h3>Terms on this page</h3>
      <TermList :terms="terms" />
    </section>
    <section v-if="analyses.length" aria-label="Calculated here">
      <h3>How it is calculated</h3>
      <ul>
        <li v-for="{ id, name, title } in analyses" :key="id">
          <RouterLink :to="{ name: 'help', hash: `#${id}` }">{{ name }}</RouterLink>
          <span class="soft">{{ title }}</span>
        </li>
      </ul>
    </section>
    <p><LanguageChoice /></p>
    <p>
      <RouterLink :to="{ name: 'help' }">Methods</RouterLink>: all terms and methods, with formulas and sources.
      <kbd>?</kbd> lists the keys, <kbd>/</kbd> searches everywhere.
    </p>
  </el-drawer>
</template>

<style scoped>
h3 {
  margin: 4px 0;
  font-size: 13px;
  font-weight: 600;
}
ul {
  margin: 4px 0 12px;
  padding-left: 18px;
  font-size: 13px;
}
p {
  font-size: 13px;
}
</style>
