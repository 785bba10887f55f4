import {
  auditFile,
  type Checked,
  type Evidence,
  type RecordEntry,
  type Study,
  type StudyFile,
} from '@verdict/contract';
import { createConnection } from 'mysql2/promise';
import { createHash, randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { beginChains } from '../src/store/begin-chains.js';
import { openDatabase } from '../src/store/database.js';
import { grantRights } from '../src/store/grants.js';
import { keepOf } from './keeping.js';
import { column, sharedServer, startServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const CELLS = ['7.80', '7.92', '7.94', '7.97', '8.19'];
const audit = (id: string) => server.get<Checked>(`/studies/${id}/audit`);
const faultsIn = async (file: StudyFile) => (await auditFile([Buffer.from(JSON.stringify(file))])).audit.faults;
const saved = (id: string) => server.get<StudyFile>(`/studies/${id}/saved`);
const open = (file: StudyFile) =>
  server.post<{ id: string; notVerified: string | null }>('/studies/saved?who=tester', file);

/** A study with readings, an edit, evidence that was noted on and put in order, and a verdict. */
async function ruled() {
  const id = await server.newStudy();
  const a = column('a', CELLS);
  await server.change(id, { kind: 'add-columns', columns: [a] });
  await server.change(id, { kind: 'edit-cells', runs: [{ column: a.id, row: 1, texts: ['7.81'] }] });
  const keep = keepOf(a.id, ['7.81', ...CELLS.slice(1)]);
  expect((await server.post(`/studies/${id}/evidence`, keep)).status).toBe(201);
  await server.post(`/evidence/${keep.id}`, { note: 'as received', leads: true, who: 'tester' });
  await server.post(`/studies/${id}/evidence/order`, { order: [keep.id], who: 'tester' });
  const { revision } = await server.study(id);
  const ruling = {
    revision,
    who: 'tester',
    decision: 'not-settled',
    reason: 'too few',
    evidence: [keep.id],
    leftOpen: 'few',
  };
  expect((await server.post(`/studies/${id}/verdict`, ruling)).status).toBe(200);
  return { id, column: a.id, evidence: keep.id!, revision };
}

/** Runs one statement with the account that owns the tables: whoever has that may alter what they like. */
async function asOwner(statement: string, values: unknown[], url = inject('migrationUrl')): Promise<void> {
  const connection = await createConnection(url);
  try {
    await connection.query(statement, values);
  } finally {
    await connection.end();
  }
}

describe('the record', () => {
  it('cannot be altered with the account of the server', async () => {
    const { id } = await ruled();
    for (const statement of [
      "UPDATE changes SET who = 'x' WHERE study_id = ?",
      'DELETE FROM changes WHERE study_id = ?',
      "UPDATE study_log SET who = 'x' WHERE study_id = ?",
      'DELETE FROM study_log WHERE study_id = ?',
      "UPDATE evidence SET result = '{}' WHERE study_id = ?",
      'DELETE FROM evidence WHERE study_id = ?',
      "UPDATE verdicts SET reason = 'x' WHERE study_id = ?",
      'DELETE FROM verdicts WHERE study_id = ?',
    ])
      await expect(asOwner(statement, [id], inject('databaseUrl')), statement).rejects.toMatchObject({
        code: expect.stringMatching(/ACCESS_DENIED/),
      });
  });

  it('is reported as alterable if one account both owns and works, or has wider rights', async () => {
    const [owner, worker] = [inject('migrationUrl'), inject('databaseUrl')];
    expect(await grantRights(owner, worker)).toBe(true);
    expect(await grantRights(owner, owner)).toBe(false);
    // Table by table is not too wide; a right to the whole database is.
    await asOwner('GRANT UPDATE ON verdict.* TO verdict@127.0.0.1', []);
    expect(await grantRights(owner, worker)).toBe(false);
    await asOwner('REVOKE UPDATE ON verdict.* FROM verdict@127.0.0.1', []);
    expect(await grantRights(owner, worker)).toBe(true);
  });

  it('agrees with the study, of which it says how many entries there are and where they end', async () => {
    const { id } = await ruled();
    const found = await audit(id);
    // Added, edited, kept, noted, ordered, ruled.
    expect(found).toMatchObject({ entries: 6, earlier: 0, faults: [], notVerified: null });
    const study = await server.study(id);
    expect([study.entries, study.head]).toEqual([6, found.head]);
  });

  it('agrees with evidence whose request names half a surrogate pair, which no database keeps', async () => {
    const id = await server.newStudy();
    const a = column('a', CELLS);
    await server.change(id, { kind: 'add-columns', columns: [a] });
    const keep = keepOf(a.id, CELLS);
    expect((await server.post(`/studies/${id}/evidence`, { ...keep, request: { column: 'a\ud83d' } })).status).toBe(
      201,
    );
    expect(await audit(id)).toMatchObject({ entries: 2, faults: [] });
    expect((await open(await saved(id))).body.notVerified).toBeNull();
  });

  const alterations: [string, (of: Awaited<ReturnType<typeof ruled>>) => [string, unknown[]], string][] = [
    ['a reason', ({ id }) => ["UPDATE changes SET reason = 'x' WHERE study_id = ? AND revision = 2", [id]], 'entry 2'],
    [
      'a moment',
      ({ id }) => ["UPDATE changes SET at = '2026-01-01' WHERE study_id = ? AND revision = 1", [id]],
      'entry 1',
    ],
    [
      'a change that is gone',
      ({ id }) => ['DELETE FROM changes WHERE study_id = ? AND revision = 2', [id]],
      'entry 2 is missing',
    ],
    [
      'a cell',
      ({ column: of }) => [
        'UPDATE cell_blocks SET cells = ? WHERE column_id = ?',
        [JSON.stringify(['7.81', '8.92', ...CELLS.slice(2)]), of],
      ],
      'cells of a are not as recorded',
    ],
    ['a limit', ({ column: of }) => ['UPDATE columns SET upper_limit = 9 WHERE id = ?', [of]], 'upperLimit'],
    ['a result', ({ evidence }) => ["UPDATE evidence SET result = '{}' WHERE id = ?", [evidence]], 'was altered'],
    ['a finding', ({ evidence }) => ["UPDATE evidence SET finding = '[]' WHERE id = ?", [evidence]], 'the finding of'],
    [
      'a note',
      ({ evidence }) => ["UPDATE evidence SET note = 'x' WHERE id = ?", [evidence]],
      'the notes, answers or order',
    ],
    ['evidence that is gone', ({ evidence }) => ['DELETE FROM evidence WHERE id = ?', [evidence]], 'is missing'],
    [
      'a decision',
      ({ id }) => ["UPDATE verdicts SET decision = 'treat-as-normal' WHERE study_id = ?", [id]],
      'the verdict of',
    ],
    [
      'a verdict that is gone',
      ({ id }) => ['DELETE FROM verdicts WHERE study_id = ?', [id]],
      'a verdict of the record is missing',
    ],
    [
      'a study opened again unseen',
      ({ id }) => ["UPDATE studies SET state = 'open' WHERE id = ?", [id]],
      'decided is not as recorded',
    ],
  ];
  it('keeps the words a result was kept with, and shows those of this version, unless its analysis has changed since', async () => {
    const { id, evidence } = await ruled();
    const shown = async () => {
      const [piece] = await server.get<Evidence[]>(`/studies/${id}/evidence`);
      return { method: piece!.method, finding: piece!.finding };
    };
    const now = await shown();
    const { method, finding } = (await saved(id)).evidence[0]!;
    const older = JSON.stringify([{ text: 'Words of an older version.' }]);
    await asOwner("UPDATE evidence SET finding = ?, method = 'An older method.' WHERE id = ?", [older, evidence]);
    expect(await shown()).toEqual(now);
    expect((await saved(id)).evidence[0]).toMatchObject({ method: 'An older method.', finding: JSON.parse(older) });
    await asOwner('UPDATE evidence SET version = version + 1 WHERE id = ?', [evidence]);
    expect(await shown()).toEqual({ method: 'An older method.', finding: JSON.parse(older) });
    await asOwner('UPDATE evidence SET version = version - 1, method = ?, finding = ? WHERE id = ?', [
      ...[method, JSON.stringify(finding), evidence],
    ]);
    expect((await audit(id)).notVerified).toBeNull();
  });

  it.each(alterations)('shows %s altered in the database, on the page and in the report', async (_, alter, fault) => {
    const one = await ruled();
    server.altered(one.id);
    const head = (await server.study(one.id)).head;
    await asOwner(...alter(one));
    const found = await audit(one.id);
    expect(found.notVerified).toContain(fault);
    expect((await server.study(one.id)).notVerified).toBe(found.notVerified);
    expect((await server.study(one.id)).head).toBe(head);
  });
});

describe('a study file', () => {
  it('opened is as sound as it was, goes on with its chain, and is sound when it is saved and opened again', async () => {
    const { id } = await ruled();
    const file = await saved(id);
    const first = await open(file);
    expect(first.body.notVerified).toBeNull();
    const own = first.body.id;
    await server.post(`/studies/${own}/reopen`, {
      revision: (await server.study(own)).revision,
      who: 'tester',
      reason: 'again',
    });
    const [of] = (await server.study(own)).columns;
    await server.change(own, { kind: 'edit-cells', runs: [{ column: of!.id, row: 2, texts: ['7.93'] }] });
    await server.change(own, { kind: 'set-aside', readings: [{ column: of!.id, row: 5, reason: 'slip' }] });
    await server.step(own, 'undo');
    const [piece] = await server.get<Evidence[]>(`/studies/${own}/evidence`);
    await server.post(`/evidence/${piece!.id}`, { note: 'seen', who: 'tester' });
    // The entry that says it was opened, reopened, edited, set aside, undone, noted.
    expect(await audit(own)).toMatchObject({ entries: 12, faults: [] });
    const again = await saved(own);
    expect(again.changes.slice(0, file.changes.length)).toEqual(file.changes);
    expect(await faultsIn(again)).toEqual([]);
    const second = await open(again);
    expect(second.body.notVerified).toBeNull();
    expect((await audit(second.body.id)).entries).toBe(13);
  });

  it.each<[string, (file: StudyFile) => void, string]>([
    ['an altered entry', (file) => (file.changes[1]!.who = 'somebody'), 'entry 2 (change 2) was altered.'],
    ['a gap', (file) => file.changes.splice(1, 1), 'entry 2 is missing.'],
    ['an altered cell', (file) => (file.columns[0]!.cells[3] = '9.97'), 'entry 1: cells of a are not as recorded.'],
    [
      'an added verdict',
      (file) => {
        file.verdicts.unshift({
          ...file.verdicts[0]!,
          id: randomUUID(),
          reopenAt: file.savedAt,
          reopenWho: 'x',
          reopenReason: 'x',
        });
      },
      'it was added.',
    ],
  ])('with %s is opened as not verified, and stays so', async (_, alter, fault) => {
    const file = await saved((await ruled()).id);
    alter(file);
    const { status, body } = await open(file);
    expect(status).toBe(201);
    expect(body.notVerified).toContain(fault);
    expect((await server.study(body.id)).notVerified).toBe(body.notVerified);
    expect((await audit(body.id)).notVerified).toContain(fault);
    const again = await open(await saved(body.id));
    expect(again.body.notVerified).toContain(fault);
  });

  it.each(['kept', 'said', 'ordered', 'worded', 'opened', 'began'] as const)(
    'whose log has an entry "%s" of another form is refused as damaged',
    async (kind) => {
      const file = await saved((await ruled()).id);
      const entry = {
        ...file.log[0]!,
        entry: 99,
        kind,
        detail: { evidence: 'none' },
      } as unknown as StudyFile['log'][number];
      file.log.push(entry);
      expect((await open(file)).status).toBe(422);
    },
  );

  it('of before there was a chain is opened as such, and its chain begins', async () => {
    const file = await saved((await ruled()).id);
    const old = {
      ...{ ...file, version: 1, log: [] },
      changes: file.changes.map(({ entry: _e, hash: _h, cells: _c, ...change }) => change),
    } as unknown as StudyFile;
    const { body } = await open(old);
    expect(body.notVerified).toBeNull();
    expect(await audit(body.id)).toMatchObject({ entries: 2, earlier: 3, faults: [] });
    server.altered(body.id);
    await asOwner("UPDATE changes SET who = 'x' WHERE study_id = ? AND revision = 1", [body.id]);
    expect((await audit(body.id)).notVerified).toContain('recorded before the chain began were altered');
  });
});

describe('a study from before there was a chain', () => {
  it('begins its chain at the start of the server, with everything as it stands', async () => {
    const { id, column: of, evidence } = await ruled();
    await asOwner('UPDATE changes SET entry = NULL, hash = NULL, cells = NULL WHERE study_id = ?', [id]);
    await asOwner('DELETE FROM study_log WHERE study_id = ?', [id]);
    await asOwner('UPDATE studies SET head = NULL, entries = 0 WHERE id = ?', [id]);
    const { db, close } = openDatabase(inject('databaseUrl'), 1);
    await beginChains(db).finally(close);
    expect(await audit(id)).toMatchObject({ entries: 1, earlier: 3, faults: [] });
    await server.post(`/studies/${id}/reopen`, { revision: 3, who: 'tester', reason: 'again' });
    await server.change(id, { kind: 'remove-rows', rows: [2] });
    await server.post(`/evidence/${evidence}`, { note: 'later', who: 'tester' });
    expect(await audit(id)).toMatchObject({ entries: 4, earlier: 3, faults: [] });
    // Taken back beyond the beginning of the chain.
    await server.step(id, 'undo');
    await server.step(id, 'take-back', 2);
    expect(await audit(id)).toMatchObject({ faults: [] });
    server.altered(id);
    await asOwner('UPDATE columns SET unit = ? WHERE id = ?', ['cm', of]);
    expect((await audit(id)).notVerified).toContain('names, kinds, limits or other settings');
  });
});

describe('the bin', () => {
  it('and the way back are entries of the record, with who and when; undo passes over them', async () => {
    const id = await server.newStudy();
    await server.change(id, { kind: 'change-study', name: 'first' });
    await server.change(id, { kind: 'change-study', name: 'second' });
    const remove = () => fetch(`${server.url}api/studies/${id}?who=shift%202`, { method: 'DELETE' });
    expect((await remove()).status).toBe(204);
    // Done already, it is no second entry.
    await remove();
    await server.post(`/studies/${id}/restore?who=shift%201`, {});
    const record = await server.get<RecordEntry[]>(`/studies/${id}/changes`);
    expect(record.map(({ kind, who }) => [kind, who])).toEqual([
      ['restore', 'shift 1'],
      ['bin', 'shift 2'],
      ['change-study', 'tester'],
      ['change-study', 'tester'],
    ]);
    expect((await server.step(id, 'undo')).status).toBe(200);
    expect((await server.study(id)).name).toBe('first');
    const unsaid = await fetch(`${server.url}api/studies/${id}`, { method: 'DELETE' });
    expect(unsaid.status).toBe(422);
  });
});

describe('a long record', () => {
  it('is read in pages and undone to its beginning, far beyond the first of them', async () => {
    const id = await server.newStudy();
    const N = 5_200;
    await server.change(id, { kind: 'change-study', name: 'the first' });
    // Entries as changes write them, without their time: none but the first can be undone any more.
    const rows = Array.from({ length: N }, (_, i) => [
      id,
      i + 2,
      randomUUID(),
      'bin',
      '{}',
      'null',
      't',
      'x',
      new Date(),
    ]);
    const statement = 'INSERT INTO changes (study_id, revision, token, kind, detail, inverse, text, who, at) VALUES ?';
    server.altered(id);
    for (let i = 0; i < N; i += 1_000) await asOwner(statement, [rows.slice(i, i + 1_000)]);
    await asOwner('UPDATE studies SET revision = ? WHERE id = ?', [N + 1, id]);
    const page = await server.get<RecordEntry[]>(`/studies/${id}/changes`);
    expect([page.length, page.at(-1)!.revision]).toEqual([5_000, N + 2 - 5_000]);
    const older = await server.get<RecordEntry[]>(`/studies/${id}/changes?before=${page.at(-1)!.revision}`);
    expect([older.length, older.at(-1)!.revision]).toEqual([N + 1 - 5_000, 1]);
    expect((await server.study(id)).canUndo).toContain('the first');
  });

  it('of 600 changes and their undoing is undone one change further', async () => {
    const id = await server.newStudy();
    await server.change(id, { kind: 'change-study', name: 'oldest' }, 0);
    let revision = 1;
    for (let i = 0; i < 300; i++) await server.change(id, { kind: 'change-study', name: `n${i}` }, revision++);
    const send = (step: 'undo') =>
      server.post(`/studies/${id}/steps`, { token: randomUUID(), revision: revision++, who: 'tester', step });
    for (let i = 0; i < 300; i++) await send('undo');
    expect((await server.study(id)).name).toBe('oldest');
    expect((await send('undo')).status).toBe(200);
    expect((await server.study(id)).name).toBe('');
  });
});

describe('the file of heads', () => {
  it('receives every head of a chain, and reveals a rewritten chain', async () => {
    const dir = mkdtempSync(join(tmpdir(), 'verdict-heads-'));
    const heads = join(dir, 'heads');
    const own = await startServer(undefined, undefined, null, { heads });
    try {
      const id = await own.newStudy();
      for (const name of ['one', 'two']) {
        await own.change(id, { kind: 'change-study', name });
        const last = () => readHeads(heads).at(-1)?.slice(1, 3);
        await expect.poll(last).toEqual([id, name === 'one' ? '1' : '2']);
      }
      const { head } = await own.study(id);
      expect(readHeads(heads).at(-1)!.slice(1)).toEqual([id, '2', head]);
      // The owner of the database writes another entry, with a hash that fits.
      const [, second] = (await own.get<StudyFile>(`/studies/${id}/saved`)).changes;
      const { hash: _, ...content } = { ...second!, who: 'somebody' };
      const sorted = (value: unknown): unknown =>
        value !== null && typeof value === 'object' && !Array.isArray(value)
          ? Object.fromEntries(
              Object.entries(value)
                .sort(([a], [b]) => (a < b ? -1 : 1))
                .map(([k, of]) => [k, sorted(of)]),
            )
          : value;
      const first = (await own.get<StudyFile>(`/studies/${id}/saved`)).changes[0]!.hash;
      const forged = createHash('sha256')
        .update(`${first}\n${JSON.stringify(sorted(content))}`)
        .digest('hex');
      await asOwner("UPDATE changes SET who = 'somebody', hash = ? WHERE study_id = ? AND revision = 2", [forged, id]);
      own.altered(id);
      const found = await own.get<Checked>(`/studies/${id}/audit`);
      expect(await faultsIn(await own.get<StudyFile>(`/studies/${id}/saved`))).toEqual([]);
      expect(found.notVerified).toBe('entry 2 does not match the file of heads.');
      expect((await own.get<Study>(`/studies/${id}`)).notVerified).toBe(found.notVerified);
    } finally {
      await own.close();
      rmSync(dir, { recursive: true, force: true });
    }
  });
});
const readHeads = (path: string) => {
  try {
    return readFileSync(path, 'utf8')
      .trim()
      .split('\n')
      .map((line) => line.split(' '));
  } catch {
    return [];
  }
};

describe('what is read of a study', () => {
  it('has the end of its chain', async () => {
    const id = await server.newStudy();
    expect(await server.get<Study>(`/studies/${id}`)).toMatchObject({ entries: 0, head: null, notVerified: null });
  });
});
