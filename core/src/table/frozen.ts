import { decimalsWritten } from '../numeric/round-to.js';
import { derive, sampleOfColumn } from './derive.js';
import { newMemo, type DeriveMemo } from './memo.js';
import type { Table, TableColumn } from './table.js';

/**
 * A derived column's cells as plain values: those that keep to a step are written with its decimals, as the instrument would (30.0 stays
 * 30.0), all others in full. Every text reads back as the very value.
 */
export function frozenCells(table: Table, column: TableColumn, memo: DeriveMemo = newMemo()): string[] {
  const { cells } = derive(table, column, memo);
  const step = sampleOfColumn(table, column, memo).resolution;
  if (step === null) return [...cells];
  const decimals = decimalsWritten(step);
  return cells.map((text) => {
    const value = Number(text);
    if (text === '' || !Number.isFinite(value)) return text;
    const written = value.toFixed(Math.min(100, decimals));
    return Number(written) === value && !/e/i.test(written) ? written : text;
  });
}
