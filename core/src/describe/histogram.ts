import { decimalsOf } from '../numeric/format.js';

/** Bins of equal width: [edge, next edge), the last one closed. */
export interface Histogram {
  edges: number[];
  counts: number[];
}

const MOST_BINS = 200;

/** The width by Freedman & Diaconis (1981), 2·IQR·n^(−1/3); Sturges's (1926) number of bins where half of the readings are equal. */
function widthOf(sorted: Float64Array): number {
  const n = sorted.length;
  const range = sorted[n - 1]! - sorted[0]!;
  const iqr = sorted[Math.floor(0.75 * (n - 1))]! - sorted[Math.ceil(0.25 * (n - 1))]!;
  let bins = 1;
  while (2 ** (bins - 1) < n) bins++;
  // The cube root by Newton's steps: n^(1/3) from the basic operations alone.
  let root = bins;
  for (let i = 0; i < 60; i++) root = (2 * root + n / (root * root)) / 3;
  const width = (2 * iqr) / root;
  return width > 0 ? Math.max(width, range / MOST_BINS) : range / bins;
}

/**
 * A histogram to lay a curve over. With a known resolution, bins are a whole number of steps wide and their edges stand half a step off the grid of
 * readings, so that every bin holds equally many possible values. Every reading is in exactly one bin.
 */
export function histogramOf(values: Float64Array, resolution: number | null, step: number | null = null): Histogram {
  if (values.length === 0) return { edges: [], counts: [] };
  const sorted = values.slice().sort();
  const least = sorted[0]!;
  const greatest = sorted[sorted.length - 1]!;
  const grid = step ?? resolution;
  let width = step ?? widthOf(sorted);
  if (grid !== null)
    width = Math.max(1, Math.round(width / grid), Math.ceil((greatest - least) / grid / MOST_BINS)) * grid;
  if (!(width > 0)) width = Math.abs(least) * 0.01 || 1;
  const start = grid === null ? least - (greatest === least ? width / 2 : 0) : least - grid / 2;
  const bins = Math.max(1, Math.ceil((greatest - start) / width + (grid === null ? 0 : 1e-9)));
  // Edges as rounded multiples, so that a step of 0.1 does not leave 0.30000000000000004 on the axis.
  const digits = grid === null ? null : Math.min(15, decimalsOf(grid) + 1);
  const edges = Array.from({ length: bins + 1 }, (_, i) => {
    const edge = start + i * width;
    return digits === null ? edge : Number(edge.toFixed(digits));
  });
  if (edges[bins]! < greatest) edges[bins] = greatest;
  const counts = Array.from({ length: bins }, () => 0);
  for (const x of values) {
    let bin = Math.min(bins - 1, Math.max(0, Math.floor((x - start) / width)));
    // The quotient can round across an edge; the edges themselves decide.
    while (bin > 0 && x < edges[bin]!) bin--;
    while (bin < bins - 1 && x >= edges[bin + 1]!) bin++;
    counts[bin]!++;
  }
  return { edges, counts };
}
