import type { Evidence, KeepInput, Recomputed } from '@verdict/contract';
import {
  boxAnalysis,
  distributionAnalysis,
  histogramAnalysis,
  inThisThread,
  normalityAnalysis,
} from '@verdict/core/analyses';
import { analysisById } from '@verdict/core/analyses';
import { fingerprintOf, NO_READINGS, toSample } from '@verdict/core/readings';
import { drive, toWire, type AnyAnalysis } from '@verdict/core/road';
import { sampleInParts } from '@verdict/core/table';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { findingOf } from '../src/store/evidence.js';
import { column, sharedServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const READINGS = ['7.80', '7.92', '7.94', '7.97', '8.19', '8.10', '7.96', '8.17', '8.00', '7.95', '8.16', '8.07'];

/** A study of twelve readings, and what a page would keep of its normality test. */
async function keepable(): Promise<{ id: string; columnId: string; keep: KeepInput }> {
  const id = await server.newStudy();
  const added = column('thickness', READINGS);
  await server.change(id, { kind: 'add-columns', columns: [added] });
  const sample = toSample(added, READINGS, new Set());
  const request = { column: 'thickness', alpha: 0.05, seed: 7, replicates: 999 };
  const result = toWire(await drive(inThisThread, { id: 'normality', request, sample })) as Record<string, unknown>;
  const keep = {
    ...{ id: randomUUID(), who: 'tester', analysis: 'normality', version: normalityAnalysis.version, column: added.id },
    ...{ parts: null, request, fingerprint: fingerprintOf(sample), result, note: '' },
  };
  return { id, columnId: added.id, keep };
}
const recompute = (id: string) => server.post<Recomputed>(`/evidence/${id}/recompute`, {});

describe('evidence', () => {
  it('is kept with method, finding, seed, fingerprint and versions, and once however often it is sent', async () => {
    const { id, keep } = await keepable();
    expect((await server.post(`/studies/${id}/evidence`, keep)).status).toBe(201);
    await server.post(`/studies/${id}/evidence`, keep);
    const list = await server.get<Evidence[]>(`/studies/${id}/evidence`);
    expect(list).toHaveLength(1);
    expect(list[0]).toMatchObject({
      seed: 7,
      fingerprint: keep.fingerprint,
      revision: 1,
      appVersion: '0.1.0',
      result: keep.result,
    });
    expect(list[0]!.method).toBe(
      'Test thickness for normality by Anderson–Darling, mean and standard deviation estimated, p from 999 simulated samples, seed 7.',
    );
    expect(list[0]!.finding.map(({ text }) => text).join('')).toContain('No evidence against a normal distribution');
  });

  it('about no column is kept, recomputed and saved where the analysis needs none, and refused where it does', async () => {
    const { id, keep } = await keepable();
    const request = { family: 'normal', parameters: { mean: 8.02, sd: 0.11 }, above: 8.2 };
    const answer = await drive(inThisThread, { id: 'distribution', request, sample: NO_READINGS });
    const alone = {
      ...{
        id: randomUUID(),
        who: 'tester',
        analysis: 'distribution',
        version: distributionAnalysis.version,
        column: null,
        parts: null,
      },
      ...{ request, fingerprint: fingerprintOf(NO_READINGS), result: toWire(answer), note: '' },
    };
    expect((await server.post(`/studies/${id}/evidence`, alone)).status).toBe(201);
    const [kept] = await server.get<Evidence[]>(`/studies/${id}/evidence`);
    expect(kept).toMatchObject({
      column: null,
      method: expect.stringContaining('what is the probability of a value above 8.2?'),
    });
    expect((await recompute(alone.id)).body).toMatchObject({ same: true, sameData: true });
    const refused = await server.post(`/studies/${id}/evidence`, { ...keep, column: null });
    expect(refused.status).toBe(422);
    const saved = await server.get<{ evidence: { columnId: string | null }[] }>(`/studies/${id}/saved`);
    expect(saved.evidence.map(({ columnId }) => columnId)).toEqual([null]);
  });

  it('by the levels of a column, or beside others, recomputes to the same bits, whatever the columns are called since', async () => {
    const id = await server.newStudy();
    const thickness = column('thickness', READINGS);
    const width = column(
      'width',
      READINGS.map((text) => `1${text}`),
    );
    const kiln = column(
      'kiln',
      READINGS.map((_, i) => (i % 3 ? 'north' : 'south')),
      { kind: 'label' },
    );
    await server.change(id, { kind: 'add-columns', columns: [thickness, width, kiln] });
    const table = {
      rowCount: 12,
      columns: [thickness, width, kiln],
      cells: Object.fromEntries([thickness, width, kiln].map(({ id: own, cells }) => [own, cells])),
      setAside: () => new Set<number>(),
    };
    const keeps = [
      {
        analysis: histogramAnalysis,
        parts: { split: kiln.id },
        request: { column: 'thickness', split: 'kiln' },
        by: { split: kiln },
      },
      {
        analysis: boxAnalysis,
        parts: { beside: [width.id] },
        request: { column: 'thickness', beside: ['width'] },
        by: { beside: [width] },
      },
    ];
    for (const { analysis, parts, request, by } of keeps) {
      const sample = sampleInParts(table, thickness, by);
      const keep: KeepInput = {
        ...{ id: randomUUID(), who: 'tester', analysis: analysis.id, version: analysis.version, column: thickness.id },
        ...{ parts, request, fingerprint: fingerprintOf(sample), note: '' },
        result: toWire(await drive(inThisThread, { id: analysis.id, request, sample })) as Record<string, unknown>,
      };
      const kept = await server.post<Evidence>(`/studies/${id}/evidence`, keep);
      expect([kept.status, kept.body.parts]).toEqual([201, parts]);
      await server.change(id, { kind: 'change-column', column: width.id, name: `breadth of ${analysis.id}` });
      expect((await recompute(keep.id)).body).toMatchObject({ same: true, sameData: true });
      await server.change(id, { kind: 'change-column', column: width.id, name: 'width' });
      // Evidence about other parts of the same readings is refused.
      const other = await server.post(`/studies/${id}/evidence`, { ...keep, id: randomUUID(), parts: null });
      expect(other.status).toBe(422);
    }
  });

  it('about labels, by other labels and of typed figures recomputes to the same bits, and numbers are not made of labels', async () => {
    const id = await server.newStudy();
    const label = (name: string, cells: string[]) => column(name, cells, { kind: 'label' });
    const fault = label('fault', ['chip', 'crack', 'chip', 'chip', '', 'stain', 'crack', 'chip', 'stain', 'chip']);
    const shift = label('shift', ['early', 'late', 'early', 'late', 'late', 'early', 'late', 'early', 'late', 'early']);
    await server.change(id, { kind: 'add-columns', columns: [fault, shift] });
    const table = {
      rowCount: 10,
      columns: [fault, shift],
      cells: { [fault.id]: fault.cells, [shift.id]: shift.cells },
      setAside: () => new Set<number>(),
    };
    const whole = sampleInParts(table, fault, null);
    const split = sampleInParts(table, fault, { split: shift });
    const figures = { n: 12, mean: 8.1, sd: 0.1 };
    const keeps = [
      { id: 'counts-claim', of: fault.id, parts: null, request: { column: 'fault' }, sample: whole },
      {
        id: 'table-claim',
        of: fault.id,
        parts: { split: shift.id },
        request: { column: 'fault', split: 'shift', method: 'simulated', replicates: 999 },
        sample: split,
      },
      { id: 'mean-claim', of: null, parts: null, request: { figures, claimed: 8 }, sample: NO_READINGS },
    ] as const;
    const kept: string[] = [];
    for (const { id: analysis, of, parts, request, sample } of keeps) {
      const keep: KeepInput = {
        ...{
          id: randomUUID(),
          who: 'tester',
          analysis,
          version: analysisById(analysis).version,
          column: of,
          parts,
          request,
          note: '',
        },
        fingerprint: fingerprintOf(sample),
        result: toWire(await drive(inThisThread, { id: analysis, request, sample })) as Record<string, unknown>,
      };
      expect((await server.post<Evidence>(`/studies/${id}/evidence`, keep)).status).toBe(201);
      kept.push(keep.id);
    }
    // What the columns are called since makes no other result.
    await server.change(id, { kind: 'change-column', column: fault.id, name: 'defect' });
    await server.change(id, { kind: 'change-column', column: shift.id, name: 'turn' });
    for (const one of kept) expect((await recompute(one)).body).toMatchObject({ same: true, sameData: true });

    const refused = await drive(inThisThread, { id: 'describe', request: { column: 'fault' }, sample: whole });
    expect(refused).toMatchObject({ available: false });
  });

  it('recomputes on the server to the same bits', async () => {
    const { id, keep } = await keepable();
    await server.post(`/studies/${id}/evidence`, keep);
    const { body } = await recompute(keep.id);
    expect(body).toMatchObject({ same: true, sameData: true, differences: [] });
  });

  it('says what differs, and that the data have changed since, from which change to which', async () => {
    const { id, columnId, keep } = await keepable();
    await server.post(`/studies/${id}/evidence`, keep);
    await server.change(id, { kind: 'set-aside', readings: [{ column: columnId, row: 1, reason: 'chipped' }] });
    const { body } = await recompute(keep.id);
    expect(body).toMatchObject({ same: false, sameData: false, keptRevision: 1, nowRevision: 2 });
    expect(body.differences).toContainEqual({ path: 'n', kept: 12, now: 11 });
  });

  it('takes a note while the study is open, and nothing else is changed by it', async () => {
    const { id, keep } = await keepable();
    await server.post(`/studies/${id}/evidence`, keep);
    const noted = await server.post<Evidence>(`/evidence/${keep.id}`, { note: ' second gauge ' });
    expect(noted.body).toMatchObject({ note: 'second gauge', result: keep.result });
    expect((await server.get<Evidence[]>(`/studies/${id}/evidence`))[0]!.note).toBe('second gauge');
    const ruling = { revision: 1, who: 'x', decision: 'not-settled', reason: 'r', evidence: [] };
    await server.post(`/studies/${id}/verdict`, ruling);
    expect((await server.post(`/evidence/${keep.id}`, { note: 'late' })).body.code).toBe('ruled');
  });

  it('has a fault of its words blamed on the result only where words are found for a result of our own', () => {
    const finding = (result: unknown) => {
      if (!(result as { n?: number }).n) throw new TypeError('no n');
      return (result as { n: number }).n > 9 ? undefined : [{ text: 'well' }];
    };
    const analysis = { finding } as unknown as AnyAnalysis;
    const own = (result: object) => () => ({ done: true as const, result });
    expect(findingOf(analysis, { n: 3 }, own({}))).toEqual([{ text: 'well' }]);
    expect(() => findingOf(analysis, {}, own({ n: 3 }))).toThrow('does not have the form');
    expect(() => findingOf(analysis, {}, own({}))).toThrow('no n');
    const none = own({ available: false, reason: 'no readings', n: 0, missing: 0, setAside: 0 });
    expect(() => findingOf(analysis, { available: {} }, none)).toThrow('does not have the form');
    expect(() => findingOf(analysis, { n: 10 }, own({ n: 3 }))).toThrow('does not have the form');
  });

  it('is sent to every window when kept or annotated; one that connects later gets the count', async () => {
    const { id, keep } = await keepable();
    const stop = new AbortController();
    const listen = async () => {
      const answer = await fetch(`${server.url}api/events?of=${id}`, { signal: stop.signal });
      const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
      let heard = '';
      return async (text: string) => {
        while (!heard.includes(text)) heard += (await reader.read()).value;
        heard = heard.slice(heard.indexOf(text) + text.length);
      };
    };
    const until = await listen();
    await until('"kept":0');
    await server.post(`/studies/${id}/evidence`, keep);
    await until(`event: kept\ndata: {"of":"${id}","told":{"id":"${keep.id}"}}`);
    await server.post(`/evidence/${keep.id}`, { note: 'second gauge' });
    await until(`event: kept\ndata: {"of":"${id}","told":{"id":"${keep.id}"}}`);
    await (
      await listen()
    )('"kept":1');
    stop.abort();
  });

  it('that was tampered with is found out although the data are the same', async () => {
    const { id, keep } = await keepable();
    await server.post(`/studies/${id}/evidence`, { ...keep, result: { ...keep.result, mean: 9 } });
    const { body } = await recompute(keep.id);
    expect(body).toMatchObject({ same: false, sameData: true, differences: [{ path: 'mean', kept: 9 }] });
  });

  it('about other numbers, of no known form, or by another version is refused', async () => {
    const { id, keep } = await keepable();
    const post = (more: object) => server.post(`/studies/${id}/evidence`, { ...keep, ...more });
    expect((await post({ fingerprint: '0'.repeat(64) })).body).toMatchObject({ status: 409, code: 'data-changed' });
    expect((await post({ result: { mean: 8 } })).body).toMatchObject({ status: 422, field: 'result' });
    expect((await post({ version: 9 })).body).toMatchObject({ status: 422, field: 'version' });
    expect((await post({ analysis: 'guess' })).body).toMatchObject({ status: 422, field: 'analysis' });
    expect((await post({ request: { column: 'x', alpha: 7 } })).body).toMatchObject({ status: 422, field: 'alpha' });
    expect(await server.get<Evidence[]>(`/studies/${id}/evidence`)).toEqual([]);
  });
});

describe('verdict', () => {
  const ruling = (more: object) => ({
    revision: 1,
    who: 'tester',
    decision: 'treat-as-normal',
    reason: 'Straight plot.',
    evidence: [],
    ...more,
  });

  it('is stored, closes the study to changes, and can be reopened with a reason', async () => {
    const { id, keep } = await keepable();
    await server.post(`/studies/${id}/evidence`, keep);
    expect(
      (await server.post(`/studies/${id}/verdict`, ruling({ evidence: [keep.id], leftOpen: 'the step is known' })))
        .status,
    ).toBe(200);
    expect(await server.study(id)).toMatchObject({ state: 'ruled', canUndo: null });
    const refused = await server.change(id, { kind: 'change-study', alpha: 0.01 });
    expect(refused.body).toMatchObject({ status: 409, code: 'ruled' });
    expect((await server.post(`/studies/${id}/verdict`, ruling({ revision: 2 }))).body.code).toBe('ruled');
    await server.post(`/studies/${id}/reopen`, { revision: 2, who: 'second', reason: 'Gauge found worn.' });
    const { state, verdicts } = await server.study(id);
    expect(state).toBe('open');
    expect(verdicts[0]).toMatchObject({
      decision: 'treat-as-normal',
      evidence: [keep.id],
      reopened: { who: 'second', reason: 'Gauge found worn.' },
    });
    expect((await server.change(id, { kind: 'change-study', alpha: 0.01 })).status).toBe(200);
  });

  it('needs a decision and a reason, and the revision it was made on', async () => {
    const { id } = await keepable();
    const post = (more: object) => server.post(`/studies/${id}/verdict`, ruling(more));
    expect((await post({ reason: '  ' })).body).toMatchObject({ status: 422, field: 'reason' });
    expect((await post({ evidence: [randomUUID()] })).body).toMatchObject({ status: 422, field: 'evidence' });
    expect((await post({ decision: 'guilty' })).body).toMatchObject({ status: 422, field: 'decision' });
    expect((await post({ revision: 0 })).body).toMatchObject({ status: 409, code: 'stale' });
    expect((await server.post(`/studies/${id}/reopen`, { revision: 1, who: 'x', reason: 'y' })).body.code).toBe(
      'not-ruled',
    );
  });
});
