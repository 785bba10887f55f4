import { binsOf, countsIn } from './histogram.js';

/** More bars are too thin for a picture of some 80 pixels. */
const MOST_BARS = 24;

/**
 * Counts of readings in a few bins of equal width, for a picture the size of a word: the suited bins of `histogram`, or 24 wider ones if those are
 * more. The counts sum to n.
 * @returns null without readings, or if their range is too great for a double
 */
export function smallBins(values: Float64Array, resolution: number | null): number[] | null {
  if (values.length === 0) return null;
  let [least, greatest] = [values[0]!, values[0]!];
  for (const x of values) {
    if (x < least) least = x;
    if (x > greatest) greatest = x;
  }
  if (!Number.isFinite(greatest - least)) return null;
  const suited = binsOf(values, resolution, { rule: 'suited' });
  const few = suited.edges.length - 1 <= MOST_BARS;
  const { edges } = few ? suited : binsOf(values, resolution, { rule: 'count', count: MOST_BARS });
  return Array.from(countsIn(values, edges));
}
