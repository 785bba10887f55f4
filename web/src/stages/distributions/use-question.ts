import { useDebounceFn } from '@vueuse/core';
import { ref, watch } from 'vue';
import { useRoute, useRouter, type LocationQuery } from 'vue-router';
import { draftFrom, queryOf, type Draft, type Query } from './question.js';

/** How long the sentence rests before the address follows: typing and dragging make one step, not a hundred. */
const REST = 250;

const plain = (query: LocationQuery): Query =>
  Object.fromEntries(Object.entries(query).map(([key, value]) => [key, typeof value === 'string' ? value : undefined]));
const keyOf = (query: Query) => JSON.stringify(Object.entries(query).sort());
const sameAs = (a: Query, b: Query) => keyOf(a) === keyOf(b);

/**
 * The question while it is edited, and the address that holds it: it can be shared, reloaded and returned to. Typed text is shown at once; the
 * address follows after a pause. Another family or question is a step in the history, a changed figure is not.
 */
export function useQuestion() {
  const route = useRoute();
  const router = useRouter();
  const draft = ref<Draft>(draftFrom(plain(route.query)));
  const own = route.path;

  /** Addresses that were written here; when the route comes by with one of them it brings nothing new. */
  const written = new Set<string>();
  let queue = Promise.resolve();

  /** Navigations come one after the other: a later one would cut off an earlier one that is still under way. */
  function write(step: 'push' | 'replace'): void {
    const query = queryOf(draft.value);
    queue = queue.then(async () => {
      if (route.path !== own || sameAs(query, plain(route.query))) return;
      written.add(keyOf(query));
      await router[step]({ path: route.path, query });
    });
  }
  const rest = useDebounceFn(() => write('replace'), REST);

  let untouched = true;
  function change(patch: Partial<Draft>): void {
    untouched = false;
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
      const found = plain(query);
      if (written.delete(keyOf(found)) || route.path !== own) return;
      if (!sameAs(found, queryOf(draft.value))) draft.value = draftFrom(found);
    },
  );

  /** What the page begins with, where the address asks nothing and nothing has been asked here yet. */
  function begin(query: Query): void {
    if (!untouched || Object.keys(route.query).length > 0) return;
    draft.value = draftFrom(query);
    write('replace');
  }

  return { draft, change, begin };
}
