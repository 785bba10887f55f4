import type { Evidence, Job, JobRequest, KeepInput } from '@verdict/contract';
import { curvesAnalysis, inThisThread, planAnalysis, simulateAnalysis } from '@verdict/core/analyses';
import { fingerprintOf, NO_READINGS, toSample, type Sample } from '@verdict/core/readings';
import { drive, toWire } from '@verdict/core/road';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { column, sharedServer, type TestServer } from './running.js';
import { until } from './until.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const READINGS = ['5003.0', '5000.5', '5003.0', '4999.5', '5006.0', '5001.5', '5004.0', '5002.0', '5002.5', '5005.0'];

async function study(): Promise<{ id: string; mass: string; sample: Sample }> {
  const id = await server.newStudy();
  const mass = column('filled mass', READINGS, { unit: 'g' });
  await server.change(id, { kind: 'add-columns', columns: [mass] });
  return { id, mass: mass.id, sample: toSample(mass, READINGS, new Set()) };
}

const ANALYSES = { simulate: simulateAnalysis, 'power-curves': curvesAnalysis, plan: planAnalysis };
async function keepOf(
  analysis: keyof typeof ANALYSES,
  asked: object,
  sample: Sample,
  about: string | null,
): Promise<KeepInput> {
  const own = ANALYSES[analysis];
  const of = about === null ? asked : { column: 'filled mass', ...asked };
  const request = own.resolve(own.request.parse(of) as never, sample) as object;
  const result = toWire(await drive(inThisThread, { id: analysis, request, sample })) as Record<string, unknown>;
  return {
    ...{ id: randomUUID(), who: 'tester', analysis, version: own.version, column: about, parts: null, note: '' },
    ...{ request: request as Record<string, unknown>, fingerprint: fingerprintOf(sample), result },
  };
}

describe('simulations kept as evidence', () => {
  it('recompute to the same bits, from a distribution and from a column, though no sample was stored', async () => {
    const { id, mass, sample } = await study();
    const kept = [
      await keepOf('simulate', { test: 't', family: 'exponential', replicates: 6_000 }, NO_READINGS, null),
      await keepOf('simulate', { interval: 'median', replacement: 'without', n: 9, replicates: 700 }, sample, mass),
      await keepOf(
        'power-curves',
        { from: 'fit', tests: ['t', 'lilliefors'], values: [5, 9], replicates: 500 },
        sample,
        mass,
      ),
      await keepOf('plan', { test: 'signed-rank', shiftInSd: 0.9, replicates: 500, step: 0.5 }, sample, mass),
    ];
    for (const keep of kept) expect((await server.post(`/studies/${id}/evidence`, keep)).status).toBe(201);
    const list = await until(async () => {
      const all = await server.get<Evidence[]>(`/studies/${id}/evidence`);
      if (all.some((item) => !item.recomputed)) throw new Error('not yet recomputed');
      return all;
    });
    expect(list.map(({ recomputed }) => recomputed!.same)).toEqual([true, true, true, true]);
    expect(list[1]!.method).toContain('Population: the readings of filled mass, sampling without replacement;');
    expect(JSON.stringify(list[0]!.result).length).toBeLessThan(10_000);
  });

  it('run as a job of the server too, and give what the page gives', async () => {
    const { id } = await study();
    const request = simulateAnalysis.resolve(
      simulateAnalysis.request.parse({ test: 'mann-whitney', n: 12, shiftInSd: 0.4, replicates: 20_000 }),
      NO_READINGS,
    );
    const asked: JobRequest = {
      ...{
        id: randomUUID(),
        who: 'tester',
        analysis: 'simulate',
        version: simulateAnalysis.version,
        column: null,
        parts: null,
      },
      ...{ request: { ...request }, fingerprint: fingerprintOf(NO_READINGS), place: `/studies/${id}/simulate` },
    };
    const job = async () => (await server.get<Job[]>(`/studies/${id}/jobs`)).find(({ id: own }) => own === asked.id)!;
    expect((await server.post<Job>(`/studies/${id}/jobs`, asked)).status).toBe(201);
    await until(async () => expect((await job()).state).toBe('done'));
    const { result } = await server.get<{ result: unknown }>(`/jobs/${asked.id}/result`);
    expect(result).toEqual(toWire(await drive(inThisThread, { id: 'simulate', request, sample: NO_READINGS })));
  });
});
