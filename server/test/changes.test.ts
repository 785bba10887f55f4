import type { Change, ChangeInput, RecordEntry } from '@verdict/contract';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { undoAndRedo } from '../src/store/history.js';
import { column, sharedServer, type TestServer } from './running.js';

let server: TestServer;
beforeAll(async () => {
  server = await sharedServer();
});
afterAll(() => server.close());

const cellsOf = (id: string) => server.cellsOf(id);
const step: TestServer['step'] = (...what) => server.step(...what);

describe('changes', () => {
  it('keep cells as written, across blocks, and every edit in the record', async () => {
    const id = await server.newStudy();
    const written = Array.from({ length: 2500 }, (_, i) =>
      i === 1 ? ' 12.30 ' : i === 1200 ? '“n/a”, ümlaut\n二' : String(i),
    );
    const added = column('thickness', written);
    expect((await server.change(id, { kind: 'add-columns', columns: [added] })).status).toBe(200);
    await server.change(id, { kind: 'edit-cells', runs: [{ column: added.id, row: 1001, texts: ['9.870'] }] });
    const cells = (await cellsOf(id))[added.id]!;
    written[1000] = '9.870';
    expect(cells).toEqual(written);
    const record = await server.get<RecordEntry[]>(`/studies/${id}/changes`);
    expect(record.map(({ revision, kind, who }) => [revision, kind, who])).toEqual([
      [2, 'edit-cells', 'tester'],
      [1, 'add-columns', 'tester'],
    ]);
    expect(record[0]!.text).toBe('Row 1001 of thickness: “1000” became “9.870”');
  });

  it('grow the table by writing below it, and undo shortens it again', async () => {
    const id = await server.newStudy();
    const a = column('a', ['1', '2']);
    await server.change(id, { kind: 'add-columns', columns: [a] });
    await server.change(id, { kind: 'edit-cells', runs: [{ column: a.id, row: 4, texts: ['7'] }] });
    expect((await cellsOf(id))[a.id]).toEqual(['1', '2', '', '7']);
    await step(id, 'undo');
    expect((await cellsOf(id))[a.id]).toEqual(['1', '2']);
    await step(id, 'redo');
    expect((await cellsOf(id))[a.id]).toEqual(['1', '2', '', '7']);
  });

  it('are each undone to the very state before, and redone to the state after', async () => {
    const id = await server.newStudy();
    const a = column('a', ['8.01', '8.02', 'x'], { lowerLimit: 7.5, upperLimit: 8.5 });
    const kinds: ChangeInput[] = [
      { kind: 'add-columns', columns: [a] },
      {
        kind: 'change-column',
        column: a.id,
        name: 'b',
        unit: 'µm',
        columnKind: 'count',
        resolution: 0.5,
        upperLimit: 9,
      },
      { kind: 'set-aside', readings: [{ column: a.id, row: 2, reason: 'chipped edge' }] },
      { kind: 'put-back', readings: [{ column: a.id, row: 2 }] },
      { kind: 'leave-in', readings: [{ column: a.id, row: 1, reason: 'no cause found' }] },
      { kind: 'remove-rows', rows: [1] },
      { kind: 'insert-rows', rows: [1] },
      { kind: 'leave-in', readings: [{ column: a.id, row: 2, reason: 'checked' }] },
      { kind: 'look-again', readings: [{ column: a.id, row: 2 }] },
      { kind: 'change-study', name: 'week 46', question: 'Normal?', alpha: 0.01, quantileType: 'hinges' },
      { kind: 'edit-cells', runs: [{ column: a.id, row: 3, texts: ['8.03'] }] },
      { kind: 'remove-columns', columns: [a.id] },
    ];
    // Moments and the text of the next undo differ by nature; everything else must come back.
    const state = async () => {
      const {
        revision: _r,
        canUndo: _u,
        canRedo: _d,
        entries: _e,
        head: _h,
        setAside,
        leftIn,
        ...study
      } = await server.study(id);
      const [aside, left] = [setAside, leftIn].map((marked) =>
        marked.map(({ column: c, row, reason }) => [c, row, reason]),
      );
      return { study, aside, left, cells: await cellsOf(id) };
    };
    const states = [await state()];
    for (const change of kinds) {
      expect((await server.change(id, change)).status).toBe(200);
      states.push(await state());
    }
    for (let i = kinds.length; i > 0; i--) {
      expect((await step(id, 'undo')).status).toBe(200);
      expect(await state(), kinds[i - 1]!.kind).toEqual(states[i - 1]);
    }
    expect((await step(id, 'undo')).body.code).toBe('nothing-to-undo');
    for (let i = 1; i <= kinds.length; i++) {
      await step(id, 'redo');
      expect(await state(), kinds[i - 1]!.kind).toEqual(states[i]);
    }
  });

  it('against a stale revision are refused with 409 and what came in between, and change nothing', async () => {
    const id = await server.newStudy();
    await server.change(id, { kind: 'change-study', name: 'first' });
    const late = await server.change(id, { kind: 'change-study', name: 'late' }, 0);
    expect(late.status).toBe(409);
    expect(late.body).toMatchObject({ code: 'stale', revision: 1, changes: ['Study: name: “” → “first” (tester)'] });
    expect((await server.study(id)).name).toBe('first');
  });

  it('sent again under the same token are done once', async () => {
    const id = await server.newStudy();
    const body = { token: randomUUID(), revision: 0, who: 'tester', change: { kind: 'change-study', name: 'once' } };
    const first = await server.post(`/studies/${id}/changes`, body);
    const again = await server.post(`/studies/${id}/changes`, body);
    expect(again).toEqual(first);
    expect((await server.study(id)).revision).toBe(1);
  });

  it('sent twice at the same moment under one token are made once, and both are answered so', async () => {
    const id = await server.newStudy();
    const body = { token: randomUUID(), revision: 0, who: 'tester', change: { kind: 'change-study', name: 'once' } };
    const both = await Promise.all([0, 1].map(() => server.post(`/studies/${id}/changes`, body)));
    expect(both.map(({ status }) => status)).toEqual([200, 200]);
    expect((await server.study(id)).revision).toBe(1);
  });

  it('keep every cell of a long column through undo and redo of what came before it', async () => {
    const id = await server.newStudy();
    const short = column('short', ['1', '2']);
    const long = column(
      'long',
      Array.from({ length: 2400 }, (_, i) => String(i)),
    );
    await server.change(id, { kind: 'add-columns', columns: [short] });
    await server.change(id, { kind: 'edit-cells', runs: [{ column: short.id, row: 3, texts: ['3'] }] });
    await server.change(id, { kind: 'add-columns', columns: [long] });
    // The second undo shortens the table to two rows while the long column is out of it.
    for (const which of ['undo', 'undo', 'redo', 'redo'] as const) expect((await step(id, which)).status).toBe(200);
    const cells = await cellsOf(id);
    expect(cells[long.id]).toEqual(long.cells);
    expect(cells[short.id]!.slice(0, 4)).toEqual(['1', '2', '3', '']);
  });

  it('do not set aside twice, which would lose the first reason', async () => {
    const id = await server.newStudy();
    const a = column('a', ['1', '2']);
    await server.change(id, { kind: 'add-columns', columns: [a] });
    const aside = (reason: string): Change => ({ kind: 'set-aside', readings: [{ column: a.id, row: 1, reason }] });
    await server.change(id, aside('first'));
    const again = await server.change(id, aside('second'));
    expect(again.body).toMatchObject({ status: 422, detail: 'Row 1 is already set aside.' });
    expect((await server.study(id)).setAside).toMatchObject([{ reason: 'first' }]);
  });

  it('from two windows at once: one wins, the other is refused, none is lost silently', async () => {
    const id = await server.newStudy();
    const both = await Promise.all(['a', 'b'].map((name) => server.change(id, { kind: 'change-study', name }, 0)));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect((await server.study(id)).revision).toBe(1);
  });

  it.each([
    [
      'a cell beyond 1 000 characters',
      { kind: 'edit-cells', runs: [{ column: randomUUID(), row: 1, texts: ['x'.repeat(1001)] }] },
      422,
    ],
    [
      'a column the study does not have',
      { kind: 'edit-cells', runs: [{ column: randomUUID(), row: 1, texts: ['1'] }] },
      422,
    ],
    ['a level of 5', { kind: 'change-study', alpha: 5 }, 422],
    ['a tenth definition of quartiles', { kind: 'change-study', quantileType: 10 }, 422],
    ['an unknown kind', { kind: 'drop-table' }, 422],
    [
      'setting aside without a reason',
      { kind: 'set-aside', readings: [{ column: randomUUID(), row: 1, reason: ' ' }] },
      422,
    ],
  ])('with %s are refused and name the field', async (_, change, status) => {
    const id = await server.newStudy();
    const answer = await server.change(id, change as Change);
    expect(answer.status).toBe(status);
    expect(answer.body.field).toBeTruthy();
    expect((await server.study(id)).revision).toBe(0);
  });

  it('keep limits in order and names apart', async () => {
    const id = await server.newStudy();
    const [a, b] = [column('a', ['1']), column('b', ['1'])];
    await server.change(id, { kind: 'add-columns', columns: [a, b] });
    await server.change(id, { kind: 'change-column', column: a.id, upperLimit: 8.5 });
    const crossed = await server.change(id, { kind: 'change-column', column: a.id, lowerLimit: 9 });
    expect(crossed.body).toMatchObject({ status: 422, field: 'lowerLimit' });
    const same = await server.change(id, { kind: 'change-column', column: b.id, name: 'A' });
    expect(same.body).toMatchObject({ status: 422, field: 'name', detail: 'There is already a column “a”.' });
  });

  it('take 100 000 readings in one', async () => {
    const id = await server.newStudy();
    const long = column(
      'long',
      Array.from({ length: 100_000 }, (_, i) => (7.5 + (i % 97) / 97).toFixed(2)),
    );
    expect((await server.change(id, { kind: 'add-columns', columns: [long] })).status).toBe(200);
    expect((await cellsOf(id))[long.id]).toEqual(long.cells);
  });
});

describe('what undo and redo would take', () => {
  const entry = (revision: number, undoes: number | null = null, inverse: unknown = {}) => ({
    revision,
    undoes,
    text: '',
    inverse,
  });
  const revisions = (...entries: ReturnType<typeof entry>[]) => {
    const { undo, redo } = undoAndRedo(entries.reverse());
    return [undo?.revision ?? null, redo?.revision ?? null];
  };

  it('walks back through undos and forward through redos', () => {
    expect(revisions(entry(1), entry(2))).toEqual([2, null]);
    expect(revisions(entry(1), entry(2), entry(3, 2))).toEqual([1, 3]);
    expect(revisions(entry(1), entry(2), entry(3, 2), entry(4, 1))).toEqual([null, 4]);
    expect(revisions(entry(1), entry(2), entry(3, 2), entry(4, 1), entry(5, 4))).toEqual([5, 3]);
    expect(revisions(entry(1), entry(2), entry(3, 2), entry(4, 1), entry(5, 4), entry(6, 3))).toEqual([6, null]);
  });

  it('ends redo at anything new, and undo at a verdict', () => {
    expect(revisions(entry(1), entry(2, 1), entry(3))).toEqual([3, null]);
    expect(revisions(entry(1), entry(2, null, null))).toEqual([null, null]);
  });
});
