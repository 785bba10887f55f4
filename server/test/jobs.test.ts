import type { Job, JobRequest } from '@verdict/contract';
import { goodnessOfFitAnalysis, inThisThread } from '@verdict/core/analyses';
import { fingerprintOf, toSample } from '@verdict/core/readings';
import { drive, toWire } from '@verdict/core/road';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { FairTurns } from '../src/jobs/fair-turns.js';
import { column, startServer, type TestServer } from './running.js';
import { until } from './until.js';

let server: TestServer;
const start = () => startServer(undefined, undefined, null, { storeEveryMilliseconds: 50 });
beforeAll(async () => {
  server = await start();
});
afterAll(() => server.close());

const READINGS = ['7.80', '7.92', '7.94', '7.97', '8.19', '8.10', '7.96', '8.17', '8.00', '7.95', '8.16', '8.07'];
/** A family without a closed form: ten thousand samples take about a second. */
const LOGISTIC = { column: 'thickness', family: 'logistic', seed: 3 };

async function askable(replicates: number) {
  const id = await server.newStudy();
  const added = column('thickness', READINGS);
  await server.change(id, { kind: 'add-columns', columns: [added] });
  const sample = toSample(added, READINGS, new Set());
  const request = { ...LOGISTIC, replicates };
  const asked: JobRequest = {
    ...{ id: randomUUID(), who: 'tester', analysis: 'goodness-of-fit', version: goodnessOfFitAnalysis.version },
    ...{ column: added.id, parts: null, request, fingerprint: fingerprintOf(sample) },
    place: `/studies/${id}/fit?plot.family=logistic`,
  };
  const own = () => drive(inThisThread, { id: 'goodness-of-fit', request, sample }).then(toWire);
  return { id, columnId: added.id, asked, own };
}
const hand = (id: string, asked: object) => server.post<Job>(`/studies/${id}/jobs`, asked);
const jobOf = async (on: TestServer, id: string, jobId: string) =>
  (await on.get<Job[]>(`/studies/${id}/jobs`)).find((job) => job.id === jobId)!;
const jobWhere = (on: TestServer, id: string, jobId: string, holds: (job: Job) => boolean) =>
  until(async () => {
    const job = await jobOf(on, id, jobId);
    if (!holds(job)) throw new Error(`still ${job.state} at ${job.share}`);
    return job;
  });
const isDone = ({ state }: Job) => state === 'done';
const resultOf = async (on: TestServer, jobId: string) =>
  (await on.get<{ result: unknown }>(`/jobs/${jobId}/result`)).result;

describe('long work handed to the server', () => {
  it('comes to the bits that the page would have come to, once however often it is asked', async () => {
    const { id, asked, own } = await askable(300);
    const { status, body } = await hand(id, asked);
    expect([status, body.state, body.study.id]).toEqual([201, 'running', id]);
    expect(body.method).toContain('Test thickness for the logistic distribution');
    await hand(id, asked);
    const done = await jobWhere(server, id, asked.id, isDone);
    expect([done.share, done.place, done.problem]).toEqual([1, asked.place, null]);
    expect(await resultOf(server, asked.id)).toEqual(await own());
    expect((await server.get<Job[]>(`/studies/${id}/jobs`)).length).toBe(1);
    expect((await server.get<Job[]>('/jobs')).map((job) => job.id)).toContain(asked.id);
  });

  it('survives a restart of the server: stored chunks are not computed again, and the bits are the same', async () => {
    const { id, asked, own } = await askable(30_000);
    await hand(id, asked);
    await jobWhere(server, id, asked.id, ({ share }) => share > 0);
    await server.stop();
    server = await start();
    const again = await jobOf(server, id, asked.id);
    expect([again.state, again.share > 0]).toEqual(['running', true]);
    const seen: number[] = [];
    await jobWhere(server, id, asked.id, (job) => {
      seen.push(job.share);
      return isDone(job);
    });
    expect(Math.min(...seen)).toBeGreaterThanOrEqual(again.share);
    expect(await resultOf(server, asked.id)).toEqual(await own());
  });

  it('is stopped, goes on where it was, and is taken off the list once it has ended', async () => {
    const { id, asked, own } = await askable(30_000);
    await hand(id, asked);
    expect((await server.post(`/jobs/${asked.id}/resume`, {})).status).toBe(422);
    expect((await fetch(`${server.url}api/jobs/${asked.id}`, { method: 'DELETE' })).status).toBe(422);
    await jobWhere(server, id, asked.id, ({ share }) => share > 0);
    const stopped = await server.post<Job>(`/jobs/${asked.id}/stop`, {});
    expect([stopped.status, stopped.body.state, stopped.body.endedAt === null]).toEqual([200, 'stopped', false]);
    expect((await server.get<{ status: number }>(`/jobs/${asked.id}/result`)).status).toBe(404);
    const going = await server.post<Job>(`/jobs/${asked.id}/resume`, {});
    expect([going.body.state, going.body.share]).toEqual(['running', stopped.body.share]);
    await jobWhere(server, id, asked.id, isDone);
    expect(await resultOf(server, asked.id)).toEqual(await own());
    expect((await fetch(`${server.url}api/jobs/${asked.id}`, { method: 'DELETE' })).status).toBe(204);
    expect(await jobOf(server, id, asked.id)).toBeUndefined();
  });

  it('sends its progress to every window', async () => {
    const { id, asked } = await askable(20_000);
    const events = await fetch(`${server.url}api/events?of=jobs`);
    const reader = events.body!.pipeThrough(new TextDecoderStream()).getReader();
    await hand(id, asked);
    let heard = '';
    while (!/"state":"done"/.test(heard)) heard += (await reader.read()).value ?? '';
    await reader.cancel();
    const told = [...heard.matchAll(/^event: job\ndata: (.*)$/gm)].map(
      ([, json]) => (JSON.parse(json!) as { told: Job }).told,
    );
    const own = told.filter((job) => job.id === asked.id);
    expect(own.at(-1)).toMatchObject({ state: 'done', share: 1 });
    expect(own.length).toBeGreaterThan(1);
  });

  it('is begun beside whole columns on their way: it does not wait behind them', async () => {
    const derivation = { kind: 'made-up', family: 'normal', parameters: { mean: 8, sd: 0.1 }, count: 200_000, seed: 1 };
    const large = await Promise.all(
      Array.from({ length: 6 }, async () => {
        const id = await server.newStudy();
        const made = column('made', [], { derivation: { ...derivation, step: 0.01 } });
        expect((await server.change(id, { kind: 'add-columns', columns: [made] })).status).toBe(200);
        return { id, made };
      }),
    );
    const { id, asked } = await askable(300);
    const ended: string[] = [];
    const freezing = large.map(async ({ id: of, made }) => {
      expect((await server.change(of, { kind: 'freeze-column', column: made.id }, 1)).status).toBe(200);
      ended.push('frozen');
    });
    const begun = hand(id, asked).then(({ status }) => ended.push(`begun ${status}`));
    await Promise.all([...freezing, begun]);
    expect(ended.indexOf('begun 201')).toBeLessThan(4);
    await jobWhere(server, id, asked.id, isDone);
  });

  it('is refused about other readings, in another version, from elsewhere, and under an id that is taken', async () => {
    const { id, columnId, asked } = await askable(300);
    const other = await askable(300);
    const refused = async (change: object) => {
      const { status, body } = await hand(id, { ...asked, id: randomUUID(), ...change });
      return [status, body.field ?? body.code];
    };
    expect(await refused({ version: 99 })).toEqual([422, 'version']);
    expect(await refused({ request: { ...asked.request, split: 'kiln' } })).toEqual([422, 'parts']);
    expect(await refused({ place: `/studies/${other.id}/fit` })).toEqual([422, 'place']);
    expect(await refused({ place: 'https://elsewhere' })).toEqual([422, 'place']);
    expect(await refused({ analysis: 'no-such' })).toEqual([422, 'analysis']);
    expect(await refused({ column: null })).toEqual([422, 'column']);
    expect(await refused({ request: { ...asked.request, family: 'no-such' } })).toEqual([422, 'family']);
    expect(await refused({ fingerprint: '0'.repeat(64) })).toEqual([409, 'data-changed']);
    await hand(other.id, other.asked);
    expect(await refused({ id: other.asked.id })).toEqual([422, 'id']);
    expect((await server.post(`/jobs/${randomUUID()}/stop`, {})).status).toBe(404);
    await server.change(id, { kind: 'edit-cells', runs: [{ column: columnId, row: 1, texts: ['7.70'] }] });
    expect((await hand(id, asked)).status).toBe(409);
    await jobWhere(server, other.id, other.asked.id, isDone);
  });

  it('says why where the readings do not allow it', async () => {
    const id = await server.newStudy();
    const added = column('thickness', ['7.80', '7.80', '7.80', '7.80']);
    await server.change(id, { kind: 'add-columns', columns: [added] });
    const fingerprint = fingerprintOf(toSample(added, added.cells, new Set()));
    const { asked } = await askable(300);
    await hand(id, { ...asked, column: added.id, fingerprint, place: `/studies/${id}/fit` });
    const ended = await jobWhere(server, id, asked.id, ({ state }) => state !== 'running');
    expect([ended.state, ended.problem]).toEqual([
      'failed',
      expect.stringContaining('the test needs readings that vary'),
    ]);
  });

  it('is not listed while its study is in the bin', async () => {
    const { id, asked } = await askable(200);
    await hand(id, asked);
    await jobWhere(server, id, asked.id, isDone);
    await fetch(`${server.url}api/studies/${id}?who=tester`, { method: 'DELETE' });
    expect((await server.get<Job[]>('/jobs')).map((job) => job.id)).not.toContain(asked.id);
  });
});

describe('turns', () => {
  it('go round the owners, however much one of them has waiting', async () => {
    const turns = new FairTurns(1);
    const done: string[] = [];
    const work = (owner: string, k: number) =>
      turns.take(owner, async () => {
        await Promise.resolve();
        done.push(`${owner}${k}`);
      });
    const many = [1, 2, 3, 4, 5].map((k) => work('a', k));
    await Promise.all([...many, work('b', 1), work('b', 2)]);
    expect(done).toEqual(['a1', 'a2', 'b1', 'a3', 'b2', 'a4', 'a5']);
  });

  it('are never more at once than there are lanes, and a failing one frees its lane', async () => {
    const turns = new FairTurns(2);
    let [now, most] = [0, 0];
    const work = (k: number) =>
      turns.take('a', async () => {
        most = Math.max(most, ++now);
        await Promise.resolve();
        now--;
        if (k % 2 === 0) throw new Error('no');
      });
    const outcomes = await Promise.allSettled([1, 2, 3, 4, 5, 6].map(work));
    expect([most, outcomes.filter(({ status }) => status === 'rejected').length]).toEqual([2, 3]);
  });
});
