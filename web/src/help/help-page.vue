<script setup lang="ts">
import { ANALYSES } from '@verdict/core/analyses';
import { computed, nextTick, onMounted, watch } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import { METHODS } from './made-methods.js';
import PageHead from '../components/page-head.vue';
import { STAGES } from '../stages/stages.js';
import { stageOf } from '../workbench/frame/stage.js';
import { useAddress } from '../workbench/run/use-address.js';
import MethodEntryCard from './method-entry.vue';
import TermList from './term-list.vue';
import { TERMS } from './terms.js';

/** Methods and terms: the words, the analyses stage by stage, and every method in the words of the core itself. */
const route = useRoute();
const address = useAddress();
const search = computed(() => address.textOf('search') ?? '');
const words = computed(() => search.value.toLowerCase().split(/\s+/).filter(Boolean));
const holds = (...texts: readonly string[]) => {
  const all = texts.join(' ').toLowerCase();
  return words.value.every((word) => all.includes(word));
};

const titleOf = new Map(
  METHODS.chapters.flatMap(({ entries }) => entries.map(({ id, title }) => [id, title] as const)),
);
const analyses = ANALYSES.map(({ id, name, title }) => {
  const made = METHODS.analyses.find((entry) => entry.id === id);
  const stage = stageOf(STAGES, id);
  return { id, name, title, stage: stage?.title ?? '', text: made?.text ?? [], with: made?.with ?? [] };
});

const terms = computed(() =>
  TERMS.filter(({ term, also = [], meaning, source = '' }) => holds(term, meaning, source, ...also)),
);
const asked = computed(() => analyses.filter(({ name, title, text, stage }) => holds(name, title, stage, ...text)));
const chapters = computed(() =>
  METHODS.chapters
    .map(({ title, entries }) => ({
      title,
      entries: entries.filter((entry) =>
        holds(title, entry.title, entry.id, ...entry.items.flatMap(({ text }) => text)),
      ),
    }))
    .filter(({ entries }) => entries.length > 0),
);
const place = (title: string) => title.toLowerCase().replace(/\W+/g, '-');
const contents = computed(() => [
  ...(terms.value.length ? [{ title: 'Terms', count: terms.value.length }] : []),
  ...(asked.value.length ? [{ title: 'Analyses', count: asked.value.length }] : []),
  ...chapters.value.map(({ title, entries }) => ({ title, count: entries.length })),
]);

async function goTo(hash: string): Promise<void> {
  if (!hash) return;
  await nextTick();
  const found = document.getElementById(decodeURIComponent(hash.slice(1)));
  found?.scrollIntoView({ block: 'start' });
  found?.focus({ preventScroll: true });
}
onMounted(() => {
  document.title = 'Methods and terms';
  void goTo(route.hash);
});
watch(() => route.hash, goTo);
</script>

<template>
  <div>
    <PageHead home />
    <main class="help">
      <nav class="contents" aria-label="Contents">
        <el-input
          :model-value="search"
          aria-label="Search the methods"
          placeholder="a term, a test, an author"
          clearable
          @input="(text: string) => address.change({ search: text || undefined })"
        />
        <ul>
          <li v-for="{ title, count } in contents" :key="title">
            <RouterLink :to="{ query: route.query, hash: `#${place(title)}` }">{{ title }}</RouterLink>
            <span class="soft">{{ count }}</span>
          </li>
        </ul>
      </nav>
      <div class="text">
        <h1>Methods and terms</h1>
        <p class="soft lead">
          Every method that Verdict uses: what it is, its formula, its source and its limits. The descriptions come from
          the program code itself.
        </p>
        <p v-if="contents.length === 0" role="status">No method matches all of these words.</p>
        <section v-if="terms.length" :id="place('Terms')" tabindex="-1" aria-label="Terms">
          <h2>Terms</h2>
          <TermList :terms="terms" />
        </section>
        <section v-if="asked.length" :id="place('Analyses')" tabindex="-1" aria-label="Analyses">
          <h2>Analyses</h2>
          <article v-for="one in asked" :id="one.id" :key="one.id" class="analysis" tabindex="-1">
            <h3>
              {{ one.name }} <span class="soft">{{ one.stage }}</span> <code class="soft">{{ one.id }}</code>
            </h3>
            <p>{{ one.title }}</p>
            <p v-for="paragraph in one.text" :key="paragraph" class="soft">{{ paragraph }}</p>
            <p v-if="one.with.length" class="with">
              Calculated with
              <template v-for="(id, i) in one.with" :key="id"
                ><template v-if="i > 0">, </template
                ><RouterLink :to="{ hash: `#${id}` }">{{ titleOf.get(id) }}</RouterLink></template
              >.
            </p>
          </article>
        </section>
        <section
          v-for="{ title, entries } in chapters"
          :id="place(title)"
          :key="title"
          tabindex="-1"
          :aria-label="title"
        >
          <h2>{{ title }}</h2>
          <MethodEntryCard v-for="entry in entries" :key="entry.id" :entry="entry" />
        </section>
      </div>
    </main>
  </div>
</template>

<style scoped>
.help {
  display: grid;
  grid-template-columns: 250px minmax(0, 760px);
  gap: 40px;
  max-width: 1100px;
  margin: 24px auto;
  padding: 0 20px;
}
.contents {
  position: sticky;
  top: 16px;
  align-self: start;
}
ul {
  display: grid;
  gap: 4px;
  margin: 12px 0;
  padding: 0;
  list-style: none;
  font-size: 13px;
}
li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
}
h1 {
  margin: 0 0 6px;
  font: 500 26px var(--serif);
}
h2 {
  margin: 26px 0 4px;
  font: 500 19px var(--serif);
}
h3 {
  margin: 0;
  font-size: 14px;
  font-weight: 600;
}
h3 .soft {
  margin-left: 8px;
  font-size: 12px;
  font-weight: 400;
}
code {
  font: 11.5px var(--mono);
}
.lead {
  max-width: 66ch;
  margin: 0;
}
.analysis {
  padding: 7px 0;
  border-bottom: 1px solid var(--line);
  scroll-margin-top: 8px;
}
.analysis p {
  margin: 2px 0;
}
.with {
  font-size: 12.5px;
}
section:focus,
article:focus {
  outline: none;
}
@media (max-width: 900px) {
  .help {
    grid-template-columns: minmax(0, 1fr);
    gap: 10px;
  }
  .contents {
    position: static;
  }
}
</style>
