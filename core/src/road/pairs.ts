import type { Sample } from '../readings/sample.js';

/** Readings of two columns that stand in the same rows, and how many have no partner. */
export function pairsOf(a: Sample, b: Sample): { first: Float64Array; second: Float64Array; without: number } {
  const byRow = new Map(Array.from(b.rows, (row, i) => [row, b.values[i]!]));
  const kept = [...a.rows.keys()].filter((i) => byRow.has(a.rows[i]!));
  return {
    first: Float64Array.from(kept, (i) => a.values[i]!),
    second: Float64Array.from(kept, (i) => byRow.get(a.rows[i]!)!),
    without: a.values.length + b.values.length - 2 * kept.length,
  };
}
