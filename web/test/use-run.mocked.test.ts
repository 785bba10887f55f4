import { describeAnalysis, inThisThread, normalityAnalysis } from '@verdict/core/analyses';
import { toSample, type Sample } from '@verdict/core/readings';
import { createPinia, setActivePinia } from 'pinia';
import { createApp, effectScope, nextTick, shallowRef, watch, type App, type EffectScope } from 'vue';
import { createMemoryHistory, createRouter } from 'vue-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { until } from './until.js';

vi.mock('../src/workers/analysis-pool.js', () => ({ inWorkers: { ...inThisThread, lanes: 2 }, lanes: 2 }));
vi.mock('@vueuse/core', async (original) => ({ ...(await original<object>()), useEventListener: () => undefined }));
const { useRun } = await import('../src/workbench/run/use-run.js');
const { useStudy } = await import('../src/stores/study.js');
const { useStage } = await import('../src/workbench/frame/use-stage.js');

const column = { name: 'x', unit: 'mm', resolution: null, decimal: 'point', thousands: 'none' } as const;
const sampleOf = (...cells: string[]): Sample => toSample(column, cells, new Set());
const NINE = '7.80 7.92 7.94 7.97 8.19 8.10 7.96 8.17 8.00'.split(' ');

let app: App;
let scope: EffectScope;
afterEach(() => scope.stop());

/** A stage with one run, at an address. */
async function at(query: string, sample: Sample | null = sampleOf(...NINE)) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/fit', component: { render: () => null } }],
  });
  await router.push(`/fit${query}`);
  const pinia = createPinia();
  setActivePinia(pinia);
  const of = shallowRef(sample);
  const setup = () => {
    const run = useRun(normalityAnalysis, of, { name: 'test', fixed: () => ({ column: 'x', alpha: 0.05 }) });
    return { run, stage: useStage({ runs: () => [run] }) };
  };
  app = createApp({ render: () => null });
  app.use(pinia).use(router);
  scope = effectScope();
  return { router, of, ...scope.run(() => app.runWithContext(setup))! };
}

describe('a run of a stage', () => {
  it('asks what is fixed and what the address says, with the defaults that hang on the readings', async () => {
    const { run } = await at('?test.seed=7');
    expect(run.request.value).toEqual({
      ...{ column: 'x', test: 'anderson-darling', alpha: 0.05, seed: 7, replicates: 20_000 },
    });
    await until(() => expect(run.whole.value).toBe(true));
    expect(run.result.value).toMatchObject({ n: 9, alpha: 0.05 });
    expect(run.notes.value.map(({ code }) => code)).not.toContain('setting-left-out');
  });

  it('says why there is no result, and asks nothing without readings', async () => {
    const { run, of } = await at('', sampleOf('8.1', '8.2'));
    await until(() => expect(run.whyNot.value).toContain('needs at least 3'));
    expect(run.result.value).toBeNull();
    of.value = null;
    await nextTick();
    expect([run.request.value, run.whyNot.value]).toEqual([null, null]);
  });

  it('passes over what a field would refuse, and objects to what does not go with the rest', async () => {
    const { run } = await at('?test.replicates=5');
    expect(run.request.value).toMatchObject({ replicates: 20_000 });
    expect(run.objection('replicates', 5)).toContain('At least 199');
    expect(run.objection('replicates', 999)).toBeNull();
  });
});

describe('the runs of a stage together', () => {
  it('show progress while anything is simulated, then the time and the workers', async () => {
    const { run, stage } = await at('?test.replicates=40000');
    await until(() => expect(stage.progress.value).not.toBeNull());
    expect([stage.time.value, stage.canKeep.value]).toEqual(['', false]);
    await until(() => expect(run.whole.value).toBe(true));
    expect(stage.progress.value).toBeNull();
    expect(stage.time.value).toMatch(/^\d[\d.]* m?s · 2 workers$/);
  });

  it('stop and go on together, and keep nothing that is stopped', async () => {
    const { run, stage } = await at('?test.replicates=40000');
    await until(() => expect(run.result.value).not.toBeNull());
    stage.stop();
    expect([stage.stopped.value, stage.canKeep.value]).toEqual([true, false]);
    stage.again();
    await until(() => expect(run.whole.value).toBe(true));
    expect(stage.stopped.value).toBe(false);
  });

  it('stop what is simulated, and leave alone what is only being computed', async () => {
    const { run, of } = await at('?test.replicates=40000');
    const both = scope.run(() =>
      app.runWithContext(() => {
        const plain = useRun(describeAnalysis, of, { name: 'plain', fixed: () => ({ column: 'x' }) });
        return { plain, stage: useStage({ runs: () => [run, plain] }) };
      }),
    )!;
    await until(() => expect(both.stage.progress.value).not.toBeNull());
    // As on a busy machine, where a picture took longer than the first part of a simulation.
    both.plain.progress.value = 0;
    both.stage.stop();
    expect([run.stopped.value, both.plain.stopped.value]).toEqual([true, false]);
  });

  it('say each note once', async () => {
    const { run } = await at('');
    await until(() => expect(run.whole.value).toBe(true));
    const twice = scope.run(() => app.runWithContext(() => useStage({ runs: () => [run, run] })))!;
    const texts = twice.notes.value.map(({ text }) => text);
    expect(texts).toEqual([...new Set(texts)]);
  });
});

describe('keeping what is not there yet', () => {
  const opened = (run: Awaited<ReturnType<typeof at>>['run'], about: () => null | { column: null; sample: Sample }) => {
    useStudy().study = { id: 's', state: 'open', columns: [] } as never;
    return scope.run(() => app.runWithContext(() => useStage({ runs: () => [run], about })))!;
  };
  const sample = sampleOf(...NINE);

  it('says so, and goes on saying it while glimpses come', async () => {
    const { run } = await at('?test.replicates=40000');
    const stage = opened(run, () => ({ column: null, sample }));
    await until(() => expect(stage.progress.value).not.toBeNull());
    await stage.keep();
    const seen: string[] = [];
    scope.run(() => watch(run.result, () => seen.push(stage.problem.value), { flush: 'sync' }));
    await until(() => expect(run.whole.value).toBe(true));
    expect(seen.length).toBeGreaterThan(2);
    expect(new Set(seen)).toEqual(new Set(['The calculation is not finished. The result can be kept when it is.']));
    await until(() => expect(stage.problem.value).toBe(''));
  });

  it('promises no result where there is none, nor where nothing is stored', async () => {
    const { run } = await at('', sampleOf('8.1', '8.2'));
    await until(() => expect(run.whyNot.value).not.toBeNull());
    const none = opened(run, () => ({ column: null, sample }));
    await none.keep();
    expect(none.problem.value).toBe('There is no result to keep.');
    const nowhere = opened(run, () => null);
    await nowhere.keep();
    expect(nowhere.problem.value).toContain('This result does not belong to a study, so it cannot be kept.');
  });
});
