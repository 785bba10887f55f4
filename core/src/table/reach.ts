import { sourcesOf } from './derivation.js';
import type { Table, TableColumn } from './table.js';

/** The last row, from 1, with anything written; 0 where there is none. Known for every list of cells: they are replaced, never changed. */
const lastRows = new WeakMap<readonly string[], number>();

function lastWritten(cells: readonly string[]): number {
  let last = lastRows.get(cells);
  if (last === undefined) {
    last = cells.length;
    while (last > 0 && cells[last - 1]!.trim() === '') last--;
    lastRows.set(cells, last);
  }
  return last;
}

/** True where a column is made up, or follows from one that is. */
function isMadeUp(table: Table, { derivation }: TableColumn, depth = table.columns.length): boolean {
  if (!derivation || depth < 0) return false;
  if (derivation.kind === 'made-up') return true;
  return sourcesOf(derivation).some((id) => {
    const source = table.columns.find((column) => column.id === id);
    return source !== undefined && isMadeUp(table, source, depth - 1);
  });
}

/**
 * How many rows of the table are a column's own. Rows that only a made-up column fills are no rows in which something written is missing, and a made-up column misses nothing
 * after its last value.
 */
export function reachOf(table: Table, column: TableColumn): number {
  const { rowCount, columns, cells } = table;
  if (column.derivation?.kind === 'made-up') return Math.min(rowCount, column.derivation.count);
  if (!columns.some(({ derivation }) => derivation?.kind === 'made-up') || isMadeUp(table, column)) return rowCount;
  const written = columns
    .filter(({ derivation }) => derivation === null)
    .reduce((most, { id }) => Math.max(most, lastWritten(cells[id] ?? [])), 0);
  return written || rowCount;
}
