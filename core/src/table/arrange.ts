import { cellsOf } from './derive.js';
import { newMemo, type DeriveMemo } from './memo.js';
import { levelReader } from '../readings/levels.js';
import { readCell, PLAIN_FORMAT } from '../readings/number-format.js';
import type { Table, TableColumn } from './table.js';

export type RowFilter =
  | { kind: 'levels'; column: string; levels: string[] }
  /** Ends included; null: open on that side. */
  | { kind: 'range'; column: string; from: number | null; to: number | null }
  /** Rows in which some reading is set aside, or those in which none is. */
  | { kind: 'set-aside'; show: 'only' | 'without' }
  /** These rows, by number: chosen in a picture. */
  | { kind: 'rows'; rows: number[] };

/** How the table is looked at: never how it is stored. */
export interface Arrangement {
  sort: { column: string; falling: boolean }[];
  only: RowFilter[];
}

export const AS_STORED: Arrangement = { sort: [], only: [] };

/** What sorts before what: numbers, then limits and other text, then labels, then what is missing. */
interface SortKeys {
  rank: Int8Array;
  value: Float64Array;
  text: readonly string[];
}

function keysOf(cells: readonly string[], column: TableColumn, rowCount: number): SortKeys {
  const rank = new Int8Array(rowCount);
  const value = new Float64Array(rowCount);
  const format = column.derivation ? PLAIN_FORMAT : column;
  const levelOf = levelReader(column.levels);
  const place = new Map((column.levels?.order ?? []).map((name, i) => [name, i]));
  const text = Array.from({ length: rowCount }, (_, i) => levelOf(cells[i] ?? '') ?? '');
  for (let i = 0; i < rowCount; i++) {
    const cell = column.kind === 'label' ? null : readCell(cells[i] ?? '', format);
    if (cell?.kind === 'number') value[i] = cell.value;
    else if (text[i] === '' || cell?.kind === 'missing') rank[i] = 3;
    else if (place.has(text[i]!)) [rank[i], value[i]] = [1, place.get(text[i]!)!];
    else rank[i] = 2;
  }
  return { rank, value, text };
}

const collator = new Intl.Collator('en', { numeric: true });

function compare({ rank, value, text }: SortKeys, falling: boolean, a: number, b: number): number {
  // Missing cells stay at the end, whichever way the others run.
  if (rank[a] === 3 || rank[b] === 3) return rank[a]! - rank[b]!;
  const rising =
    rank[a] !== rank[b]
      ? rank[a]! - rank[b]!
      : rank[a] === 2
        ? collator.compare(text[a]!, text[b]!)
        : value[a]! - value[b]!;
  return falling ? -rising : rising;
}

function keeps(filter: RowFilter, table: Table, memo: DeriveMemo): (i: number) => boolean {
  if (filter.kind === 'set-aside') {
    const aside = new Set(table.columns.flatMap(({ id }) => [...table.setAside(id)]));
    return (i) => aside.has(i + 1) === (filter.show === 'only');
  }
  if (filter.kind === 'rows') {
    const wanted = new Set(filter.rows);
    return (i) => wanted.has(i + 1);
  }
  const column = table.columns.find(({ id }) => id === filter.column);
  if (!column) return () => true;
  const cells = cellsOf(table, column, memo);
  if (filter.kind === 'levels') {
    const wanted = new Set(filter.levels);
    const levelOf = levelReader(column.levels);
    return (i) => wanted.has(levelOf(cells[i] ?? '') ?? '');
  }
  const { from, to } = filter;
  const format = column.derivation ? PLAIN_FORMAT : column;
  return (i) => {
    const cell = readCell(cells[i] ?? '', format);
    return cell.kind === 'number' && (from === null || cell.value >= from) && (to === null || cell.value <= to);
  };
}

/** The stored rows (from 1) in the order in which they are shown; null when that is all of them as stored. Equal rows keep their order. */
export function arrangedRows(
  table: Table,
  { sort, only }: Arrangement,
  memo: DeriveMemo = newMemo(),
): Int32Array | null {
  if (sort.length === 0 && only.length === 0) return null;
  const tests = only.map((filter) => keeps(filter, table, memo));
  const rows: number[] = [];
  for (let i = 0; i < table.rowCount; i++) if (tests.every((test) => test(i))) rows.push(i);
  const by = sort.flatMap(({ column: id, falling }) => {
    const column = table.columns.find((c) => c.id === id);
    return column ? [{ keys: keysOf(cellsOf(table, column, memo), column, table.rowCount), falling }] : [];
  });
  rows.sort((a, b) => {
    for (const { keys, falling } of by) {
      const order = compare(keys, falling, a, b);
      if (order !== 0) return order;
    }
    return a - b;
  });
  return Int32Array.from(rows, (i) => i + 1);
}
