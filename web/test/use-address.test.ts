import { createApp, defineComponent, h } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { describe, expect, it } from 'vitest';
import { useAddress } from '../src/workbench/run/use-address.js';

/** Two who write into one address, in an application that is never mounted. */
async function at(address: string) {
  const component = { render: () => null };
  let arrive!: () => void;
  const fetched = new Promise<typeof component>((resolve) => (arrive = () => resolve(component)));
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/shape', component },
      { path: '/fit', component: () => fetched },
    ],
  });
  await router.push(address);
  let two!: ReturnType<typeof useAddress>[];
  const app = createApp(defineComponent({ setup: () => () => h('div') }));
  app.use(router);
  app.runWithContext(() => (two = [useAddress(), useAddress()]));
  return { router, arrive, query: () => router.currentRoute.value.query, one: two[0]!, other: two[1]! };
}

describe('the address of the page', () => {
  it('loses nothing of what is written by several at once, nor while it is being written', async () => {
    const { one, other, query } = await at('/shape?kept=1&gone=2');
    const written = [one.change({ a: '1' }), other.change({ b: '2', gone: undefined })];
    await Promise.resolve();
    await Promise.resolve();
    written.push(one.change({ c: '3' }), other.change({ a: '9' }));
    await Promise.all(written);
    expect(query()).toEqual({ kept: '1', a: '9', b: '2', c: '3' });
    await other.change({ kept: undefined });
    expect(query()).toEqual({ a: '9', b: '2', c: '3' });
    expect([one.textOf('a'), one.textOf('kept')]).toEqual(['9', undefined]);
  });

  it('does not carry what was meant for one page to the next', async () => {
    const { router, one, query, arrive } = await at('/shape?a=1');
    const onTheWay = new Promise<void>((resolve) => router.beforeEach(() => resolve()));
    const left = router.push('/fit');
    await onTheWay;
    // The next page is still being fetched.
    await one.change({ a: '2' });
    expect(query()).toEqual({ a: '1' });
    arrive();
    await left;
    expect(router.currentRoute.value.path).toBe('/fit');
    await one.change({ seed: '7' });
    expect(query()).toEqual({ seed: '7' });
  });
});
