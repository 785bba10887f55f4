import type { Evidence, Job, JobRequest, KeepInput, PartsBy } from '@verdict/contract';
import { bootstrapAnalysis, inThisThread, permutationAnalysis, plansAnalysis } from '@verdict/core/analyses';
import { fingerprintOf, toSample, type Sample } from '@verdict/core/readings';
import { drive, toWire } from '@verdict/core/road';
import { sampleInParts } from '@verdict/core/table';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { column, sharedServer, type TestServer } from './running.js';
import { until } from './until.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const READINGS = ['7.80', '7.92', '7.94', '7.97', '8.19', '8.10', '7.96', '8.17', '8.00', '7.95', '8.16', '8.07'];
const KILNS = READINGS.map((_, i) => (i % 2 ? 'south' : 'north'));

/** A study of twelve readings of two kilns, with what a page has of them. */
async function study(): Promise<{ id: string; thickness: string; kiln: string; whole: Sample; split: Sample }> {
  const id = await server.newStudy();
  const added = [column('thickness', READINGS), column('kiln', KILNS, { kind: 'label', unit: '' })];
  await server.change(id, { kind: 'add-columns', columns: added });
  const [thickness, kiln] = added as [(typeof added)[number], (typeof added)[number]];
  const columns = added.map(({ cells: _, ...one }) => ({ ...one, derivation: null }));
  const table = {
    ...{ rowCount: READINGS.length, columns, setAside: () => new Set<number>() },
    cells: Object.fromEntries(added.map(({ id: own, cells }) => [own, cells])),
  };
  const split = sampleInParts(table as never, columns[0] as never, { split: columns[1] as never });
  const whole = toSample(thickness, READINGS, new Set());
  return { id, thickness: thickness.id, kiln: kiln.id, whole, split };
}

const ANALYSES = { bootstrap: bootstrapAnalysis, permutation: permutationAnalysis, 'bootstrap-plans': plansAnalysis };
async function keepOf(
  analysis: keyof typeof ANALYSES,
  asked: object,
  sample: Sample,
  about: { column: string; parts: PartsBy | null },
): Promise<KeepInput> {
  const own = ANALYSES[analysis];
  const request = own.resolve(own.request.parse({ column: 'thickness', ...asked }) as never, sample) as object;
  const result = toWire(await drive(inThisThread, { id: analysis, request, sample })) as Record<string, unknown>;
  return {
    ...{ id: randomUUID(), who: 'tester', analysis, version: own.version, ...about, note: '' },
    ...{ request: request as Record<string, unknown>, fingerprint: fingerprintOf(sample), result },
  };
}
const recomputed = (id: string) =>
  until(async () => {
    const list = await server.get<Evidence[]>(`/studies/${id}/evidence`);
    if (list.some((item) => !item.recomputed)) throw new Error('not yet recomputed');
    return list;
  });

describe('resampling kept as evidence', () => {
  it('recomputes to the same bits, whole and by group, though no replicate was stored', async () => {
    const { id, thickness, kiln, whole, split } = await study();
    const alone = { column: thickness, parts: null };
    const byKiln = { column: thickness, parts: { split: kiln } };
    const kept = [
      await keepOf('bootstrap', { statistic: 'sd', replicates: 6_000 }, whole, alone),
      await keepOf('bootstrap-plans', { replicates: 300 }, whole, alone),
      await keepOf('permutation', { statistic: 'difference-of-means', split: 'kiln' }, split, byKiln),
      await keepOf(
        'permutation',
        { statistic: 'difference-of-medians', split: 'kiln', way: 'drawn', replicates: 700 },
        split,
        byKiln,
      ),
    ];
    for (const keep of kept) expect((await server.post(`/studies/${id}/evidence`, keep)).status).toBe(201);
    const list = await recomputed(id);
    expect(list.map(({ recomputed: found }) => found!.same)).toEqual([true, true, true, true]);
    expect(JSON.stringify(list[0]!.result).length).toBeLessThan(20_000);
    expect(list[2]!.method).toContain(
      'Permutation test of thickness in north and south, statistic: the difference between the means.',
    );
  });

  it('a result that was altered is found out', async () => {
    const { id, thickness, whole } = await study();
    const keep = await keepOf('bootstrap', { replicates: 400 }, whole, { column: thickness, parts: null });
    const altered = { ...keep, result: { ...keep.result, standardError: 0.001 } };
    expect((await server.post(`/studies/${id}/evidence`, altered)).status).toBe(201);
    const [item] = await recomputed(id);
    expect(item!.recomputed).toMatchObject({ same: false });
  });
});

describe('a million replicates as a job', () => {
  it('is stopped, goes on, and comes to the bits of an unbroken run', async () => {
    const { id, thickness, whole } = await study();
    const request = bootstrapAnalysis.resolve(
      bootstrapAnalysis.request.parse({ column: 'thickness', statistic: 'trimmed-mean', replicates: 400_000 }),
      whole,
    );
    const asked: JobRequest = {
      ...{
        id: randomUUID(),
        who: 'tester',
        analysis: 'bootstrap',
        version: bootstrapAnalysis.version,
        column: thickness,
        parts: null,
      },
      ...{ request, fingerprint: fingerprintOf(whole), place: `/studies/${id}/resample` },
    };
    const job = async () => (await server.get<Job[]>(`/studies/${id}/jobs`)).find(({ id: own }) => own === asked.id)!;
    expect((await server.post<Job>(`/studies/${id}/jobs`, asked)).status).toBe(201);
    await server.post(`/jobs/${asked.id}/stop`, {});
    const stopped = await job();
    if (stopped.state === 'stopped') await server.post(`/jobs/${asked.id}/resume`, {});
    await until(async () => expect((await job()).state).toBe('done'));
    const { result } = await server.get<{ result: unknown }>(`/jobs/${asked.id}/result`);
    const unbroken = await drive(inThisThread, { id: 'bootstrap', request, sample: whole });
    expect(result).toEqual(toWire(unbroken));
  });
});
