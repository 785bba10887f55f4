import type { ParsedColumn } from './block.js';
import { readNumber } from './number-format.js';

const LEAST_ROWS = 3;

/**
 * True where two columns read as values with how often each occurred: the first rises by equal steps, the second holds whole numbers from 0 on, some above 1.
 * Pasted so, they are a tally of readings and not readings by row.
 */
export function looksLikeTally(columns: readonly ParsedColumn[]): boolean {
  if (columns.length !== 2) return false;
  const [values, counts] = columns.map((column) => column.cells.map((text) => readNumber(text, column))) as [
    (number | null)[],
    (number | null)[],
  ];
  if (values.length < LEAST_ROWS || values.includes(null) || counts.includes(null)) return false;
  const step = values[1]! - values[0]!;
  const even = values.every(
    (x, i) => i === 0 || Math.abs(x! - values[i - 1]! - step) <= 1e-9 * Math.max(1, Math.abs(x!)),
  );
  return step > 0 && even && counts.every((k) => Number.isInteger(k) && k! >= 0) && counts.some((k) => k! > 1);
}

/** The two columns of a tally by what they are: counts of how often, beside values that may be counts themselves. */
export function asTally<Column extends ParsedColumn>([values, counts]: readonly [Column, Column]): [Column, Column] {
  const whole = values.cells.every((text) => /^\s*\d+\s*$/.test(text));
  return [
    { ...values, kind: whole && values.unit === '' ? 'count' : 'measure' },
    { ...counts, kind: 'count' },
  ];
}
