import {
  describeAnalysis,
  inThisThread,
  normalityAnalysis,
  type DescribeResult,
  type NormalityResult,
} from '@verdict/core/analyses';
import { toSample, type Sample } from '@verdict/core/readings';
import type { Analysis, Executor, Settings } from '@verdict/core/road';
import { effectScope, nextTick, ref, shallowRef, watch, type EffectScope } from 'vue';
import type { Running } from '../src/workbench/run/use-analysis.js';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { until } from './until.js';

/** The workers, in this thread, with a gate before every chunk. */
const gate = { open: true, fails: false, waiting: [] as (() => void)[], chunks: 0 };
const executor: Executor = {
  ...inThisThread,
  lanes: 2,
  chunk: async (order, k) => {
    if (!gate.open) await new Promise<void>((resolve) => gate.waiting.push(resolve));
    gate.chunks++;
    if (gate.fails) throw new Error('out of memory');
    return inThisThread.chunk(order, k);
  },
};
vi.mock('../src/workers/analysis-pool.js', () => ({ inWorkers: executor, lanes: 2 }));
const { useAnalysis } = await import('../src/workbench/run/use-analysis.js');

/** As if there were always a result: the tests ask for one where there is. */
const normality = normalityAnalysis as unknown as Analysis<Settings, NormalityResult>;
const described = describeAnalysis as unknown as Analysis<Settings, DescribeResult>;
const column = { name: 'x', unit: 'mm', resolution: null, decimal: 'point', thousands: 'none' } as const;
const sampleOf = (...cells: string[]): Sample => toSample(column, cells, new Set());
const NINE = '7.80 7.92 7.94 7.97 8.19 8.10 7.96 8.17 8.00'.split(' ');

let scope: EffectScope;
beforeEach(() => {
  scope = effectScope();
  Object.assign(gate, { open: true, fails: false, waiting: [], chunks: 0 });
});
afterEach(() => scope.stop());

function started(settings: object = { column: 'x', replicates: 999 }, sample: Sample | null = sampleOf(...NINE)) {
  const given = { settings: shallowRef(settings as { column: string } | null), sample: shallowRef(sample) };
  return {
    given,
    run: scope.run(() => useAnalysis(normality, given.settings, given.sample)) as Running<NormalityResult>,
  };
}
const release = () => {
  gate.open = true;
  for (const go of gate.waiting.splice(0)) go();
};

describe('an analysis on the page', () => {
  it('shows the partial result with progress first, then the whole one', async () => {
    gate.open = false;
    const { run } = started();
    await until(() => expect(run.result.value).not.toBeNull());
    expect(run.result.value!.tests[0]!.pSimulated).toBeNull();
    expect(run.progress.value).toBe(0);
    release();
    await until(() => expect(run.progress.value).toBeNull());
    expect(run.result.value!.tests[0]!.pSimulated!.replicates).toBe(999);
  });

  it('grows while it runs: glimpses between the partial result and the whole one', async () => {
    const { run } = started({ column: 'x', replicates: 150_000 });
    const seen = new Set<number>();
    const look = (result: NormalityResult | null) => seen.add(result?.tests[0]!.pSimulated?.replicates ?? 0);
    scope.run(() => watch(run.result, look, { flush: 'sync' }));
    await until(() => expect(run.whole.value).toBe(true));
    const counts = [...seen];
    expect(counts.length).toBeGreaterThan(2);
    expect(counts).toEqual([...counts].sort((a, b) => a - b));
    expect(counts.at(-1)).toBe(150_000);
  });

  it('follows its settings; late chunks of the older run do not show', async () => {
    gate.open = false;
    const { given, run } = started();
    await until(() => expect(gate.waiting.length).toBeGreaterThan(0));
    given.settings.value = { column: 'x', replicates: 499 } as never;
    await nextTick();
    release();
    await until(() => expect(run.progress.value).toBeNull());
    expect(run.result.value!.tests[0]!.pSimulated!.replicates).toBe(499);
  });

  it('stops, keeps what it knew, and runs again when asked', async () => {
    gate.open = false;
    const { run } = started({ column: 'x', replicates: 100_000 });
    await until(() => expect(gate.waiting.length).toBeGreaterThan(0));
    run.stop();
    expect(run.stopped.value).toBe(true);
    expect(run.progress.value).toBeNull();
    release();
    await nextTick();
    await until(() => expect(gate.chunks).toBeGreaterThan(0));
    expect(run.result.value!.tests[0]!.pSimulated).toBeNull();
    run.again();
    await until(() => expect(run.result.value!.tests[0]!.pSimulated).not.toBeNull());
    expect(run.stopped.value).toBe(false);
  });

  it('is whole only with the result of its settings: not while it runs, nor stopped, nor after a chunk failed', async () => {
    gate.open = false;
    const { given, run } = started({ column: 'x', replicates: 100_000 });
    await until(() => expect(gate.waiting.length).toBeGreaterThan(0));
    expect([run.result.value !== null, run.whole.value]).toEqual([true, false]);
    run.stop();
    expect(run.whole.value).toBe(false);
    release();
    gate.fails = true;
    given.settings.value = { column: 'x', replicates: 999, seed: 5 } as never;
    await until(() => expect(run.failed.value).toBe('out of memory'));
    expect([run.progress.value, run.whole.value]).toEqual([null, false]);
    gate.fails = false;
    run.again();
    await until(() => expect(run.whole.value).toBe(true));
  });

  it('says what failed, and has no result without a sample', async () => {
    const { given, run } = started({ column: 'x', alpha: 7 });
    await until(() => expect(run.failed.value).toContain('between 0 and 1'));
    given.sample.value = null;
    await nextTick();
    expect(run.result.value).toBeNull();
    expect(run.failed.value).toBeNull();
  });

  it('does not run again for settings made anew that say the same', async () => {
    const { given, run } = started();
    await until(() => expect(run.progress.value).toBeNull());
    const [chunks, found] = [gate.chunks, run.result.value];
    given.settings.value = { ...given.settings.value! };
    await nextTick();
    expect(run.progress.value).toBeNull();
    given.settings.value = { ...given.settings.value!, replicates: 499 } as never;
    await nextTick();
    expect(run.progress.value).not.toBeNull();
    await until(() => expect(run.progress.value).toBeNull());
    expect(run.result.value).not.toBe(found);
    expect(gate.chunks).toBeGreaterThan(chunks);
  });

  it('ends with the view it belongs to', async () => {
    gate.open = false;
    const { run } = started();
    await until(() => expect(gate.waiting.length).toBeGreaterThan(0));
    scope.stop();
    release();
    await nextTick();
    expect(ref(run.result).value!.tests[0]!.pSimulated).toBeNull();
  });

  it('shows a run that was overtaken while something is dragged, but never an older one after a newer, nor another column', async () => {
    const given = {
      settings: shallowRef({ column: 'x', percentiles: [1] } as never),
      sample: shallowRef(sampleOf(...NINE)),
    };
    const run = scope.run(() => useAnalysis(described, given.settings, given.sample)) as Running<DescribeResult>;
    await until(() => expect(run.result.value).not.toBeNull());
    const seen: number[] = [];
    scope.run(() => watch(run.result, (result) => seen.push(result!.percentiles[0]!.percent), { flush: 'sync' }));
    for (const percent of [2, 3, 4]) {
      given.settings.value = { column: 'x', percentiles: [percent] } as never;
      await nextTick();
    }
    await until(() => expect(run.progress.value).toBeNull());
    expect(seen).toEqual([...seen].sort((a, b) => a - b));
    expect(seen.at(-1)).toBe(4);
    // What was under way for the readings before does not come through once they are others.
    given.settings.value = { column: 'x', percentiles: [5] } as never;
    await nextTick();
    given.sample.value = sampleOf('1', '2', '3');
    await nextTick();
    await until(() => expect(run.result.value!.n).toBe(3));
    await until(() => expect(run.progress.value).toBeNull());
    expect(run.result.value).toMatchObject({ n: 3, max: 3 });
  });
});
