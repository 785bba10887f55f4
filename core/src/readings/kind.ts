import { readCell, type NumberFormat } from './number-format.js';

/** A measure is weighed or gauged, a label names a group, a count is a number of things. */
export type ColumnKind = 'measure' | 'label' | 'count';

/** Cells that are looked at: more do not change what a column is. */
const ENOUGH = 5_000;

/**
 * The kind that a column's cells suggest: label when fewer than half of the written cells are numbers, or when they only number
 * the rows (1, 2, 3 …); count for whole numbers from 0 on that take few different values, repeat and have no unit; else measure.
 */
export function recogniseKind(all: readonly string[], format: NumberFormat, unit: string): ColumnKind {
  const cells = all.length > ENOUGH ? all.slice(0, ENOUGH) : all;
  let written = 0;
  let numbers = 0;
  let whole = true;
  let least = Infinity;
  let running = true;
  let previous: number | null = null;
  const different = new Set<number>();
  for (const text of cells) {
    const cell = readCell(text, format);
    if (cell.kind === 'missing') continue;
    written++;
    if (cell.kind === 'text') continue;
    numbers++;
    if (cell.kind === 'limit') {
      whole = false;
      continue;
    }
    whole &&= cell.decimals === 0 && Number.isInteger(cell.value);
    least = Math.min(least, cell.value);
    running &&= previous === null || cell.value === previous + 1;
    previous = cell.value;
    if (different.size <= 40) different.add(cell.value);
  }
  if (written > 0 && numbers < written / 2) return 'label';
  const couldCount = unit === '' && numbers > 2 && whole && least >= 0;
  if (couldCount && running) return 'label';
  const few = different.size < numbers && different.size <= Math.max(6, Math.min(40, numbers / 4));
  return couldCount && few ? 'count' : 'measure';
}
