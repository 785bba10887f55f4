import type { ChangeInput, Evidence, StudySummary } from '@verdict/contract';
import { randomUUID } from 'node:crypto';
import { connect } from 'node:net';
import { createConnection } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { keepOf } from './keeping.js';
import { column, sharedServer, startServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const numbers = (n: number) => Array.from({ length: n }, (_, i) => String(i + 1));
async function studyOf(...columns: ReturnType<typeof column>[]): Promise<string> {
  const id = await server.newStudy();
  expect((await server.change(id, { kind: 'add-columns', columns })).status).toBe(200);
  return id;
}
const listed = async (id: string) => (await server.get<StudySummary[]>('/studies')).find((study) => study.id === id)!;
const state = async (id: string) => {
  const { revision: _r, canUndo: _u, canRedo: _d, entries: _e, head: _h, ...study } = await server.study(id);
  return { study, cells: await server.cellsOf(id) };
};

describe('cells', () => {
  it('stay in their rows when one of them holds half a surrogate pair', async () => {
    const labels = Array.from({ length: 3_000 }, (_, i) => `r${i + 1}`);
    const a = column('label', labels, { kind: 'label' });
    const id = await studyOf(a);
    await server.change(id, { kind: 'edit-cells', runs: [{ column: a.id, row: 5, texts: ['\ud83d'] }] });
    const cells = (await server.cellsOf(id))[a.id]!;
    expect([cells.length, cells[4], cells[2000]]).toEqual([3_000, '\ufffd', 'r2001']);
  });

  it('are refused in words however large the request that is wrong, and whether or not it can be read', async () => {
    const a = column('a', numbers(3));
    const id = await studyOf(a);
    const { revision } = await server.study(id);
    // Bodies of a megabyte are read in a thread of their own.
    const run = { column: a.id, row: 0, texts: Array.from({ length: 200_000 }, () => '1') };
    const wrong = { kind: 'edit-cells', runs: [run] } as ChangeInput;
    const answer = await server.change(id, wrong);
    expect([answer.status, answer.body.code]).toEqual([422, 'invalid']);
    const broken = await fetch(`${server.url}api/studies/${id}/changes`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: `{"texts":["${'1'.repeat(600_000)}"`,
    });
    expect(broken.status).toBe(400);
    expect((await server.study(id)).revision).toBe(revision);
  });

  it('stay in their rows where such a text was stored before it was refused', async () => {
    const a = column('label', numbers(3_000), { kind: 'label' });
    const id = await studyOf(a);
    const connection = await createConnection(inject('databaseUrl'));
    server.altered(id);
    const old = JSON.stringify(numbers(1_000).with(4, '\ud83d'));
    await connection.query('UPDATE cell_blocks SET cells = ? WHERE column_id = ? AND block = 0', [old, a.id]);
    await connection.end();
    const cells = (await server.cellsOf(id))[a.id]!;
    expect([cells.length, cells[4], cells[2000]]).toEqual([3_000, '\ud83d', '2001']);
  });
});

describe('a frozen column', () => {
  const doubled = (source: string) =>
    column('doubled', [], { derivation: { kind: 'formula', expression: `[${source}] * 2` } });

  it('is frozen, thawed and frozen again around rows that come and go', async () => {
    const a = column('a', numbers(5));
    const f = doubled(a.id);
    const id = await studyOf(a, f);
    const ok = async (answer: Promise<{ status: number }>) => expect((await answer).status).toBe(200);
    await ok(server.change(id, { kind: 'freeze-column', column: f.id })); // 2
    await ok(server.change(id, { kind: 'remove-rows', rows: [2] })); // 3
    await ok(server.step(id, 'take-back', 2)); // 4
    await ok(server.step(id, 'take-back', 3)); // 5
    const before = await state(id);
    await ok(server.change(id, { kind: 'freeze-column', column: f.id }));
    expect((await server.cellsOf(id))[f.id]).toEqual(['2', '4', '6', '8', '10']);
    await ok(server.step(id, 'undo'));
    expect(await state(id)).toEqual(before);
  });

  it('that is thawed and frozen again has the values it had, not those that would follow now', async () => {
    const a = column('a', ['1', '2', '3', '10']);
    const score = column('score', [], { derivation: { kind: 'standard-score', source: a.id, divisor: 'sample' } });
    const id = await studyOf(a, score);
    await server.change(id, { kind: 'freeze-column', column: score.id }); // 2
    await server.change(id, { kind: 'edit-cells', runs: [{ column: a.id, row: 4, texts: ['4'] }] }); // 3
    const before = await state(id);
    expect((await server.step(id, 'take-back', 2)).status).toBe(200); // 4: follows again
    expect((await server.step(id, 'take-back', 4)).status).toBe(200);
    expect(await state(id)).toEqual(before);
  });

  it('cannot be thawed: a written column keeps its readings', async () => {
    const [a, b] = [column('a', numbers(3)), column('b', numbers(3))];
    const id = await studyOf(a, b);
    const before = await state(id);
    const thaw: ChangeInput = { kind: 'thaw-column', column: b.id, derivation: { kind: 'rank', source: a.id } };
    expect(await server.change(id, thaw)).toMatchObject({ status: 422, body: { field: 'kind' } });
    expect(await state(id)).toEqual(before);
  });
});

describe('taking back', () => {
  it('brings back who set a reading aside, when and why', async () => {
    const a = column('a', numbers(3));
    const id = await studyOf(a);
    const readings = [{ column: a.id, row: 2, reason: 'chipped' }];
    const first = { token: randomUUID(), revision: 1, who: 'the first', change: { kind: 'set-aside', readings } };
    await server.post(`/studies/${id}/changes`, first);
    const before = await state(id);
    await server.change(id, { kind: 'put-back', readings: [{ column: a.id, row: 2 }] });
    await server.step(id, 'undo');
    expect(await state(id)).toEqual(before);
    await server.change(id, { kind: 'remove-rows', rows: [1, 2] });
    await server.step(id, 'undo');
    expect(await state(id)).toEqual(before);
    expect(before.study.setAside[0]!.who).toBe('the first');
  });

  it('brings back the place of a column that was out while the others were put in order', async () => {
    const [a, b, c] = [column('a', ['1']), column('b', ['1']), column('c', ['1'])];
    const id = await studyOf(a, b, c);
    const before = await state(id);
    await server.change(id, { kind: 'remove-columns', columns: [b.id] });
    await server.change(id, { kind: 'order-columns', columns: [c.id, a.id] });
    await server.step(id, 'undo');
    await server.step(id, 'undo');
    expect(await state(id)).toEqual(before);
  });

  it('never shortens the table by rows that hold readings', async () => {
    const [a, b] = [column('a', numbers(4)), column('b', ['1'])];
    const id = await studyOf(a, b);
    const before = await state(id);
    for (const change of [
      { kind: 'edit-cells', runs: [], rowCount: 1 },
      { kind: 'remove-columns', columns: [b.id], rowCount: 1 },
    ] as const) {
      const answer = await server.change(id, change as unknown as ChangeInput);
      expect(answer).toMatchObject({ status: 422, body: { field: 'rowCount' } });
    }
    expect(await state(id)).toEqual(before);
  });

  it('moves 9 000 set-aside readings with their rows, scattered rows in between, and back', async () => {
    const a = column('a', numbers(30_000));
    const id = await studyOf(a);
    const readings = Array.from({ length: 9_000 }, (_, i) => ({ column: a.id, row: 3 * i + 2, reason: 'r' }));
    expect((await server.change(id, { kind: 'set-aside', readings })).status).toBe(200);
    const before = await state(id);
    const rows = Array.from({ length: 40 }, (_, i) => 1 + i * 500);
    expect((await server.change(id, { kind: 'insert-rows', rows })).status).toBe(200);
    const { setAside } = await server.study(id);
    const cells = (await server.cellsOf(id))[a.id]!;
    expect(setAside.map(({ row }) => cells[row - 1])).toEqual(readings.map(({ row }) => String(row)));
    await server.step(id, 'undo');
    expect(await state(id)).toEqual(before);
  });
});

describe('ids', () => {
  it('that differ in case only are two: the second change is done too', async () => {
    const id = await studyOf(column('a', ['1']));
    const token = 'abcdefgh-token';
    const change = (name: string) => ({ kind: 'change-study', name });
    const make = (own: string, revision: number, name: string) =>
      server.post(`/studies/${id}/changes`, { token: own, revision, who: 'x', change: change(name) });
    await make(token, 1, 'one');
    expect((await make(token.toUpperCase(), 2, 'two')).body).toMatchObject({ revision: 3 });
    expect((await server.study(id)).name).toBe('two');
  });

  it('of a column of another study are refused', async () => {
    const a = column('a', ['1']);
    await studyOf(a);
    const id = await server.newStudy();
    const answer = await server.change(id, { kind: 'add-columns', columns: [a] });
    expect(answer).toMatchObject({ status: 422, body: { field: 'columns' } });
  });
});

describe('a study in the bin, or not there', () => {
  it('takes no change, no evidence and no verdict until it is restored', async () => {
    const a = column('a', ['1']);
    const id = await studyOf(a);
    await fetch(`${server.url}api/studies/${id}?who=tester`, { method: 'DELETE' });
    expect((await server.change(id, { kind: 'change-study', name: 'x' }, 1)).body).toMatchObject({ code: 'binned' });
    expect((await server.step(id, 'undo')).body).toMatchObject({ code: 'binned' });
    const ruling = { revision: 1, who: 'x', decision: 'not-settled', reason: 'r', evidence: [] };
    expect((await server.post(`/studies/${id}/verdict`, ruling)).body).toMatchObject({ code: 'binned' });
    await server.post(`/studies/${id}/restore?who=tester`, {});
    expect((await server.change(id, { kind: 'change-study', name: 'x' })).status).toBe(200);
  });

  it('has no record, no evidence and no cells', async () => {
    const nowhere = `${server.url}api/studies/${randomUUID()}`;
    for (const path of ['', '/changes', '/evidence', '/cells', '/saved'])
      expect((await fetch(nowhere + path)).status, path).toBe(404);
    expect((await fetch(`${server.url}api/events?of=${randomUUID()}`)).status).toBe(404);
  });
});

describe('the list of studies', () => {
  it('counts after it has answered, and lists a study with a fault with its fault', async () => {
    const a = column('a', ['1', 'x', '3']);
    const id = await studyOf(a);
    expect(await listed(id)).toMatchObject({ n: null, counting: true, fault: null });
    await expect.poll(() => listed(id)).toMatchObject({ n: 2, counting: false });
    const connection = await createConnection(inject('databaseUrl'));
    server.altered(id);
    await connection.query('UPDATE studies SET subject = ? WHERE id = ?', [randomUUID(), id]);
    await connection.end();
    expect(await listed(id)).toMatchObject({
      counting: false,
      subject: null,
      fault: expect.stringContaining('a column that it does not have'),
    });
  });

  it('is whole for each of many who ask at once, and knows what each has just done', async () => {
    const names = Array.from({ length: 20 }, (_, i) => `asked at once ${i}`);
    await Promise.all(
      names.map(async (name) => {
        const { id } = (await server.post<{ id: string }>('/studies', { name })).body;
        expect((await listed(id)).name).toBe(name);
      }),
    );
  });
});

describe('an import', () => {
  const headOf = (columns: object[]) =>
    JSON.stringify({
      ...{ token: randomUUID(), revision: 0, who: 'x', columns, separator: 'comma', skip: 0, encoding: 'utf-8' },
    });
  const bare = () => {
    const { cells: _, ...rest } = column('a', []);
    return rest;
  };
  /** An import whose sender sends what it is told and then nothing; `answer` is what it hears until the end. */
  function sender(id: string, first: string, to = server) {
    const { port } = new URL(to.url);
    const socket = connect(Number(port), '127.0.0.1');
    let heard = '';
    socket.on('data', (text) => (heard += String(text)));
    const answer = new Promise<string>((resolve) => socket.on('close', () => resolve(heard)));
    const lines = [`POST /api/studies/${id}/imports HTTP/1.1`, `Host: 127.0.0.1:${port}`, 'Content-Type: text/plain'];
    socket.write([...lines, 'Connection: close', 'Transfer-Encoding: chunked', '', ''].join('\r\n'));
    const send = (text: string) => socket.write(`${text.length.toString(16)}\r\n${text}\r\n`);
    send(first);
    return { answer, send, end: () => socket.write('0\r\n\r\n') };
  }
  const staged = async (columnId: string): Promise<boolean> => {
    const connection = await createConnection(inject('databaseUrl'));
    const [rows] = await connection.query('SELECT id FROM staged_columns WHERE id = ?', [columnId]);
    await connection.end();
    return (rows as unknown[]).length > 0;
  };

  it('that sends nothing ends with 408, and does not block others', async () => {
    const hasty = await startServer(undefined, undefined, null, { idleMilliseconds: 3_000 });
    const ids = await Promise.all(Array.from({ length: 12 }, () => hasty.newStudy()));
    const columns = ids.map(bare);
    const answers = ids.map((id, i) => sender(id, `${headOf([columns[i]!])}\n1\n2\n`, hasty).answer);
    for (const column of columns) await expect.poll(() => staged(column.id)).toBe(true);
    for (const id of ids) {
      expect((await hasty.change(id, { kind: 'change-study', name: 'goes on' }, 0)).status).toBe(200);
    }
    for (const answer of await Promise.all(answers)) {
      expect(answer).toContain('408');
      expect(answer).toContain('No data arrived for 3 seconds');
    }
    expect(await hasty.study(ids[0]!)).toMatchObject({ columns: [], rowCount: 0, revision: 1 });
    await hasty.close();
  });

  it('of a row without an end is refused with the row, long before it is held as a whole', async () => {
    const id = await server.newStudy();
    const body = `${headOf([bare()])}\n1\n"2${' '.repeat(5_000_000)}`;
    const headers = { 'Content-Type': 'text/plain' };
    const answer = await fetch(`${server.url}api/studies/${id}/imports`, { method: 'POST', headers, body });
    expect(answer.status).toBe(422);
    expect((await answer.json()).detail).toContain('Row 2 of the file has more than 1\u202f000\u202f000 characters');
  });

  it('that a killed server left behind is thrown away by a start an hour later', async () => {
    const connection = await createConnection(inject('databaseUrl'));
    const [left, young] = [randomUUID(), randomUUID()];
    const ago = (hours: number) => new Date(Date.now() - hours * 3_600_000);
    for (const [columnId, at] of [
      [left, ago(2)],
      [young, ago(0.5)],
    ] as const) {
      await connection.query('INSERT INTO staged_columns (id, at) VALUES (?, ?)', [columnId, at]);
      await connection.query('INSERT INTO cell_blocks (column_id, block, cells) VALUES (?, 0, ?)', [columnId, '["1"]']);
    }
    await (await startServer()).close();
    const ids = [left, young];
    const [blocks] = await connection.query('SELECT column_id FROM cell_blocks WHERE column_id IN (?)', [ids]);
    expect(blocks).toEqual([{ column_id: young }]);
    expect([await staged(left), await staged(young)]).toEqual([false, true]);
    await connection.end();
  });

  it('takes its place after what was changed while it arrived', async () => {
    const [id, a] = [await server.newStudy(), bare()];
    const slow = sender(id, `${headOf([a])}\n8.01\n`);
    await expect.poll(() => staged(a.id)).toBe(true);
    expect((await server.change(id, { kind: 'change-study', name: 'meanwhile' }, 0)).status).toBe(200);
    slow.send('8.02\n');
    slow.end();
    expect(await slow.answer).toContain('"revision":2');
    expect(await staged(a.id)).toBe(false);
    expect(await server.cellsOf(id)).toEqual({ [a.id]: ['8.01', '8.02'] });
    expect((await server.study(id)).name).toBe('meanwhile');
  });
});

describe('HTTP errors that are foreseen', () => {
  const post = (body: string, type = 'application/json', more: Record<string, string> = {}) =>
    fetch(`${server.url}api/studies`, { method: 'POST', headers: { 'Content-Type': type, ...more }, body });

  it.each([
    ['an address that is none', () => fetch(`${server.url}api/studies/%`), 400],
    ['another charset', () => post('{}', 'application/json; charset=utf-16'), 415],
    ['an unknown charset', () => post('{}', 'application/json; charset=none'), 415],
    ['an unknown encoding', () => post('{}', 'application/json', { 'Content-Encoding': 'none' }), 415],
    ['JSON that nests without end', () => post('['.repeat(6_000_000)), 400],
  ])('%s', async (_, ask, status) => {
    const answer = await ask();
    expect(answer.status).toBe(status);
    expect((await answer.json()).detail).not.toContain('went wrong');
  });
});

describe('evidence', () => {
  const kept = async () => {
    const id = await studyOf(column('a', numbers(12)));
    const { columns } = await server.study(id);
    return { id, columnId: columns[0]!.id };
  };

  it('under the id of evidence of another study is refused', async () => {
    const [one, two] = [await kept(), await kept()];
    const keep = keepOf(one.columnId, numbers(12));
    expect((await server.post(`/studies/${one.id}/evidence`, keep)).status).toBe(201);
    const answer = await server.post(`/studies/${two.id}/evidence`, { ...keep, column: two.columnId });
    expect(answer).toMatchObject({ status: 422, body: { field: 'id' } });
  });

  it('is recomputed by the server once it is kept: the same, or reported as different', async () => {
    const { id, columnId } = await kept();
    const keep = keepOf(columnId, numbers(12));
    const honest = await server.post<Evidence>(`/studies/${id}/evidence`, keep);
    expect(honest.body.recomputed).toBeNull();
    await server.post(`/studies/${id}/evidence`, {
      ...keep,
      ...{ id: randomUUID(), result: { ...keep.result, mean: 9 } },
    });
    const outcomes = async () =>
      (await server.get<Evidence[]>(`/studies/${id}/evidence`)).map(({ recomputed }) => recomputed?.same);
    await expect.poll(outcomes).toEqual([true, false]);
  });

  it('whose request this version cannot read says what differs', async () => {
    const { id, columnId } = await kept();
    const keep = keepOf(columnId, numbers(12));
    await server.post(`/studies/${id}/evidence`, keep);
    server.altered(id);
    const connection = await createConnection(inject('migrationUrl'));
    const old = JSON.stringify({ column: 'a', confidence: 95 });
    await connection.query('UPDATE evidence SET request = ? WHERE id = ?', [old, keep.id]);
    await connection.end();
    const answer = await server.post<{ differences: object[] }>(`/evidence/${keep.id}/recompute`, {});
    expect(answer.status).toBe(200);
    expect(answer.body).toMatchObject({ same: false, sameData: true });
    expect(answer.body.differences[0]).toMatchObject({ path: 'request.confidence', kept: '95' });
  });
});
