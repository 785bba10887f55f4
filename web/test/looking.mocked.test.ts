import type { Evidence, Look, Study } from '@verdict/contract';
import { inThisThread, normalityAnalysis } from '@verdict/core/analyses';
import { toSample } from '@verdict/core/readings';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, nextTick, shallowRef, type EffectScope } from 'vue';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { until } from './until.js';

vi.mock('../src/workers/analysis-pool.js', () => ({ inWorkers: { ...inThisThread, lanes: 2 }, lanes: 2 }));
const { useLooking } = await import('../src/workbench/evidence/use-looking.js');
const { useRunAgain } = await import('../src/workbench/run/use-run-again.js');
const { useEvidence } = await import('../src/stores/evidence.js');
const { useLooks } = await import('../src/stores/looks.js');
const { useStudy } = await import('../src/stores/study.js');
type Keepable = Parameters<typeof useLooking>[0]['value'][number];

const READINGS = ['7.80', '7.92', '7.94', '7.97', '8.19', '8.10', '7.96', '8.17', '8.00'];
const column = {
  ...{ id: 'column-1', name: 'thickness', unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none' },
  ...{ resolution: null, lowerLimit: null, target: null, upperLimit: null, claimedMean: null, claimedSd: null },
  ...{ levels: null, frequencies: null, derivation: null },
} as Study['columns'][number];
const study: Study = {
  ...{ id: 'study-1', name: '', question: '', state: 'open', asks: null, tags: [], alpha: 0.05, quantileType: 7 },
  ...{ subject: column.id, revision: 3, rowCount: READINGS.length, columns: [column], setAside: [], leftIn: [] },
  ...{ verdicts: [], canUndo: null, canRedo: null, entries: 0, head: null, notVerified: null },
};
const sample = toSample(column, READINGS, new Set());

/** What was sent, by path; and what the server answers where that is not nothing. */
const sent: { path: string; body: unknown }[] = [];
const answers = new Map<string, (body: unknown) => Response>();
let scope: EffectScope;
beforeEach(() => {
  sent.length = 0;
  answers.clear();
  setActivePinia(createPinia());
  vi.stubGlobal('fetch', (path: string, { method, body }: RequestInit) => {
    const read: unknown = typeof body === 'string' ? JSON.parse(body) : null;
    if (method === 'POST') sent.push({ path, body: read });
    const answer = answers.get(path);
    return Promise.resolve(
      answer ? answer(read) : method === 'GET' ? Response.json([]) : new Response(null, { status: 204 }),
    );
  });
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
  scope = effectScope();
});
afterEach(() => {
  scope.stop();
  vi.useRealTimers();
});

async function opened(more: Partial<Study> = {}) {
  const [store, looks] = [useStudy(), useLooks()];
  await looks.load('study-1');
  store.study = { ...study, ...more };
  store.cells = { [column.id]: READINGS };
  return { store, looks };
}

const shown = (more: Partial<Keepable> = {}): Keepable => ({
  ...{ analysis: normalityAnalysis, request: { column: 'thickness', alpha: 0.05, seed: 1, replicates: 99 } },
  ...{ result: { tests: [{ pValue: 0.4 }, { pValue: 0.6 }] }, whole: true, none: false, ...more },
});

describe('viewed results', () => {
  async function looking(first: Keepable, more: Partial<Study> = {}) {
    const { looks } = await opened(more);
    const results = shallowRef([first]);
    scope.run(() => useLooking(results, shallowRef({ column: column.id, sample })));
    const stand = async (milliseconds: number) => {
      await nextTick();
      await vi.advanceTimersByTimeAsync(milliseconds);
    };
    return { looks, results, stand };
  }
  const noted = () => sent.filter(({ path }) => path.endsWith('/looks'));

  it('is noted once it has stood for a moment, with the tests it shows; another seed is no other question', async () => {
    const { looks, results, stand } = await looking(shown());
    await stand(300);
    expect(looks.items).toEqual([]);
    await stand(800);
    await until(() => expect(looks.items).toMatchObject([{ analysis: 'normality', column: column.id, tests: 2 }]));
    results.value = [shown({ request: { column: 'thickness', alpha: 0.05, seed: 2, replicates: 999 } })];
    await stand(800);
    results.value = [shown({ request: { column: 'thickness', alpha: 0.01, seed: 2, replicates: 999 } })];
    await stand(800);
    await until(() => expect(looks.items).toHaveLength(2));
    expect(noted()).toHaveLength(2);
    expect((noted()[0]!.body as { looks: Look[] }).looks[0]!.digest).toMatch(/^[0-9a-f]{64}$/);
  });

  it('is not what is passed through, what is partial, nor what is seen of a ruled study', async () => {
    const { looks, results, stand } = await looking(shown({ whole: false }));
    await stand(800);
    for (const alpha of [0.01, 0.02, 0.03]) {
      results.value = [shown({ request: { column: 'thickness', alpha } })];
      await stand(100);
    }
    results.value = [];
    await stand(800);
    expect(looks.items).toEqual([]);
    scope.stop();
    scope = effectScope();
    const ruled = await looking(shown(), { state: 'ruled' });
    await ruled.stand(800);
    expect(noted()).toEqual([]);
  });

  it('goes on being known where the server is away', async () => {
    const { looks, stand } = await looking(shown());
    answers.set('/api/studies/study-1/looks', () => Response.json({ detail: 'away' }, { status: 503 }));
    await stand(800);
    await until(() => expect(looks.items).toHaveLength(1));
  });
});

describe('evidence run again', () => {
  const request = { column: 'old name', alpha: 0.05, seed: 7, replicates: 199 };
  const piece = (id: string, more: Partial<Evidence> = {}) =>
    ({
      id,
      analysis: 'normality',
      column: column.id,
      parts: null,
      request,
      note: '',
      leads: true,
      ...more,
    }) as Evidence;

  async function again(...items: Evidence[]) {
    vi.useRealTimers();
    await opened();
    const evidence = useEvidence();
    answers.set('/api/studies/study-1/evidence', (body) =>
      body === null ? Response.json(items) : Response.json({ ...(body as object), recomputed: null, leftOut: false }),
    );
    await evidence.load('study-1');
    const rerun = scope.run(() => useRunAgain())!;
    await rerun.again(items);
    return { evidence, rerun };
  }
  const keeps = () => sent.filter(({ path }) => path.endsWith('/evidence')).map(({ body }) => body as Evidence);

  it('asks the same of the readings as they are, under the names of now, and takes the place of the old piece', async () => {
    const { evidence, rerun } = await again(piece('a'));
    const [kept] = keeps();
    expect(kept).toMatchObject({ replaces: 'a', column: column.id, request: { ...request, column: 'thickness' } });
    expect(kept!.result).toMatchObject({ available: true, n: 9 });
    expect(evidence.items.find(({ id }) => id === 'a')).toMatchObject({ leftOut: true, leads: false });
    expect([rerun.running.value, rerun.problems.value]).toEqual([null, {}]);
  });

  it('says at a piece why it cannot be computed any more, and continues with the next', async () => {
    const gone = piece('b', { column: 'column-9' });
    const odd = piece('c', { request: { ...request, replicates: -1 } });
    const { rerun } = await again(gone, odd, piece('d'));
    expect(rerun.problems.value.b).toBe('A column it uses is no longer in the table.');
    expect(rerun.problems.value.c).toBeTruthy();
    expect(keeps().map(({ replaces }) => replaces)).toEqual(['d']);
  });

  it('stays as it was where the server refuses', async () => {
    vi.useRealTimers();
    await opened();
    const evidence = useEvidence();
    const refusal = {
      type: 'about:blank',
      title: 't',
      status: 409,
      code: 'data-changed',
      detail: 'The readings have changed.',
    };
    answers.set('/api/studies/study-1/evidence', (body) =>
      body === null ? Response.json([piece('a')]) : Response.json(refusal, { status: 409 }),
    );
    await evidence.load('study-1');
    const rerun = scope.run(() => useRunAgain())!;
    await rerun.again([...evidence.items]);
    expect(rerun.problems.value.a).toBe('The readings have changed.');
    expect(evidence.items).toMatchObject([{ id: 'a', leads: true }]);
  });
});
