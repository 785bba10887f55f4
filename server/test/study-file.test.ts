import { BODY_LIMIT, type Evidence, type Recomputed, type StudyFile, type StudySummary } from '@verdict/contract';
import { advance, describeAnalysis } from '@verdict/core/analyses';
import { fingerprintOf, toSample } from '@verdict/core/readings';
import { sampleInParts } from '@verdict/core/table';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startMariaDb } from '../../scripts/mariadb.mjs';
import { column, sharedServer, startServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const VALUES = '7.80 7.92 7.94 7.97 8.19 8.10 7.96 8.17 8.00 7.95 8.16 9.87'.split(' ');

/** A study with a set-aside reading, a derived column, an undone edit, a removed column, evidence and a verdict. */
async function fullStudy(): Promise<string> {
  const id = await server.newStudy();
  const a = column('thickness', VALUES);
  const gone = column('gone', ['x'], { kind: 'label' });
  const rank = column('rank', [], { derivation: { kind: 'formula', expression: `[${a.id}] * 2` } });
  await server.change(id, { kind: 'add-columns', columns: [a, gone] });
  await server.change(id, { kind: 'add-columns', columns: [rank] });
  await server.change(id, { kind: 'set-aside', readings: [{ column: a.id, row: 12, reason: 'caliper not closed' }] });
  await server.change(id, { kind: 'remove-columns', columns: [gone.id] });
  await server.change(id, { kind: 'leave-in', readings: [{ column: a.id, row: 11, reason: 'no cause found' }] });
  const sample = toSample(a, VALUES, new Set([12]));
  const stage = advance('describe', { column: 'thickness' }, sample, []);
  if (!('result' in stage)) throw new Error('The analysis has no result.');
  const kept = {
    id: randomUUID(),
    who: 'tester',
    analysis: 'describe',
    version: describeAnalysis.version,
    column: a.id,
    parts: null,
    request: { column: 'thickness' },
    fingerprint: fingerprintOf(sample),
    result: stage.result,
    note: 'as received',
  };
  expect((await server.post(`/studies/${id}/evidence`, kept)).status).toBe(201);
  const { revision } = await server.study(id);
  const ruling = { revision, who: 'tester', decision: 'not-settled', reason: 'too few', evidence: [kept.id] };
  expect((await server.post(`/studies/${id}/verdict`, ruling)).status).toBe(200);
  return id;
}

describe('a saved study', () => {
  it('opens on another installation with everything, and its evidence recomputes to the same bits there', async () => {
    const id = await fullStudy();
    const file = await server.get<StudyFile>(`/studies/${id}/saved`);
    const dir = mkdtempSync(join(tmpdir(), 'verdict-other-'));
    const database = await startMariaDb(dir, { lasting: false });
    const other = await startServer(database.url, database.migrationUrl);
    try {
      const opened = await other.post<{ id: string }>('/studies/saved?who=tester', file);
      expect(opened.status).toBe(201);
      const copy = await other.study(opened.body.id);
      const original = await server.study(id);
      const bare = (study: typeof copy) => ({
        ...{ name: study.name, state: study.state, revision: study.revision, rowCount: study.rowCount },
        columns: study.columns.map(({ id: _, derivation: __, ...facts }) => facts),
        setAside: study.setAside.map(({ row, reason, who, at }) => [row, reason, who, at]),
        leftIn: study.leftIn.map(({ row, reason, who, at }) => [row, reason, who, at]),
        verdicts: study.verdicts.map(({ decision, reason, who, at }) => [decision, reason, who, at]),
      });
      expect(bare(copy)).toEqual(bare(original));
      expect(copy.id).not.toBe(original.id);
      expect(copy.columns[1]!.derivation).toEqual({ kind: 'formula', expression: `[${copy.columns[0]!.id}] * 2` });
      const record = await other.get<{ text: string; at: string }[]>(`/studies/${copy.id}/changes`);
      const first = await server.get<{ text: string; at: string }[]>(`/studies/${id}/changes`);
      expect(record.map(({ text, at }) => [text, at])).toEqual(first.map(({ text, at }) => [text, at]));
      const [kept] = await other.get<Evidence[]>(`/studies/${copy.id}/evidence`);
      expect(copy.verdicts[0]!.evidence).toEqual([kept!.id]);
      const { body } = await other.post<Recomputed>(`/evidence/${kept!.id}/recompute`, {});
      expect(body).toMatchObject({ same: true, sameData: true, differences: [] });
      // The record still works: reopened, the removed column comes back with what it held.
      const revision = copy.revision;
      await other.post(`/studies/${copy.id}/reopen`, { revision, who: 'tester', reason: 'look again' });
      const token = randomUUID();
      const back = { token, revision: revision + 1, who: 'tester', step: 'take-back', target: 4 };
      expect((await other.post(`/studies/${copy.id}/steps`, back)).status).toBe(200);
      expect((await other.study(copy.id)).columns.map(({ name }) => name)).toEqual(['thickness', 'gone', 'rank']);
    } finally {
      await other.close();
      await database.stop();
      rmSync(dir, { recursive: true, force: true });
    }
  });

  it('keeps evidence in parts with the columns it is about, under their new ids', async () => {
    const id = await server.newStudy();
    const thickness = column('thickness', VALUES);
    const kiln = column(
      'kiln',
      VALUES.map((_, i) => (i % 2 ? 'north' : 'south')),
      { kind: 'label' },
    );
    const width = column(
      'width',
      VALUES.map((text) => `2${text}`),
    );
    await server.change(id, { kind: 'add-columns', columns: [thickness, kiln, width] });
    const table = {
      rowCount: VALUES.length,
      columns: [thickness, kiln, width],
      cells: { [thickness.id]: VALUES, [kiln.id]: kiln.cells, [width.id]: width.cells },
      setAside: () => new Set<number>(),
    };
    for (const [parts, request, by] of [
      [{ split: kiln.id }, { column: 'thickness', split: 'kiln' }, { split: kiln }],
      [{ beside: [width.id] }, { column: 'thickness', beside: ['width'] }, { beside: [width] }],
    ] as const) {
      const sample = sampleInParts(table, thickness, by);
      const stage = advance('describe', request, sample, []);
      if (!('result' in stage)) throw new Error('The analysis has no result.');
      const kept = {
        ...{ id: randomUUID(), who: 'tester', analysis: 'describe', version: describeAnalysis.version },
        ...{ column: thickness.id, parts, request, fingerprint: fingerprintOf(sample), result: stage.result, note: '' },
      };
      expect((await server.post(`/studies/${id}/evidence`, kept)).status).toBe(201);
    }
    const file = await server.get<StudyFile>(`/studies/${id}/saved`);
    const { body } = await server.post<{ id: string }>('/studies/saved?who=tester', file);
    const copy = await server.study(body.id);
    const idOf = (name: string) => copy.columns.find((one) => one.name === name)!.id;
    const evidence = await server.get<Evidence[]>(`/studies/${body.id}/evidence`);
    expect(evidence.map(({ parts }) => parts)).toEqual([{ split: idOf('kiln') }, { beside: [idOf('width')] }]);
    for (const piece of evidence) {
      const found = await server.post<Recomputed>(`/evidence/${piece.id}/recompute`, {});
      expect(found.body).toMatchObject({ same: true, sameData: true });
    }
  });

  it('opens twice on one installation, as two studies', async () => {
    const file = await server.get<StudyFile>(`/studies/${await fullStudy()}/saved`);
    const [one, two] = [
      await server.post<{ id: string }>('/studies/saved?who=tester', file),
      await server.post<{ id: string }>('/studies/saved?who=tester', file),
    ];
    expect(new Set([file.study.id, one.body.id, two.body.id]).size).toBe(3);
    // The list tells them from the one that began here.
    const listed = await server.get<StudySummary[]>('/studies');
    const openedAt = (id: string) => listed.find((study) => study.id === id)!.openedAt;
    expect(openedAt(file.study.id)).toBeNull();
    for (const { body } of [one, two]) expect(Date.parse(openedAt(body.id)!)).toBeGreaterThan(Date.now() - 60_000);
  });

  it('opens with evidence of an earlier version of an analysis, in the words it can be put into', async () => {
    const file = await server.get<StudyFile>(`/studies/${await fullStudy()}/saved`);
    const sample = toSample(column('thickness', VALUES), VALUES, new Set([12]));
    const stage = advance('normality', { column: 'thickness' }, sample, []) as { partial: { tests: unknown[] } };
    // Version 3 had A² alone and no choice.
    const { main: _, ...result } = { main: '', ...stage.partial, tests: stage.partial.tests.slice(0, 1) };
    const old = { ...file.evidence[0]!, id: randomUUID(), analysis: 'normality', version: 3, result };
    const opened = await server.post<{ id: string }>('/studies/saved?who=tester', {
      ...file,
      evidence: [...file.evidence, old],
    });
    expect(opened.status).toBe(201);
    const kept = await server.get<Evidence[]>(`/studies/${opened.body.id}/evidence`);
    const words = kept
      .find(({ analysis }) => analysis === 'normality')!
      .finding.map(({ text }) => text)
      .join('');
    expect(words).toContain('A² = ');
  });

  it('keeps a text that is also the id of something', async () => {
    const file = await server.get<StudyFile>(`/studies/${await fullStudy()}/saved`);
    const word = 'standard';
    const old = file.columns[0]!.id;
    const text = JSON.stringify(file).replaceAll(old, word);
    const named = JSON.parse(text) as StudyFile;
    const cells = named.columns.find(({ name }) => name === 'gone')!.cells;
    cells[0] = word;
    named.study.name = `a ${word} study`;
    named.changes[0]!.text = word;
    const { body } = await server.post<{ id: string }>('/studies/saved?who=tester', named);
    const copy = await server.get<StudyFile>(`/studies/${body.id}/saved`);
    expect(copy.columns.find(({ name }) => name === 'gone')!.cells[0]).toBe(word);
    expect([copy.study.name, copy.changes[0]!.text]).toEqual([`a ${word} study`, word]);
    // Here it has an id of its own; saved again, the one that its record knows.
    const own = await server.study(body.id);
    const renamed = own.columns.find(({ name }) => name === 'thickness')!.id;
    expect(renamed).not.toBe(word);
    expect(copy.columns.find(({ name }) => name === 'thickness')!.id).toBe(word);
    expect(own.columns.find(({ name }) => name === 'rank')!.derivation).toEqual({
      ...{ kind: 'formula', expression: `[${renamed}] * 2` },
    });
    expect(own.setAside[0]!.column).toBe(renamed);
  });

  it('with altered evidence says so: words are made from the result, and the result is recomputed', async () => {
    const file = await server.get<StudyFile>(`/studies/${await fullStudy()}/saved`);
    const [piece] = file.evidence;
    const finding = [{ text: 'Everything is in order.', strong: true }];
    const altered = { ...piece!, finding, result: { ...(piece!.result as object), mean: 7 } };
    const { body } = await server.post<{ id: string }>('/studies/saved?who=tester', { ...file, evidence: [altered] });
    const kept = async () => (await server.get<Evidence[]>(`/studies/${body.id}/evidence`))[0]!;
    expect((await kept()).finding.map(({ text }) => text).join('')).not.toContain('in order');
    await expect.poll(async () => (await kept()).recomputed?.same).toBe(false);
  });

  const first = <T>(list: T[], change: (item: T) => object) => list.map((item, i) => (i === 0 ? change(item) : item));
  it.each<[string, (file: StudyFile) => object, string]>([
    ['another format', () => ({ format: 'else' }), 'not a study file'],
    ['a later version', () => ({ version: 3 }), 'another version'],
    ['a broken column', () => ({ columns: [{}] }), ''],
    ['a column twice', ({ columns }) => ({ columns: [...columns, columns[0]] }), 'an entry occurs twice under columns'],
    ['a change twice', ({ changes }) => ({ changes: [...changes, changes[0]] }), 'an entry occurs twice under changes'],
    ['a revision beyond 2^31', ({ study }) => ({ study: { ...study, revision: 2 ** 31 } }), ''],
    ['a lost subject', ({ study }) => ({ study: { ...study, subject: 'elsewhere-id' } }), 'The subject is a column'],
    [
      'a formula over what is not there',
      ({ columns }) => ({
        columns: columns.map((c) => (c.derivation ? { ...c, derivation: { kind: 'rank', source: 'elsewhere' } } : c)),
      }),
      'would depend on one that does not exist',
    ],
    [
      'columns that follow in a circle',
      ({ columns }) => ({
        columns: columns.map((c) => (c.derivation ? { ...c, derivation: { kind: 'rank', source: c.id } } : c)),
      }),
      'depend on itself',
    ],
    [
      'more cells than rows',
      ({ columns }) => ({ columns: first(columns, (c) => ({ ...c, cells: [...c.cells, 'x', 'y'] })) }),
      'more cells than the table has rows',
    ],
    ['a verdict that is none', () => ({ verdicts: [] }), 'has no valid verdict'],
    ['evidence that is not there', () => ({ evidence: [] }), 'refers to evidence that the file does not contain'],
    [
      'a record of what is no change',
      ({ changes }) => ({ changes: first(changes, (c) => ({ ...c, detail: { kind: 'conjure' } })) }),
      'an invalid entry',
    ],
    [
      'an analysis that is not there',
      ({ evidence }) => ({ evidence: first(evidence, (e) => ({ ...e, analysis: 'guess' })) }),
      'There is no analysis',
    ],
    [
      'a result of another form',
      ({ evidence }) => ({ evidence: first(evidence, (e) => ({ ...e, result: null })) }),
      'does not have the form',
    ],
  ])('of %s is refused and stores nothing', async (_, damage, message) => {
    const file = await server.get<StudyFile>(`/studies/${await fullStudy()}/saved`);
    const before = (await server.get<unknown[]>('/studies')).length;
    const answer = await server.post('/studies/saved?who=tester', { ...file, ...damage(file) });
    expect(answer.status).toBe(422);
    expect(answer.body.detail).toContain(message);
    expect((await server.get<unknown[]>('/studies')).length).toBe(before);
  });

  const send = (body: BodyInit, headers: Record<string, string> = {}) =>
    fetch(`${server.url}api/studies/saved?who=tester`, {
      ...{ method: 'POST', body, headers: { 'Content-Type': 'application/json', ...headers } },
    });
  const wordsOf = async (answer: Response) => [answer.status, ((await answer.json()) as { detail: string }).detail];

  it('that was cut off, or goes on behind its end, is refused in words', async () => {
    const text = JSON.stringify(await server.get<StudyFile>(`/studies/${await fullStudy()}/saved`));
    for (const damaged of [text.slice(0, -20), `${text}{}`, '', 'verdict'])
      expect(await wordsOf(await send(damaged))).toEqual([400, expect.stringContaining('damaged or incomplete')]);
    const packed = await send(text, { 'Content-Encoding': 'gzip' });
    expect(await wordsOf(packed)).toEqual([415, expect.stringContaining('must not be compressed')]);
  });

  it('may be larger than any other body', async () => {
    // Read to its end, and only there found to be cut off.
    const answer = await send(' '.repeat(BODY_LIMIT + 1));
    expect(await wordsOf(answer)).toEqual([400, expect.stringContaining('damaged or incomplete')]);
  });

  it('of columns of several blocks has every cell in its place, empty ones too', async () => {
    const id = await server.newStudy();
    const cells = Array.from({ length: 2_300 }, (_, i) => (i % 3 === 0 || i > 2_100 ? '' : `${i} µ"`));
    await server.change(id, { kind: 'add-columns', columns: [{ ...column('long', cells) }] });
    await server.change(id, { kind: 'remove-rows', rows: [2, 1_500] });
    const file = await server.get<StudyFile>(`/studies/${id}/saved`);
    const { body } = await server.post<{ id: string; notVerified: string | null }>('/studies/saved?who=tester', file);
    expect(body.notVerified).toBeNull();
    const [own, copy] = await Promise.all([server.cellsOf(id), server.cellsOf(body.id)]);
    expect(Object.values(copy)).toEqual(Object.values(own));
    expect(Object.values(copy)[0]!.length).toBe(2_298);
  });
});
