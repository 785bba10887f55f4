import type { Job } from '@verdict/contract';
import { inThisThread, normalityAnalysis, type NormalityResult } from '@verdict/core/analyses';
import { toSample } from '@verdict/core/readings';
import type { Analysis, Settings } from '@verdict/core/road';
import { drive, toWire } from '@verdict/core/road';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { effectScope, nextTick, ref, shallowRef, type EffectScope } from 'vue';
import type { Elsewhere } from '../src/workbench/run/use-analysis.js';
import { until } from './until.js';

const chunks = vi.fn(inThisThread.chunk);
vi.mock('../src/workers/analysis-pool.js', () => ({ inWorkers: { ...inThisThread, chunk: chunks }, lanes: 1 }));
const { useAnalysis } = await import('../src/workbench/run/use-analysis.js');
const { aboutWords } = await import('../src/workbench/run/use-long-work.js');

const normality = normalityAnalysis as unknown as Analysis<Settings, NormalityResult>;
const column = { name: 'x', unit: 'mm', resolution: null, decimal: 'point', thousands: 'none' } as const;
const sample = toSample(column, '7.80 7.92 7.94 7.97 8.19 8.10 7.96 8.17 8.00'.split(' '), new Set());
const request = normality.resolve(normality.request.parse({ column: 'x', replicates: 199 }), sample);

/** A server that has one job, or none. */
function server(job: Partial<Job> | null) {
  const held = shallowRef(job as Job | null);
  const elsewhere = {
    jobFor: vi.fn(() => held.value),
    resultOf: vi.fn(async () => toWire(await drive(inThisThread, { id: 'normality', request, sample }))),
    stop: vi.fn(async () => undefined),
    resume: vi.fn(async () => undefined),
  } satisfies Elsewhere;
  return { held, elsewhere };
}
let scope: EffectScope;
beforeEach(() => {
  scope = effectScope();
  chunks.mockClear();
});
afterEach(() => scope.stop());
const running = (elsewhere: Elsewhere | null) =>
  scope.run(() => useAnalysis(normality, ref(request), shallowRef(sample), elsewhere))!;

describe('work that the server does', () => {
  it('is not done by the page: what is known at once is shown, then how far the job is, then what it came to', async () => {
    const { held, elsewhere } = server({ id: 'j', state: 'running', share: 0.2 });
    const run = running(elsewhere);
    const simulated = () => (run.result.value as NormalityResult | null)?.tests[0]!.pSimulated;
    await until(() => expect(simulated()).toBeNull());
    expect([run.progress.value, run.whole.value, run.estimate.value]).toEqual([0.2, false, null]);
    held.value = { ...held.value!, share: 0.7 };
    await nextTick();
    expect(run.progress.value).toBe(0.7);
    held.value = { ...held.value, state: 'done', share: 1 };
    await until(() => expect(run.whole.value).toBe(true));
    expect(simulated()).toMatchObject({ replicates: 199 });
    // Only the server drew samples.
    expect(elsewhere.resultOf).toHaveBeenCalledTimes(1);
    expect(chunks).not.toHaveBeenCalled();
  });

  it('is stopped there and goes on there, and says why it failed', async () => {
    const { held, elsewhere } = server({ id: 'j', state: 'running', share: 0.2 });
    const run = running(elsewhere);
    await until(() => expect(run.result.value).not.toBeNull());
    run.stop();
    expect(elsewhere.stop).toHaveBeenCalledWith(held.value);
    held.value = { ...held.value!, state: 'stopped' };
    await until(() => expect(run.stopped.value).toBe(true));
    run.again();
    expect(elsewhere.resume).toHaveBeenCalledTimes(1);
    held.value = { ...held.value, state: 'failed', problem: 'The readings have changed.' };
    await until(() => expect(run.failed.value).toBe('The readings have changed.'));
    expect(run.whole.value).toBe(false);
  });

  it('is the page’s again once the job is taken off the list', async () => {
    const { held, elsewhere } = server({ id: 'j', state: 'stopped', share: 0.2 });
    const run = running(elsewhere);
    await until(() => expect(run.stopped.value).toBe(true));
    held.value = null;
    await until(() => expect(run.whole.value).toBe(true));
    expect([run.stopped.value, chunks.mock.calls.length > 0]).toEqual([false, true]);
  });

  it('is given in words, approximately', () => {
    expect([12_000, 44_000, 100_000, 3_600_000].map(aboutWords)).toEqual(['10 s', '40 s', '2 min', '60 min']);
  });
});
