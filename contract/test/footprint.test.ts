import { describe, expect, it } from 'vitest';
import { changeSchema, footprintOf, NOTHING_SAID, overlap, type ChangeInput } from '../src/index.js';

const [a, b] = ['column-a', 'column-b'] as const;
const edit = (column: string, row: number, ...texts: string[]): ChangeInput => ({
  kind: 'edit-cells',
  runs: [{ column, row, texts }],
});
const aside: ChangeInput = { kind: 'set-aside', readings: [{ column: a, row: 5, reason: 'r' }] };
const rename: ChangeInput = { kind: 'change-column', column: a, name: 'x' };
const added: ChangeInput = {
  kind: 'add-columns',
  columns: [
    { ...NOTHING_SAID, id: b, name: 'b', unit: '', kind: 'measure', decimal: 'point', thousands: 'none', cells: ['1'] },
  ],
};
const touches = (change: ChangeInput, grownFrom: number | null = null) =>
  footprintOf(changeSchema.parse(change), grownFrom);
const meet = (one: ChangeInput, other: ChangeInput) => overlap(touches(one), touches(other));

describe('two changes', () => {
  it.each<[string, ChangeInput, ChangeInput]>([
    ['one cell', edit(a, 3, 'x'), edit(a, 3, 'y')],
    ['overlapping runs', edit(a, 1, 'x', 'y', 'z'), edit(a, 3, 'q')],
    ['a cell and rows that come above it', edit(a, 9, 'x'), { kind: 'insert-rows', rows: [4] }],
    ['a set-aside reading and rows that go above it', aside, { kind: 'remove-rows', rows: [2] }],
    ['one set-aside reading', aside, { kind: 'put-back', readings: [{ column: a, row: 5 }] }],
    ['one reading, left in and set aside', aside, { kind: 'look-again', readings: [{ column: a, row: 5 }] }],
    ['a column and its cells', { kind: 'remove-columns', columns: [a] }, edit(a, 1, 'x')],
    ['a column and its name', { kind: 'freeze-column', column: a }, rename],
    ['one fact of a column', rename, { kind: 'change-column', column: a, name: 'y', unit: 'mm' }],
    [
      'limits that follow and the column’s own',
      {
        kind: 'change-column',
        column: a,
        target: 1,
        bounds: [{ column: b, lowerLimit: null, target: 2, upperLimit: 3 }],
      },
      { kind: 'change-column', column: b, upperLimit: 4 },
    ],
    ['the order of columns', { kind: 'order-columns', columns: [a, b] }, { kind: 'order-columns', columns: [b, a] }],
    ['one fact of the study', { kind: 'change-study', alpha: 0.01 }, { kind: 'change-study', alpha: 0.1, name: 'x' }],
    ['a new column and its cells', added, edit(b, 1, 'x')],
  ])('meet at %s', (_, one, other) => {
    expect(meet(one, other)).toBe(true);
    expect(meet(other, one)).toBe(true);
  });

  it.each<[string, ChangeInput, ChangeInput]>([
    ['different rows', edit(a, 3, 'x'), edit(a, 4, 'y')],
    ['different columns', edit(a, 3, 'x'), edit(b, 3, 'y')],
    ['a cell and rows below it', edit(a, 3, 'x'), { kind: 'insert-rows', rows: [4] }],
    ['a cell and its being set aside', edit(a, 5, 'x'), aside],
    ['name and limits of a column', rename, { kind: 'change-column', column: a, lowerLimit: 1 }],
    ['a column that is out and rows', { kind: 'remove-columns', columns: [a] }, { kind: 'insert-rows', rows: [1] }],
    ['name and level of the study', { kind: 'change-study', alpha: 0.01 }, { kind: 'change-study', name: 'x' }],
  ])('stay apart at %s', (_, one, other) => {
    expect(meet(one, other)).toBe(false);
    expect(meet(other, one)).toBe(false);
  });

  it('meet where one made the table longer and the other writes into the new rows of another column', () => {
    const grown = touches(edit(a, 8, 'x'), 5);
    expect(overlap(grown, touches(edit(b, 7, 'y')))).toBe(true);
    expect(overlap(grown, touches(edit(b, 5, 'y')))).toBe(false);
  });
});
