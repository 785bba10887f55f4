import type { StudyFile } from '@verdict/contract';
import type { Chance } from './chance.js';

const TEXTS = [
  '8.01',
  '7.9',
  '',
  ' ',
  'n/a',
  '<0.05',
  '12,5',
  '-1e300',
  '1e-300',
  'north',
  '=1+1',
  'a"b',
  'x\ny',
  '二',
  '\ud83d',
];

const textsOf = (chance: Chance, count: number) => Array.from({ length: count }, () => chance.of(TEXTS));
/** Rows by number, rising, at most `most` of them. */
const rowsUpTo = (chance: Chance, last: number, most: number) =>
  [...new Set(Array.from({ length: 1 + chance.upTo(most) }, () => 1 + chance.upTo(Math.max(1, last))))].sort(
    (a, b) => a - b,
  );

/** A column as a change adds it. */
export function newColumn(chance: Chance, name: string, cells: string[], more: object = {}) {
  const facts = { unit: 'mm', kind: 'measure', decimal: 'point', thousands: 'none', resolution: null };
  return { ...{ id: chance.id(), name, ...facts, cells }, ...more };
}

function derivationOn(chance: Chance, source: string) {
  return chance.of([
    { kind: 'formula', expression: `[${source}] * 2` },
    { kind: 'standard-score', source, divisor: 'sample' },
    { kind: 'rank', source },
    { kind: 'distance', source, absolute: true },
    { kind: 'rounded', source, step: 0.5 },
    { kind: 'transformed', source, by: 'box-cox', lambda: 0 },
    { kind: 'transformed', source, by: 'normal-scores', lambda: null },
    {
      kind: 'made-up',
      family: 'normal',
      parameters: { mean: 8, sd: 1 },
      count: 1 + chance.upTo(40),
      step: 0.1,
      seed: 5,
    },
  ]);
}

/** A change that makes sense for the study as it stands, mostly. */
export function someChange(chance: Chance, { study, columns, setAside, leftIn }: StudyFile): object {
  const standing = columns.filter(({ removed }) => !removed);
  const out = columns.filter(({ removed }) => removed);
  const column = chance.of(standing.length ? standing : columns);
  const name = `c${chance.upTo(1e6)}`;
  if (!column) return { kind: 'add-columns', columns: [newColumn(chance, name, textsOf(chance, 1 + chance.upTo(9)))] };
  const { id } = column;
  const row = 1 + chance.upTo(Math.max(1, study.rowCount));
  const far = 1 + chance.upTo(study.rowCount + 5);
  const reading = { column: id, row };
  const oneOf = (marked: StudyFile['setAside']) => {
    const own = marked.filter(({ columnId }) => standing.some((one) => one.id === columnId));
    return own.length ? chance.of(own) : null;
  };
  const [put, left] = [oneOf(setAside), oneOf(leftIn)];
  return chance.of<() => object>([
    () => ({ kind: 'edit-cells', runs: [{ column: id, row: far, texts: textsOf(chance, 1 + chance.upTo(4)) }] }),
    () => ({
      kind: 'edit-cells',
      runs: [
        { ...reading, texts: ['8.5'] },
        { ...reading, texts: ['9'] },
      ],
      note: 'pasted',
    }),
    () => ({
      kind: 'add-columns',
      columns: [newColumn(chance, name, textsOf(chance, 1 + chance.upTo(9)), { aside: [{ row: 1, reason: 'r' }] })],
    }),
    () => ({ kind: 'add-columns', columns: [newColumn(chance, name, [], { derivation: derivationOn(chance, id) })] }),
    () => ({ kind: 'remove-columns', columns: [id] }),
    () => ({ kind: 'return-columns', columns: [(out.length ? chance.of(out) : column).id], rowCount: study.rowCount }),
    () => ({ kind: 'change-column', column: id, name, resolution: 0.5, claimedMean: 8 }),
    () => ({
      kind: 'change-column',
      column: id,
      name,
      renames: [{ column: chance.of(standing).id, name: `${name} too` }],
    }),
    () => ({
      kind: 'change-column',
      column: id,
      target: 8,
      bounds: [{ column: chance.of(standing).id, lowerLimit: 1, target: 2, upperLimit: null }],
    }),
    () => ({
      kind: 'change-column',
      column: id,
      lowerLimit: 7,
      target: 8,
      upperLimit: 9,
      columnKind: chance.of(['measure', 'label', 'count']),
    }),
    () => ({
      kind: 'change-column',
      column: id,
      levels: { order: ['north'], merged: [{ from: 'a', into: 'b' }] },
      unit: 'µm',
    }),
    () => ({ kind: 'change-column', column: id, derivation: derivationOn(chance, chance.of(standing).id) }),
    () => ({ kind: 'order-columns', columns: standing.map((one) => one.id).reverse() }),
    () => ({ kind: 'freeze-column', column: (standing.find(({ derivation }) => derivation) ?? column).id }),
    () => ({ kind: 'thaw-column', column: id, derivation: { kind: 'rank', source: chance.of(standing).id } }),
    () => ({ kind: 'insert-rows', rows: rowsUpTo(chance, study.rowCount + 1, 3) }),
    () => ({
      kind: 'insert-rows',
      rows: [row],
      contents: [{ column: id, texts: textsOf(chance, 1) }],
      aside: [{ ...reading, reason: 'r' }],
      leftIn: [{ ...reading, reason: 'r' }],
    }),
    () => ({ kind: 'remove-rows', rows: rowsUpTo(chance, study.rowCount, 4) }),
    () => ({ kind: 'set-aside', readings: [{ ...reading, reason: 'chipped' }] }),
    () => ({ kind: 'put-back', readings: [put ? { column: put.columnId, row: put.row } : reading] }),
    () => ({ kind: 'leave-in', readings: [{ ...reading, reason: 'no cause found' }] }),
    () => ({ kind: 'look-again', readings: [left ? { column: left.columnId, row: left.row } : reading] }),
    () => ({ kind: 'change-study', name, question: 'why?', alpha: 0.01, quantileType: 'hinges', subject: id }),
    () => ({ kind: 'change-study', asks: 'differ', tags: ['glaze', name] }),
  ])();
}
