import { createApp, defineComponent, h, nextTick } from 'vue';
import { createMemoryHistory, createRouter, type Router } from 'vue-router';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { useQuestion } from '../src/stages/distributions/use-question.js';

/** The composable inside a component that is never mounted to a page: only its setup runs. */
async function at(address: string) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/distributions', component: { render: () => null } },
      { path: '/elsewhere', component: { render: () => null } },
    ],
  });
  await router.push(address);
  let found!: ReturnType<typeof useQuestion>;
  const app = createApp(defineComponent({ setup: () => () => h('div') }));
  app.use(router);
  app.runWithContext(() => (found = useQuestion()));
  return { router, ...found };
}

const query = (router: Router) => router.currentRoute.value.query;
/** The address has come to rest: debounced writes are due, navigations done. */
async function rested(): Promise<void> {
  await vi.advanceTimersByTimeAsync(300);
  await nextTick();
  await vi.advanceTimersByTimeAsync(0);
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('the question and its address', () => {
  it('starts from the address', async () => {
    const { draft } = await at('/distributions?family=gamma&p.shape=3&p.scale=2&ask=above&a=9');
    expect(draft.value).toMatchObject({ family: 'gamma', asked: 'above', a: '9' });
    expect(draft.value.parameters).toMatchObject({ shape: '3', scale: '2', threshold: '0' });
  });

  it('follows what is typed once it rests, in one step', async () => {
    const { router, change, draft } = await at('/distributions?family=normal&p.mean=0&p.sd=1&ask=below&b=1');
    for (const b of ['1.', '1.5', '1.55']) change({ b });
    expect(draft.value.b).toBe('1.55');
    expect(query(router).b).toBe('1');
    await rested();
    expect(query(router).b).toBe('1.55');
  });

  it('another question is a step that can be gone back over, with typed figures last in it', async () => {
    const { router, change, draft } = await at('/distributions?family=normal&p.mean=0&p.sd=1&ask=between&a=-1&b=1');
    change({ b: '2' });
    change({ asked: 'above' });
    await rested();
    expect(query(router)).toMatchObject({ ask: 'above', a: '-1' });
    router.back();
    await rested();
    expect(query(router)).toMatchObject({ ask: 'between', b: '2' });
    expect(draft.value).toMatchObject({ asked: 'between', b: '2' });
  });

  it('takes over an address that comes from elsewhere, such as a last question', async () => {
    const { router, draft } = await at('/distributions?family=normal&p.mean=0&p.sd=1&ask=below&b=1');
    await router.push('/distributions?family=weibull&p.shape=2&p.scale=10&ask=upperShare&share=5');
    await rested();
    expect(draft.value).toMatchObject({ family: 'weibull', asked: 'upperShare', share: '5' });
  });

  it('does not write into the address of another page', async () => {
    const { router, change } = await at('/distributions?family=normal&p.mean=0&p.sd=1&ask=below&b=1');
    change({ b: '3' });
    await router.push('/elsewhere');
    await rested();
    expect(router.currentRoute.value.fullPath).toBe('/elsewhere');
  });
});
