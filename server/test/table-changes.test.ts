import type { ChangeInput, RecordEntry } from '@verdict/contract';
import { createConnection } from 'mysql2/promise';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { column, sharedServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const cellsOf = (id: string) => server.cellsOf(id);
const step: TestServer['step'] = (...what) => server.step(...what);
const numbers = (n: number) => Array.from({ length: n }, (_, i) => String(i + 1));

/** A study of these columns, and their ids. */
async function studyOf(...columns: ReturnType<typeof column>[]): Promise<string> {
  const id = await server.newStudy();
  expect((await server.change(id, { kind: 'add-columns', columns })).status).toBe(200);
  return id;
}
/** Everything that undo has to bring back. */
const state = async (id: string) => {
  const { revision: _r, canUndo: _u, canRedo: _d, entries: _e, head: _h, setAside, ...study } = await server.study(id);
  return { study, aside: setAside.map(({ column: c, row, reason }) => [c, row, reason]), cells: await cellsOf(id) };
};

describe('rows', () => {
  it('go in and out across blocks, with their set-aside readings, and every other row keeps its cells', async () => {
    const [a, b] = [column('a', numbers(2500)), column('b', numbers(1200))];
    const id = await studyOf(a, b);
    const readings = [999, 1000, 1001, 2400].map((row) => ({ column: a.id, row, reason: `r${row}` }));
    await server.change(id, { kind: 'set-aside', readings });
    const before = await state(id);
    await server.change(id, { kind: 'remove-rows', rows: [2, 1000, 1001] });
    const after = await state(id);
    const kept = numbers(2500).filter((_, i) => ![1, 999, 1000].includes(i));
    expect(after.cells[a.id]).toEqual(kept);
    expect(after.aside.map(([, row]) => row)).toEqual([998, 2397]);
    expect(after.study.rowCount).toBe(2497);
    expect((await step(id, 'undo')).status).toBe(200);
    expect(await state(id)).toEqual(before);
    await step(id, 'redo');
    expect(await state(id)).toEqual(after);
    await server.change(id, { kind: 'insert-rows', rows: [1, 1000] });
    const inserted = (await cellsOf(id))[a.id]!;
    expect([inserted[0], inserted[1], inserted[999], inserted.length]).toEqual(['', '1', '', 2499]);
    expect((await server.study(id)).setAside.map(({ row }) => row)).toEqual([999, 2399]);
  });

  it('that are removed while a column is out of the table are out of that column too when it comes back', async () => {
    const [a, b] = [column('a', numbers(5)), column('b', numbers(5))];
    const id = await studyOf(a, b);
    await server.change(id, { kind: 'remove-columns', columns: [b.id] });
    await server.change(id, { kind: 'remove-rows', rows: [2] });
    expect((await step(id, 'take-back', 2)).status).toBe(200);
    const cells = await cellsOf(id);
    expect(cells[b.id]).toEqual(['1', '3', '4', '5']);
    expect(cells[b.id]).toEqual(cells[a.id]);
  });

  it.each([
    [{ kind: 'remove-rows', rows: [9] }, 'There is no row 9.'],
    [{ kind: 'remove-rows', rows: [2, 2] }, 'ascending order'],
    [{ kind: 'insert-rows', rows: [7] }, 'There is no row 7.'],
  ] as const)('%o is refused', async (change, message) => {
    const id = await studyOf(column('a', numbers(3)));
    const answer = await server.change(id, change as unknown as ChangeInput);
    expect(answer).toMatchObject({ status: 422, body: { field: 'rows', detail: expect.stringContaining(message) } });
  });
});

describe('derived columns', () => {
  const score = (source: string, name = 'score') =>
    column(name, [], { derivation: { kind: 'standard-score', source, divisor: 'sample' } });

  it('hold no cells of their own, follow their source into an analysis, and freeze to plain values', async () => {
    const a = column('a', ['1', '2', '3', '10']);
    const id = await studyOf(a);
    const z = score(a.id);
    expect((await server.change(id, { kind: 'add-columns', columns: [z] })).status).toBe(200);
    expect(Object.keys(await cellsOf(id))).toEqual([a.id]);
    const refused = await server.change(id, { kind: 'edit-cells', runs: [{ column: z.id, row: 1, texts: ['5'] }] });
    expect(refused.body.detail).toContain('Freeze it to plain values first');
    const before = await state(id);
    await server.change(id, { kind: 'freeze-column', column: z.id });
    const frozen = (await cellsOf(id))[z.id]!;
    const sd = Math.sqrt((9 + 4 + 1 + 36) / 3);
    expect(frozen.map(Number)).toEqual([-3, -2, -1, 6].map((d) => expect.closeTo(d / sd, 12)));
    expect((await server.study(id)).columns[1]!.derivation).toBeNull();
    await step(id, 'undo');
    expect(await state(id)).toEqual(before);
  });

  it('take their names from their source in one change, which is taken back as one', async () => {
    const [a, b] = [column('a', ['1', '2']), column('b', ['3', '4'])];
    const id = await studyOf(a, b);
    const z = score(a.id, 'score of a');
    await server.change(id, { kind: 'add-columns', columns: [z] });
    const before = await state(id);
    const renames = [{ column: z.id, name: 'score of mass' }];
    expect((await server.change(id, { kind: 'change-column', column: a.id, name: 'mass', renames })).status).toBe(200);
    const names = async () => (await server.study(id)).columns.map(({ name }) => name);
    expect(await names()).toEqual(['mass', 'b', 'score of mass']);
    await step(id, 'undo');
    expect(await state(id)).toEqual(before);
    const wrongs: [Partial<Extract<ChangeInput, { kind: 'change-column' }>>, string][] = [
      [{ name: 'mass', renames: [{ column: z.id, name: 'MASS' }] }, 'There is already a column “MASS”.'],
      [{ renames: [{ column: z.id, name: 'B' }] }, 'There is already a column “b”.'],
      [{ name: 'mass', renames: [{ column: a.id, name: 'x' }] }, 'A column is listed twice.'],
      [{ renames: [{ column: randomUUID(), name: 'x' }] }, 'does not have'],
    ];
    for (const [wrong, detail] of wrongs) {
      const answer = await server.change(id, { kind: 'change-column', column: a.id, ...wrong });
      expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining(detail)]);
    }
    expect(await state(id)).toEqual(before);
  });

  it('take limits and target from their source in one change, which is taken back as one', async () => {
    const limits = { lowerLimit: 2, target: 4, upperLimit: 8 };
    const [a, b] = [column('a', ['3', '4'], limits), column('b', ['3', '4'])];
    const id = await studyOf(a, b);
    const half = column('half', [], {
      derivation: { kind: 'transformed', source: a.id, by: 'logarithm', lambda: null },
      ...{ lowerLimit: Math.log(2), target: Math.log(4), upperLimit: Math.log(8) },
    });
    await server.change(id, { kind: 'add-columns', columns: [half] });
    const before = await state(id);
    const follow = { column: half.id, lowerLimit: 0, target: null, upperLimit: Math.log(8) };
    const ask = (bounds: object[]) =>
      server.change(id, { kind: 'change-column', column: a.id, lowerLimit: 1, bounds } as ChangeInput);
    expect((await ask([follow])).status).toBe(200);
    const kept = (await server.study(id)).columns.find((one) => one.id === half.id)!;
    expect(kept).toMatchObject({ lowerLimit: 0, target: null, upperLimit: Math.log(8) });
    await step(id, 'undo');
    expect(await state(id)).toEqual(before);
    const wrongs: [object[], string][] = [
      [[{ ...follow, lowerLimit: 9 }], 'must be below'],
      [[{ ...follow, column: a.id }], 'A column is listed twice.'],
      [[follow, follow], 'A column is listed twice.'],
      [[{ ...follow, column: randomUUID() }], 'does not have'],
    ];
    for (const [bounds, detail] of wrongs) {
      const answer = await ask(bounds);
      expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining(detail)]);
    }
    expect(await state(id)).toEqual(before);
  });

  it('freeze with the digits of their step', async () => {
    const a = column('a', ['15.0', '15.5']);
    const id = await studyOf(a);
    const twice = column('twice', [], { derivation: { kind: 'formula', expression: `[${a.id}] * 2` } });
    await server.change(id, { kind: 'add-columns', columns: [twice] });
    await server.change(id, { kind: 'freeze-column', column: twice.id });
    expect((await cellsOf(id))[twice.id]).toEqual(['30.0', '31.0']);
  });

  it('hold their source in the table, and no column follows itself', async () => {
    const a = column('a', ['1', '2']);
    const id = await studyOf(a);
    const z = score(a.id);
    await server.change(id, { kind: 'add-columns', columns: [z] });
    const removed = await server.change(id, { kind: 'remove-columns', columns: [a.id] });
    expect(removed.body.detail).toBe('score depends on a. Freeze or remove score first.');
    const circle = { kind: 'rank', source: z.id } as const;
    const round = await server.change(id, { kind: 'change-column', column: z.id, derivation: circle });
    expect(round.body.detail).toContain('depend on itself');
    const lost = await server.change(id, { kind: 'add-columns', columns: [score(randomUUID(), 'lost')] });
    expect(lost.body.detail).toContain('does not exist');
    const written = await server.change(id, { kind: 'change-column', column: a.id, derivation: circle });
    expect(written.body.detail).toContain('holds typed cells');
    expect((await server.change(id, { kind: 'remove-columns', columns: [a.id, z.id] })).status).toBe(200);
  });

  it('made up are as long as asked for', async () => {
    const id = await server.newStudy();
    const derivation = {
      kind: 'made-up',
      family: 'normal',
      parameters: { mean: 8, sd: 1 },
      count: 120,
      step: 0.1,
      seed: 5,
    };
    await server.change(id, { kind: 'add-columns', columns: [column('drawn', [], { derivation })] });
    expect((await server.study(id)).rowCount).toBe(120);
    expect((await server.get<RecordEntry[]>(`/studies/${id}/changes`))[0]!.text).toContain(
      'drawn (simulated: normal, mean 8, standard deviation 1, rounded to 0.1, seed 5)',
    );
  });
});

describe('what is said about a column', () => {
  it('keeps lower limit, target and upper limit in order, and names the field', async () => {
    const a = column('a', ['1']);
    const id = await studyOf(a);
    const say = (facts: object) => server.change(id, { kind: 'change-column', column: a.id, ...facts });
    expect((await say({ lowerLimit: 7.5, target: 8, upperLimit: 8.5 })).status).toBe(200);
    expect((await say({ target: 9 })).body).toMatchObject({
      field: 'target',
      detail: 'The target (9) must be below the upper limit (8.5).',
    });
    expect((await say({ lowerLimit: 8 })).body).toMatchObject({ field: 'lowerLimit' });
    expect((await say({ claimedSd: 0 })).body).toMatchObject({ status: 422, field: 'change.claimedSd' });
    expect((await say({ frequencies: a.id })).body).toMatchObject({ field: 'frequencies' });
  });

  it('is undone: order of columns, levels, claims, frequencies', async () => {
    const [a, n] = [column('a', ['1', '2']), column('n', ['3', '4'], { kind: 'count' })];
    const id = await studyOf(a, n);
    const changes: ChangeInput[] = [
      { kind: 'order-columns', columns: [n.id, a.id] },
      { kind: 'change-column', column: a.id, frequencies: n.id, claimedMean: 1.5, claimedSd: 0.2 },
      { kind: 'change-column', column: a.id, levels: { order: ['2'], merged: [{ from: '1', into: '2' }] } },
    ];
    const states = [await state(id)];
    for (const change of changes) {
      expect((await server.change(id, change)).status).toBe(200);
      states.push(await state(id));
    }
    expect(states[1]!.study.columns.map(({ name }) => name)).toEqual(['n', 'a']);
    for (let i = changes.length; i > 0; i--) {
      await step(id, 'undo');
      expect(await state(id)).toEqual(states[i - 1]);
    }
  });
});

describe('taking back a change that is not the latest', () => {
  const edit = (id: string, columnId: string, row: number, text: string) =>
    server.change(id, { kind: 'edit-cells', runs: [{ column: columnId, row, texts: [text] }] });

  it('works where nothing later touches it, and says which change does where one does', async () => {
    const [a, b] = [column('a', numbers(4)), column('b', numbers(4))];
    const id = await studyOf(a, b);
    await edit(id, a.id, 1, 'first'); // 2
    await edit(id, b.id, 1, 'other column'); // 3
    await edit(id, a.id, 2, 'other row'); // 4
    await edit(id, a.id, 1, 'second'); // 5
    const built = await step(id, 'take-back', 2);
    expect(built.body).toMatchObject({ status: 409, code: 'built-on' });
    expect(built.body.detail).toContain('change 5 (Row 1 of a: “first” became “second”)');
    expect((await step(id, 'take-back', 4)).status).toBe(200); // 6
    expect((await cellsOf(id))[a.id]).toEqual(['second', '2', '3', '4']);
    expect((await step(id, 'take-back', 4)).body.detail).toContain('already undone, by change 6');
    expect((await step(id, 'take-back', 5)).status).toBe(200); // 7
    expect((await step(id, 'take-back', 2)).status).toBe(200); // 8
    expect((await cellsOf(id))[a.id]).toEqual(numbers(4));
    expect((await cellsOf(id))[b.id]![0]).toBe('other column');
    const record = await server.get<RecordEntry[]>(`/studies/${id}/changes`);
    expect(record.find(({ revision }) => revision === 4)).toMatchObject({
      undoneBy: 6,
      place: { column: a.id, row: 2 },
    });
    expect(record.find(({ revision }) => revision === 3)).toMatchObject({ undoneBy: null });
  });

  it('never takes rows that a later change needs', async () => {
    const a = column('a', numbers(2));
    const id = await studyOf(a);
    await edit(id, a.id, 5, 'grown'); // 2
    const b = column('b', numbers(5));
    await server.change(id, { kind: 'add-columns', columns: [b] }); // 3
    await edit(id, b.id, 5, 'x'); // 4
    expect((await step(id, 'take-back', 2)).body.code).toBe('built-on');
    expect((await cellsOf(id))[b.id]).toEqual(['1', '2', '3', '4', 'x']);
  });

  it('does not take back beneath a change that cannot be read: it may have touched the same place', async () => {
    const a = column('a', numbers(3));
    const id = await studyOf(a);
    await server.change(id, { kind: 'edit-cells', runs: [{ column: a.id, row: 1, texts: ['9'] }] }); // 2
    await server.change(id, { kind: 'change-study', question: 'why?' }); // 3
    server.altered(id);
    const connection = await createConnection(inject('migrationUrl'));
    const unread = ['{"kind":"of-tomorrow"}', id, 3];
    await connection.query('UPDATE changes SET detail = ? WHERE study_id = ? AND revision = ?', unread);
    await connection.end();
    const refused = await step(id, 'take-back', 2);
    expect(refused.body).toMatchObject({ code: 'built-on' });
    expect(refused.body.detail).toContain('cannot be read here');
    expect(await cellsOf(id)).toEqual({ [a.id]: ['9', '2', '3'] });
  });

  it('takes back the adding of a column that others do not follow, though rows have moved since', async () => {
    const [a, b] = [column('a', numbers(3)), column('b', numbers(3))];
    const id = await studyOf(a);
    await server.change(id, { kind: 'add-columns', columns: [b] }); // 2
    await server.change(id, { kind: 'insert-rows', rows: [1] }); // 3
    expect((await step(id, 'take-back', 2)).status).toBe(200);
    expect(await cellsOf(id)).toEqual({ [a.id]: ['', '1', '2', '3'] });
  });
});

describe('the windows on a study', () => {
  it('receive every change, with the change itself', async () => {
    const a = column('a', numbers(3));
    const id = await studyOf(a);
    const stop = new AbortController();
    const answer = await fetch(`${server.url}api/events?of=${id}`, { signal: stop.signal });
    const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
    let heard = '';
    const until = async (text: string) => {
      while (!heard.includes(text)) heard += (await reader.read()).value;
    };
    await until('"revision":1');
    await server.change(id, { kind: 'edit-cells', runs: [{ column: a.id, row: 1, texts: ['9'] }] });
    await until('"texts":["9"]');
    expect(heard).toContain('event: change');
    expect(heard).toContain('"who":"tester"');
    stop.abort();
  });

  it('that come too late get the changes in between', async () => {
    const a = column('a', numbers(3));
    const id = await studyOf(a);
    const edit: ChangeInput = { kind: 'edit-cells', runs: [{ column: a.id, row: 1, texts: ['9'] }] };
    await server.change(id, edit);
    const late = await server.change(id, edit, 1);
    expect(late.body).toMatchObject({ code: 'stale', between: [{ revision: 2, who: 'tester', change: edit }] });
  });
});
