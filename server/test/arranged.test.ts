import {
  cautionsOf,
  type Evidence,
  type KeepInput,
  type Look,
  type StudyFile,
  type StudySummary,
} from '@verdict/contract';
import { inThisThread, normalityAnalysis } from '@verdict/core/analyses';
import { fingerprintOf, toSample } from '@verdict/core/readings';
import { drive, toWire } from '@verdict/core/road';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keepOf } from './keeping.js';
import { column, sharedServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

/** Coarse enough that the test of normality has something to mind. */
const READINGS = ['7.8', '7.9', '7.9', '8.0', '8.2', '8.1', '8.0', '8.2', '8.0', '8.0', '8.2', '8.1'];

async function normalityOf(columnId: string, cells: string[]): Promise<KeepInput> {
  const sample = toSample(column('thickness', cells), cells, new Set());
  const request = { column: 'thickness', alpha: 0.05, seed: 7, replicates: 199 };
  const result = toWire(await drive(inThisThread, { id: 'normality', request, sample })) as Record<string, unknown>;
  return {
    ...{ id: randomUUID(), who: 'tester', analysis: 'normality', version: normalityAnalysis.version },
    ...{ column: columnId, request, fingerprint: fingerprintOf(sample), result },
  };
}

/** A study with a description and a test of its readings kept. */
async function kept() {
  const id = await server.newStudy();
  const added = column('thickness', READINGS);
  await server.change(id, { kind: 'add-columns', columns: [added] });
  const described = keepOf(added.id, READINGS);
  const tested = await normalityOf(added.id, READINGS);
  for (const keep of [described, tested]) {
    const answer = await server.post(`/studies/${id}/evidence`, keep);
    expect(answer.status, JSON.stringify(answer.body)).toBe(201);
  }
  return { id, columnId: added.id, described: described.id, tested: tested.id };
}
const listOf = (id: string) => server.get<Evidence[]>(`/studies/${id}/evidence`);
const say = (id: string, said: object) => server.post<Evidence>(`/evidence/${id}`, said);
const pieceOf = async (id: string, piece: string) => (await listOf(id)).find((item) => item.id === piece)!;

describe('evidence on the sheet', () => {
  it('is put in order, left out and put back, and led by one piece at a time', async () => {
    const { id, described, tested } = await kept();
    expect((await listOf(id)).map(({ place, leftOut, leads }) => [place, leftOut, leads])).toEqual([
      [null, false, false],
      [null, false, false],
    ]);
    expect((await server.post(`/studies/${id}/evidence/order`, { order: [tested, described] })).status).toBe(204);
    expect([(await pieceOf(id, tested)).place, (await pieceOf(id, described)).place]).toEqual([0, 1]);
    await say(described, { leads: true });
    await say(tested, { leads: true });
    expect([(await pieceOf(id, tested)).leads, (await pieceOf(id, described)).leads]).toEqual([true, false]);
    await say(tested, { leads: false, leftOut: true });
    expect(await pieceOf(id, tested)).toMatchObject({ leads: false, leftOut: true, place: 0 });
    // The order of another study moves nothing here.
    const other = await kept();
    await server.post(`/studies/${other.id}/evidence/order`, { order: [described] });
    expect((await pieceOf(id, described)).place).toBe(1);
  });

  it('has its cautions answered in words, each once, and only what the result really says', async () => {
    const { id, tested } = await kept();
    const [caution] = cautionsOf((await pieceOf(id, tested)).result);
    expect(caution).toBeTruthy();
    await say(tested, { answer: { to: caution, words: 'a first answer', who: 'A' } });
    const { body } = await say(tested, { answer: { to: caution, words: ' the gauge reads to 0.1 ', who: 'B' } });
    expect(body.answers).toMatchObject([{ to: caution, words: 'the gauge reads to 0.1', who: 'B' }]);
    expect((await say(tested, { answer: { to: 'it does not say so', words: 'x', who: 'B' } })).status).toBe(422);
    expect((await say(tested, { answer: { to: caution, words: '', who: 'B' } })).body.answers).toEqual([]);
    expect((await say(tested, { result: {} })).status).toBe(422);
  });

  it('is stale once its readings have changed, and is replaced when run again', async () => {
    const { id, columnId, described, tested } = await kept();
    await say(tested, { leads: true });
    await server.post(`/studies/${id}/evidence/order`, { order: [tested, described] });
    const stale = async () => (await server.get<{ stale: string[] }>(`/studies/${id}/evidence/stale`)).stale;
    await server.change(id, { kind: 'change-column', column: columnId, name: 'depth' });
    expect(await stale()).toEqual([]);
    await server.change(id, { kind: 'edit-cells', runs: [{ column: columnId, row: 1, texts: ['7.7'] }] });
    expect((await stale()).sort()).toEqual([described, tested].sort());
    const anew = await normalityOf(columnId, ['7.7', ...READINGS.slice(1)]);
    const again = await server.post<Evidence>(`/studies/${id}/evidence`, { ...anew, replaces: tested });
    expect(again.body).toMatchObject({ replaces: tested, place: 0, leads: true, leftOut: false, answers: [] });
    expect(await pieceOf(id, tested)).toMatchObject({ leftOut: true, leads: false });
    expect(await stale()).not.toContain(again.body.id);
    const foreign = await kept();
    const body = { ...anew, id: randomUUID(), replaces: foreign.tested };
    expect((await server.post(`/studies/${id}/evidence`, body)).body).toMatchObject({ status: 422, field: 'replaces' });
    // A column that is gone leaves its evidence stale, not unreadable.
    await server.change(id, { kind: 'remove-columns', columns: [columnId] });
    expect(await stale()).toContain(again.body.id);
  });
});

describe('a verdict', () => {
  const ruling = (revision: number, more: object = {}) => ({
    ...{ revision, who: 'tester', decision: 'treat-as-normal', reason: 'a straight plot', evidence: [] as string[] },
    ...more,
  });

  it('is not put on record while a caution of its evidence is unanswered, unless it says why that is left open', async () => {
    const { id, tested, described } = await kept();
    const rule = (more: object) => server.post(`/studies/${id}/verdict`, ruling(1, more));
    const refused = await rule({ evidence: [tested] });
    expect(refused.body).toMatchObject({ status: 422, field: 'leftOpen' });
    expect(refused.body.detail).toMatch(/^Not yet: .*not answered/);
    for (const caution of cautionsOf((await pieceOf(id, tested)).result))
      await say(tested, { answer: { to: caution, words: 'seen to', who: 'A' } });
    for (const caution of cautionsOf((await pieceOf(id, described)).result))
      await say(described, { answer: { to: caution, words: 'seen to', who: 'A' } });
    expect((await rule({ evidence: [tested, described] })).status).toBe(200);
    const [verdict] = (await server.study(id)).verdicts;
    expect(verdict).toMatchObject({ evidence: [tested, described], leftOpen: '', family: null });
    // It is closed: nothing more is said of its evidence.
    expect((await say(tested, { leftOut: true })).body.code).toBe('ruled');
    expect((await server.post(`/studies/${id}/evidence/order`, { order: [tested] })).body.code).toBe('ruled');
  });

  it('rests on evidence whose readings have changed only where it says why', async () => {
    const { id, columnId, described } = await kept();
    for (const caution of cautionsOf((await pieceOf(id, described)).result))
      await say(described, { answer: { to: caution, words: 'seen to', who: 'A' } });
    await server.change(id, { kind: 'edit-cells', runs: [{ column: columnId, row: 1, texts: ['7.7'] }] });
    const refused = await server.post(`/studies/${id}/verdict`, ruling(2, { evidence: [described] }));
    expect(refused.body.detail).toContain('the readings of one result have changed');
    const leftOpen = 'The first reading was mistyped by a tenth.';
    expect((await server.post(`/studies/${id}/verdict`, ruling(2, { evidence: [described], leftOpen }))).status).toBe(
      200,
    );
    expect((await server.study(id)).verdicts[0]).toMatchObject({ leftOpen });
  });

  it('names a family where it is about one, and nowhere else; the list of studies and the record say it', async () => {
    const { id } = await kept();
    const rule = (more: object) => server.post(`/studies/${id}/verdict`, ruling(1, more));
    expect((await rule({ decision: 'treat-as-family' })).body.field).toBe('family');
    expect((await rule({ family: 'Weibull' })).body.field).toBe('family');
    expect((await rule({ decision: 'as-you-like' })).status).toBe(422);
    expect((await rule({ decision: 'treat-as-family', family: 'Weibull' })).status).toBe(200);
    const listed = (await server.get<StudySummary[]>('/studies')).find((study) => study.id === id)!;
    expect(listed).toMatchObject({ decision: 'treat-as-family', family: 'Weibull', changedBy: 'tester' });
    const record = await server.get<{ text: string }[]>(`/studies/${id}/changes`);
    expect(record.some(({ text }) => text === 'Verdict: treat as Weibull')).toBe(true);
  });
});

const digest = (fill: string) => fill.repeat(64);

describe('viewed results', () => {
  it('is noted once each, counted with the verdict, and not noted any more once it is ruled', async () => {
    const { id, columnId } = await kept();
    const look = (fill: string, tests: number) => ({
      digest: digest(fill),
      analysis: 'normality',
      column: columnId,
      tests,
    });
    const note = (...looks: object[]) => server.post(`/studies/${id}/looks`, { looks });
    expect((await note(look('a', 9), look('b', 1))).status).toBe(204);
    await note(look('a', 9));
    expect(await server.get<Look[]>(`/studies/${id}/looks`)).toHaveLength(2);
    expect((await note({ ...look('c', 1), digest: 'short' })).status).toBe(422);
    const body = { revision: 1, who: 'tester', decision: 'not-settled', reason: 'r', evidence: [] };
    expect((await server.post(`/studies/${id}/verdict`, body)).status).toBe(200);
    expect((await server.study(id)).verdicts[0]!.looked).toEqual({ results: 2, tests: 10 });
    expect((await note(look('d', 1))).status).toBe(204);
    expect(await server.get<Look[]>(`/studies/${id}/looks`)).toHaveLength(2);
  });
});

describe('a study', () => {
  it('begins with a question, takes tags, and both can be taken back', async () => {
    const { body } = await server.post<{ id: string }>('/studies', { asks: 'claim' });
    const { id } = body;
    expect((await server.study(id)).asks).toBe('claim');
    await server.change(id, { kind: 'change-study', asks: 'differ', tags: ['glaze', 'week 46'] });
    expect(await server.study(id)).toMatchObject({ asks: 'differ', tags: ['glaze', 'week 46'] });
    expect((await server.change(id, { kind: 'change-study', tags: ['a', 'a'] })).status).toBe(422);
    await server.step(id, 'undo');
    expect(await server.study(id)).toMatchObject({ asks: 'claim', tags: [] });
    expect((await server.post('/studies', { asks: 'anything' })).status).toBe(422);
  });

  it('is listed with its columns, who changed it last, and its readings in bins', async () => {
    const { id } = await kept();
    const find = async () => (await server.get<StudySummary[]>('/studies')).find((study) => study.id === id)!;
    await expect.poll(async () => (await find()).bins?.reduce((a, b) => a + b)).toBe(12);
    expect(await find()).toMatchObject({ columns: ['thickness'], changedBy: 'tester', tags: [], asks: null });
  });

  it('goes with its question, tags, arranged evidence, answers and looks into a file and out of it', async () => {
    const { id, columnId, tested, described } = await kept();
    await server.change(id, { kind: 'change-study', asks: 'normal', tags: ['tiles'] });
    const [caution] = cautionsOf((await pieceOf(id, tested)).result);
    await say(tested, { answer: { to: caution, words: 'seen to', who: 'A' }, leads: true });
    await server.post(`/studies/${id}/evidence/order`, { order: [tested, described] });
    const looks = [{ digest: digest('e'), analysis: 'normality', column: columnId, tests: 9 }];
    await server.post(`/studies/${id}/looks`, { looks });
    const rule = { revision: 2, who: 'x', decision: 'treat-as-family', family: 'gamma', reason: 'r' };
    await server.post(`/studies/${id}/verdict`, { ...rule, evidence: [tested], leftOpen: 'time was short' });
    const file = await server.get<StudyFile>(`/studies/${id}/saved`);
    const opened = await server.post<{ id: string }>('/studies/saved?who=tester', file);
    expect(opened.status, JSON.stringify(opened.body)).toBe(201);
    const copy = await server.study(opened.body.id);
    expect(copy).toMatchObject({ asks: 'normal', tags: ['tiles'] });
    const pieces = await listOf(opened.body.id);
    const lead = pieces.find(({ leads }) => leads)!;
    expect(lead).toMatchObject({ place: 0, answers: [{ to: caution, words: 'seen to' }] });
    expect(copy.verdicts[0]).toMatchObject({
      ...{ family: 'gamma', leftOpen: 'time was short', looked: { results: 1, tests: 9 }, evidence: [lead.id] },
    });
    expect(await server.get<Look[]>(`/studies/${opened.body.id}/looks`)).toMatchObject([{ tests: 9 }]);
    // Damaged: a look that stands in it twice.
    const twice = { ...file, looks: [...file.looks, ...file.looks] };
    expect((await server.post('/studies/saved?who=tester', twice)).body.field).toBe('looks');
  });
});
