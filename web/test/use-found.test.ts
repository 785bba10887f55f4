import type { StudySummary } from '@verdict/contract';
import { createApp, nextTick, shallowRef } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { describe, expect, it } from 'vitest';
import { heightOf } from '../src/charts/height-of.js';
import type { Panels } from '../src/charts/picture.js';
import { useFound, type Found } from '../src/stages/studies/use-found.js';

const study = (k: number) =>
  ({
    id: `s${k}`,
    name: `Release ${k}`,
    question: '',
    tags: k % 2 ? ['odd'] : [],
    columns: [],
    n: k,
    state: 'open',
  }) as unknown as StudySummary;

async function at(address: string, count = 100) {
  const component = { render: () => null };
  const router = createRouter({ history: createMemoryHistory(), routes: [{ path: '/', component }] });
  await router.push(address);
  let found!: Found;
  const app = createApp(component);
  app.use(router);
  app.runWithContext(() => (found = useFound(shallowRef(Array.from({ length: count }, (_, k) => study(k))))));
  return { router, found, query: () => router.currentRoute.value.query };
}
const settled = () => new Promise((resolve) => setTimeout(resolve));

describe('the list of studies', () => {
  it('begins short and grows as it is asked, and begins anew with another search', async () => {
    const { found } = await at('/');
    const first = found.shown.value.length;
    expect(first).toBeLessThan(20);
    found.more();
    expect(found.shown.value.length).toBeGreaterThan(first);
    found.search('release 4');
    await nextTick();
    expect(found.all.value.map(({ name }) => name)).toContain('Release 40');
    // 4, 14 … 94, and 40 … 49.
    expect(found.all.value).toHaveLength(19);
    expect(found.shown.value.length + found.left.value).toBe(19);
  });

  it('stands in the address, and is as the address says', async () => {
    const { found, query } = await at('/?search=release+1&tag=odd&sort=readings');
    expect(found.all.value[0]!.name).toBe('Release 91');
    found.sortBy('readings');
    await settled();
    expect(query()).toEqual({ search: 'release 1', tag: 'odd', sort: 'readings', turned: 'yes' });
    found.chooseTag(null);
    found.search('');
    found.sortBy('changed');
    await settled();
    expect(query()).toEqual({});
  });

  it('loses no letter that is typed while the address is being written, and follows an address that changes by itself', async () => {
    const { found, router } = await at('/');
    for (const text of ['r', 're', 'rel']) found.search(text);
    expect(found.wanted.value.text).toBe('rel');
    await settled();
    expect(found.wanted.value.text).toBe('rel');
    await router.push('/?search=glaze');
    await nextTick();
    expect(found.wanted.value.text).toBe('glaze');
  });
});

describe('how high a picture has to be', () => {
  const panels = (ticks: { at: number; words: string }[], count = 1): Panels => ({
    ...{ x: { from: 0, to: 1, title: '' }, y: { from: 0, to: 10, title: '', ticks }, hits: [] },
    panels: Array.from({ length: count }, () => ({ name: '', marks: [] })),
  });

  it('leaves a line to each word beside its axis, and none to figures, which leave each other out', () => {
    expect(heightOf(panels([]), 236)).toBe(236);
    expect(heightOf(panels([1, 1.5, 2].map((at) => ({ at, words: String(at) }))), 236)).toBe(236);
    const words = ['BCa', 'basic', 't'].map((word, i) => ({ at: 8 + i * 0.5, words: word }));
    expect(heightOf(panels(words), 236)).toBeGreaterThan(20 * 14);
    expect(heightOf(panels(words, 40), 236)).toBe(460);
    expect(heightOf(panels([], 3), 236)).toBeGreaterThan(300);
  });
});
