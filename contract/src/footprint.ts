import type { Change } from './changes.js';

/** A part of a study that a change touches. Rows are a closed range; `all` stands for every column, removed ones included. */
export type Touch =
  | { what: 'cells'; columns: readonly string[] | 'all'; from: number; to: number }
  | { what: 'aside'; column: string; rows: ReadonlySet<number> }
  | { what: 'column'; column: string; fact: string }
  | { what: 'order' }
  | { what: 'study'; fact: string };

/** What a change does to the whole of a column: whatever else touches the column meets it. */
const WHOLE = '*';

const whole = (column: string): Touch => ({ what: 'column', column, fact: WHOLE });

/** Growing or shortening the table makes or takes rows in every column. */
const grown = (from: number | null): Touch[] =>
  from === null ? [] : [{ what: 'cells', columns: 'all', from: from + 1, to: Infinity }];

/** The last row that a change writes into. */
export function reachOf(change: Change): number {
  if (change.kind === 'edit-cells') {
    return change.runs.reduce((most, { row, texts }) => Math.max(most, row + texts.length - 1), 0);
  }
  if (change.kind !== 'add-columns') return 0;
  const made = (column: (typeof change.columns)[number]) =>
    column.derivation?.kind === 'made-up' ? column.derivation.count : column.cells.length;
  return change.columns.reduce((most, column) => Math.max(most, made(column)), 0);
}

function readingsTouches(readings: readonly { column: string; row: number }[]): Touch[] {
  const byColumn = new Map<string, Set<number>>();
  for (const { column, row } of readings) byColumn.set(column, (byColumn.get(column) ?? new Set()).add(row));
  return [...byColumn].map(([column, rows]) => ({ what: 'aside', column, rows }));
}

/**
 * The parts of a study that a change touches. Two changes without a common part can be done in either order with the same outcome.
 * @param grownFrom where the change made the table longer or shorter: the lesser number of rows; else null
 */
export function footprintOf(change: Change, grownFrom: number | null): Touch[] {
  switch (change.kind) {
    case 'edit-cells': {
      const cells = change.runs.map(({ column, row, texts }): Touch => ({
        what: 'cells',
        columns: [column],
        from: row,
        to: row + texts.length - 1,
      }));
      return [...cells, ...grown(grownFrom)];
    }
    case 'add-columns':
      return [...change.columns.map(({ id }) => whole(id)), ...grown(grownFrom)];
    case 'remove-columns':
    case 'return-columns':
      return [...change.columns.map(whole), { what: 'study', fact: 'subject' }, ...grown(grownFrom)];
    case 'freeze-column': {
      // Values that come back belong to the rows they once stood in.
      const cells: Touch = { what: 'cells', columns: [change.column], from: 1, to: Infinity };
      return [whole(change.column), ...(change.texts ? [cells] : [])];
    }
    case 'thaw-column':
      return [whole(change.column)];
    case 'change-column': {
      const { kind: _, column, renames = [], bounds = [], ...facts } = change;
      const renamed = renames.map(({ column: of }): Touch => ({ what: 'column', column: of, fact: 'name' }));
      const bounded = bounds.flatMap(({ column: of, ...limits }) =>
        Object.keys(limits).map((fact): Touch => ({ what: 'column', column: of, fact })),
      );
      return [...Object.keys(facts).map((fact): Touch => ({ what: 'column', column, fact })), ...renamed, ...bounded];
    }
    case 'order-columns':
      return [{ what: 'order' }];
    case 'insert-rows':
    case 'remove-rows':
      return [{ what: 'cells', columns: 'all', from: Math.min(...change.rows), to: Infinity }];
    case 'set-aside':
    case 'put-back':
    case 'leave-in':
    case 'look-again':
      return readingsTouches(change.readings);
    case 'change-study': {
      const { kind: _, ...facts } = change;
      return Object.keys(facts).map((fact) => ({ what: 'study', fact }));
    }
  }
}

/** Columns that are affected as a whole, to be compared with changes inside them. */
const columnIn = (touch: Touch): readonly string[] | 'all' =>
  touch.what === 'cells' ? touch.columns : touch.what === 'aside' || touch.what === 'column' ? [touch.column] : [];

function share(a: readonly string[] | 'all', b: readonly string[] | 'all'): boolean {
  if (a === 'all') return b === 'all' || b.length > 0;
  return b === 'all' ? a.length > 0 : a.some((column) => b.includes(column));
}

function meets(a: Touch, b: Touch): boolean {
  if (a.what === 'order' || b.what === 'order') return a.what === b.what;
  if (a.what === 'study' || b.what === 'study') return a.what === 'study' && b.what === 'study' && a.fact === b.fact;
  if (a.what === 'column' || b.what === 'column') {
    const wholeOfOne = (a.what === 'column' && a.fact === WHOLE) || (b.what === 'column' && b.fact === WHOLE);
    const both = a.what === 'column' && b.what === 'column';
    const named = a.what === 'column' ? a.column : (b as Extract<Touch, { what: 'column' }>).column;
    const other = a.what === 'column' ? b : a;
    // Rows that come or go move nothing about a column itself.
    const columns = columnIn(other);
    if (columns === 'all') return false;
    return columns.includes(named) && (wholeOfOne || (both && a.fact === b.fact));
  }
  if (a.what === 'aside' && b.what === 'aside') {
    return a.column === b.column && [...a.rows].some((row) => b.rows.has(row));
  }
  if (a.what === 'cells' && b.what === 'cells') return share(a.columns, b.columns) && a.from <= b.to && b.from <= a.to;
  const [cells, aside] = a.what === 'cells' ? [a, b] : [b, a];
  if (cells.what !== 'cells' || aside.what !== 'aside') return false;
  // Rows that move carry their set-aside readings along; writing into a cell leaves its state alone.
  return cells.columns === 'all' && [...aside.rows].some((row) => row >= cells.from && row <= cells.to);
}

/** True where two changes have a part of the study in common. */
export const overlap = (a: readonly Touch[], b: readonly Touch[]): boolean =>
  a.some((one) => b.some((other) => meets(one, other)));
