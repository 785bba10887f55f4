import { useDebounceFn } from '@vueuse/core';
import { ref, watch } from 'vue';
import { useRoute, useRouter, type LocationQuery } from 'vue-router';
import { draftFrom, queryOf, type Draft, type Query } from './question.js';

/** How long the sentence rests before the address follows: typing and dragging make one step, not a hundred. */
const REST = 250;

const plain = (query: LocationQuery): Query =>
  Object.fromEntries(Object.entries(query).map(([key, value]) => [key, typeof value === 'string' ? value : undefined]));
const sameAs = (a: Query, b: Query) =>
  JSON.stringify(Object.entries(a).sort()) === JSON.stringify(Object.entries(b).sort());

/**
 * The question as it is being written, and the address that holds it: it can be shared, reloaded and gone back to. What is typed stands at
 * once; the address follows when it rests. Another family or another question is a step to go back over, a changed figure is not.
 */
export function useQuestion() {
  const route = useRoute();
  const router = useRouter();
  const draft = ref<Draft>(draftFrom(plain(route.query)));
  const own = route.path;

  function write(step: 'push' | 'replace'): void {
    const query = queryOf(draft.value);
    if (route.path !== own || sameAs(query, plain(route.query))) return;
    void router[step]({ path: route.path, query });
  }
  const rest = useDebounceFn(() => write('replace'), REST);

  function change(patch: Partial<Draft>): void {
    const isStep = patch.family !== undefined || patch.asked !== undefined;
    // What was typed last belongs to the step before.
    if (isStep) write('replace');
    draft.value = { ...draft.value, ...patch };
    if (isStep) write('push');
    else void rest();
  }

  watch(
    () => route.query,
    (query) => {
      if (route.path === own && !sameAs(plain(query), queryOf(draft.value))) draft.value = draftFrom(plain(query));
    },
  );

  return { draft, change };
}
