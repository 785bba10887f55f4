import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  askedObjection,
  changeSchema,
  changeWithIds,
  MOST_STUDY_CELLS,
  movedByInsert,
  movedByRemoval,
  NOTHING_SAID,
  objectionTo,
  type ChangeInput,
  type ColumnNow,
  type StudyNow,
} from '../src/index.js';

const [a, b, follows, gone] = ['column-a', 'column-b', 'column-f', 'column-g'] as const;
const column = (id: string, more: Partial<ColumnNow> = {}): ColumnNow => ({
  ...{ id, name: id.slice(-1), kind: 'measure', frequencies: null, derivation: null, removed: false },
  ...{ lowerLimit: null, target: null, upperLimit: null },
  ...more,
});
/** Four rows; f follows a, g is out of the table, row 2 of a is set aside. */
const STUDY: StudyNow = {
  rowCount: 4,
  columns: [
    column(a),
    column(b),
    column(follows, { derivation: { kind: 'rank', source: a } }),
    column(gone, { removed: true }),
  ],
  isAside: (id, row) => id === a && row === 2,
  isLeftIn: (id, row) => id === a && row === 3,
  reachOf: (id) => (id === gone ? 6 : 0),
};
const objection = (change: ChangeInput, study = STUDY) => objectionTo(changeSchema.parse(change), study);
const fresh = (id: string, cells: string[] = [], more: object = {}) => ({
  ...{ id, name: id, unit: '', kind: 'measure' as const, decimal: 'point' as const, thousands: 'none' as const },
  ...NOTHING_SAID,
  cells,
  ...more,
});
const edit = (row: number, texts: string[], more: object = {}): ChangeInput => ({
  kind: 'edit-cells',
  runs: [{ column: a, row, texts }],
  ...more,
});
const reading = { column: a, row: 1, reason: 'r' };

describe('a change that cannot be done', () => {
  it.each<[string, string, ChangeInput]>([
    [
      'a cell of a column of another study',
      'column',
      { kind: 'edit-cells', runs: [{ column: 'elsewhere', row: 1, texts: ['1'] }] },
    ],
    [
      'a cell of a column that is out',
      'column',
      { kind: 'edit-cells', runs: [{ column: gone, row: 1, texts: ['1'] }] },
    ],
    [
      'a cell of a column that follows',
      'column',
      { kind: 'edit-cells', runs: [{ column: follows, row: 1, texts: ['1'] }] },
    ],
    ['fewer rows than its own run', 'rowCount', edit(3, ['1', '2'], { rowCount: 3 })],
    ['three texts from row 999 999 on', 'rows', edit(999_999, ['1', '2', '3'])],
    ['a column of another study in the order', 'columns', { kind: 'order-columns', columns: [a, b, 'elsewhere'] }],
    ['a column twice in the order', 'columns', { kind: 'order-columns', columns: [a, b, follows, a] }],
    [
      'one id for two new columns',
      'columns',
      { kind: 'add-columns', columns: [fresh('column-n'), fresh('column-n', [], { name: 'm' })] },
    ],
    ['the id of a column that is there', 'columns', { kind: 'add-columns', columns: [fresh(gone)] }],
    [
      'a reading beyond the table set aside in a new column',
      'aside',
      { kind: 'add-columns', columns: [fresh('column-n', ['1'], { aside: [{ row: 999_999, reason: 'r' }] })] },
    ],
    ['a reading set aside twice', 'readings', { kind: 'set-aside', readings: [reading, reading] }],
    ['a reading that is set aside', 'row', { kind: 'set-aside', readings: [{ ...reading, row: 2 }] }],
    ['a reading beyond the table', 'row', { kind: 'set-aside', readings: [{ ...reading, row: 999_999 }] }],
    ['a reading of another study', 'column', { kind: 'put-back', readings: [{ column: 'elsewhere', row: 1 }] }],
    ['a reading left in twice', 'readings', { kind: 'leave-in', readings: [reading, reading] }],
    ['a reading that is left in', 'row', { kind: 'leave-in', readings: [{ ...reading, row: 3 }] }],
    ['a reading looked at again that is not left in', 'row', { kind: 'look-again', readings: [{ column: a, row: 1 }] }],
    [
      'a reading left in in a row that does not come',
      'leftIn',
      { kind: 'insert-rows', rows: [1], leftIn: [{ ...reading, row: 2 }] },
    ],
    ['a reading put back that is not set aside', 'row', { kind: 'put-back', readings: [{ column: a, row: 1 }] }],
    ['a column taken out twice', 'columns', { kind: 'remove-columns', columns: [b, b] }],
    ['a column taken out that others follow', 'columns', { kind: 'remove-columns', columns: [a] }],
    [
      'a taking out that makes the table longer',
      'rowCount',
      { kind: 'remove-columns', columns: [b], rowCount: 900_000 },
    ],
    ['a subject that goes with it', 'subject', { kind: 'remove-columns', columns: [b], subject: b }],
    ['more rows than come back', 'rowCount', { kind: 'return-columns', columns: [gone], rowCount: 900_000 }],
    ['a column brought back that is there', 'columns', { kind: 'return-columns', columns: [a] }],
    [
      'written cells for a column that follows',
      'contents',
      { kind: 'insert-rows', rows: [1], contents: [{ column: follows, texts: ['1'] }] },
    ],
    [
      'fewer contents than rows',
      'contents',
      { kind: 'insert-rows', rows: [1, 2], contents: [{ column: a, texts: ['1'] }] },
    ],
    [
      'a reading set aside in a row that does not come',
      'aside',
      { kind: 'insert-rows', rows: [1], aside: [{ ...reading, row: 2 }] },
    ],
    ['rows that are not there', 'rows', { kind: 'remove-rows', rows: [5] }],
    [
      'a written column made to follow',
      'derivation',
      { kind: 'change-column', column: a, derivation: { kind: 'rank', source: b } },
    ],
    ['a written column frozen', 'column', { kind: 'freeze-column', column: a }],
    ['a subject that is out', 'subject', { kind: 'change-study', subject: gone }],
  ])('%s names the field %s', (_, field, change) => {
    expect(objection(change)).toMatchObject({ field, detail: expect.stringMatching(/\w/) });
  });

  it('is not one that makes sense', () => {
    const good: ChangeInput[] = [
      edit(6, ['1']),
      edit(5, [''], { rowCount: 4 }),
      { kind: 'add-columns', columns: [fresh('column-n', ['1', '2'], { aside: [{ row: 4, reason: 'r' }] })] },
      { kind: 'order-columns', columns: [follows, b, a] },
      { kind: 'put-back', readings: [{ column: a, row: 2 }] },
      { kind: 'look-again', readings: [{ column: a, row: 3 }] },
      // Looked at and left in, a reading may still be set aside.
      { kind: 'leave-in', readings: [{ ...reading, row: 2 }] },
      { kind: 'set-aside', readings: [{ ...reading, row: 3 }] },
      { kind: 'remove-columns', columns: [a, follows] },
      { kind: 'return-columns', columns: [gone], rowCount: 6 },
      { kind: 'freeze-column', column: follows },
    ];
    for (const change of good) expect(objection(change), JSON.stringify(change)).toBeNull();
  });

  it('is a table larger than a study can be, unless it was that before and does not grow', () => {
    const rows = MOST_STUDY_CELLS / 4;
    const wide = { ...STUDY, rowCount: rows + 1, columns: [...STUDY.columns, column('column-w')] };
    expect(objection({ kind: 'insert-rows', rows: [1] }, { ...STUDY, rowCount: 999_999 })).toBeNull();
    expect(objection({ kind: 'insert-rows', rows: [1] }, wide)).toMatchObject({ field: 'rows' });
    expect(objection({ kind: 'remove-rows', rows: [1] }, wide)).toBeNull();
    expect(objection(edit(1, ['1']), wide)).toBeNull();
  });

  it('is a table of more than a thousand columns', () => {
    const many = Array.from({ length: 995 }, (_, i) => column(`column-${1_000 + i}`, { name: `m${i}` }));
    const study = { ...STUDY, columns: [...STUDY.columns, ...many] };
    const added = (count: number): ChangeInput => ({
      kind: 'add-columns',
      columns: Array.from({ length: count }, (_, i) => fresh(`new-column-${i}`)),
    });
    expect(objection(added(2), study)).toBeNull();
    expect(objection(added(3), study)).toMatchObject({ field: 'columns' });
  });

  it.each<[string, ChangeInput]>([
    ['thaw-column', { kind: 'thaw-column', column: a, derivation: { kind: 'rank', source: b } }],
    ['return-columns', { kind: 'return-columns', columns: [gone] }],
    ['freeze-column to given values', { kind: 'freeze-column', column: follows, texts: ['1'] }],
    [
      'set-aside in the name of another',
      { kind: 'set-aside', readings: [{ ...reading, by: { who: 'x', at: '2026-11-25T10:00:00.000Z' } }] },
    ],
  ])('%s is only for taking back', (_, change) => {
    expect(askedObjection(changeSchema.parse(change))?.detail).toBe('Only undoing a change does this.');
  });
});

describe('text that holds half a surrogate pair', () => {
  it('is made well-formed where it enters, wherever it stands in a change', () => {
    const { runs } = changeSchema.parse(edit(1, ['8.01 \ud83d', '\ude00', '😀'])) as { runs: { texts: string[] }[] };
    expect(runs[0]!.texts).toEqual(['8.01 \ufffd', '\ufffd', '😀']);
    expect(changeSchema.parse({ kind: 'change-study', name: 'a\ud83d' })).toMatchObject({ name: 'a\ufffd' });
  });
});

describe('rows that come and go', () => {
  const rows = fc.uniqueArray(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 20 });

  it('move the others as taking each one by one would', () => {
    fc.assert(
      fc.property(rows, fc.integer({ min: 1, max: 60 }), (named, row) => {
        const rising = [...named].sort((x, y) => x - y);
        let slow = row;
        for (const put of rising) if (put <= slow) slow++;
        expect(movedByInsert(rising)(row)).toBe(slow);
        const below = rising.filter((out) => out < row).length;
        expect(movedByRemoval(rising)(row)).toBe(rising.includes(row) ? null : row - below);
        // What is put in and taken out again has moved nothing.
        expect(movedByRemoval(rising)(movedByInsert(rising)(row))).toBe(row);
      }),
    );
  });
});

describe('ids', () => {
  it('are replaced where they are ids, and never in a text', () => {
    const to = (id: string) => (id === a ? 'new-id-0' : id);
    const change = changeSchema.parse({
      kind: 'add-columns',
      columns: [
        fresh(b, [a, 'x'], { derivation: null, frequencies: a, name: a, aside: [{ row: 1, reason: a }] }),
        fresh(follows, [], { derivation: { kind: 'formula', expression: `[${a}] * 2 + "${a}"` } }),
      ],
      note: a,
    });
    const renamed = changeWithIds(change, to) as typeof change & { columns: unknown[] };
    expect(renamed).toMatchObject({
      note: a,
      columns: [
        { id: b, cells: [a, 'x'], frequencies: 'new-id-0', name: a, aside: [{ reason: a }] },
        { derivation: { expression: `[new-id-0] * 2 + "${a}"` } },
      ],
    });
    const share: ChangeInput = {
      kind: 'change-column',
      column: a,
      derivation: { kind: 'share', source: a, trials: a },
    };
    expect(changeWithIds(changeSchema.parse(share), to)).toEqual({
      ...{ kind: 'change-column', column: 'new-id-0' },
      derivation: { kind: 'share', source: 'new-id-0', trials: 'new-id-0' },
    });
  });
});
