import type { Cumulative } from './model.js';

/** Whole numbers from one to another, both included; null is open. */
export interface CountCell {
  from: number | null;
  to: number | null;
  expected: number;
}

/** Pearson’s χ² needs two cells at least. */
const LEAST_CELLS = 2;
/** Where doubling strides for the next edge end: beyond it nothing is expected. */
const FARTHEST = 1e15;

/** The least whole number from `from` on at which the share reaches `wanted`; Infinity where none does. */
function reaching(cumulative: Cumulative, from: number, wanted: number): number {
  if (cumulative(from) >= wanted) return from;
  let low = from;
  let stride = 1;
  while (cumulative(low + stride) < wanted) {
    low += stride;
    stride *= 2;
    if (low > FARTHEST) return Infinity;
  }
  let high = low + stride;
  while (high - low > 1) {
    const middle = low + Math.floor((high - low) / 2);
    if (cumulative(middle) >= wanted) high = middle;
    else low = middle;
  }
  return high;
}

/**
 * Cells of whole numbers from `begin` on, pooled from below until each has at least the given expected count among n (Cochran 1954). They depend on
 * the distribution and on n only, not on the observed counts. A value with a sufficient expected count is a cell by itself. Empty if two cells are
 * not possible.
 */
export function pooledCells(cumulative: Cumulative, n: number, begin: number, least: number): CountCell[] {
  const cells: CountCell[] = [];
  let [from, below] = [begin, 0];
  // What is left at the end must be enough for a cell of its own.
  for (;;) {
    const edge = reaching(cumulative, from, below + (least / n) * (1 - 1e-12));
    const share = edge === Infinity ? 1 : cumulative(edge);
    if (n * (1 - share) < least * (1 - 1e-12)) break;
    cells.push({ from, to: edge, expected: n * (share - below) });
    [from, below] = [edge + 1, share];
  }
  cells.push({ from, to: null, expected: n * (1 - below) });
  cells[0]!.from = null;
  return cells.length < LEAST_CELLS ? [] : cells;
}

/** The observed numbers of counts in consecutive cells. */
export function countsInCells(cells: readonly CountCell[], counts: Float64Array): number[] {
  const observed = cells.map(() => 0);
  for (let i = 0; i < counts.length; i++) {
    let [low, high] = [0, cells.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (counts[i]! <= (cells[middle]!.to ?? Infinity)) high = middle;
      else low = middle + 1;
    }
    observed[low]!++;
  }
  return observed;
}

/** χ² = Σ (observed − expected)²/expected (Pearson 1900). */
export function chiSquareOf(cells: readonly CountCell[], observed: readonly number[]): number {
  let sum = 0;
  cells.forEach(({ expected }, i) => (sum += (observed[i]! - expected) ** 2 / expected));
  return sum;
}

/** As many bars as a picture holds. */
const MOST_SHOWN = 60;

/**
 * The values between the least and the greatest count with their expected numbers, pooled into equal intervals if there are many; open at both ends.
 */
export function shownCells(cumulative: Cumulative, n: number, least: number, greatest: number): CountCell[] {
  const width = Math.max(1, Math.ceil((greatest - least + 1) / MOST_SHOWN));
  const cells: CountCell[] = [];
  let below = least > 0 ? cumulative(least - 1) : 0;
  if (least > 0) cells.push({ from: null, to: least - 1, expected: n * below });
  for (let from = least; from <= greatest; from += width) {
    const to = from + width - 1;
    const share = cumulative(to);
    cells.push({ from, to, expected: n * (share - below) });
    below = share;
  }
  const last = cells.at(-1)!.to!;
  cells.push({ from: last + 1, to: null, expected: Math.max(0, n * (1 - below)) });
  return cells;
}
