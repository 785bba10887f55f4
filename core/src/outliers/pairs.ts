import { centralMoments } from '../numeric/sums.js';
import { centreAndSpread, type Side } from './grubbs.js';

/** Two at one end need two others at least. */
export const PAIR_LEAST_N = 4;

/** Two readings that may be too far out together: at one end, or one at each. */
export type PairEnds = 'upper' | 'lower' | 'both';

/**
 * What two readings at one end leave of the sum of squares: S²(without the two)/S² (Grubbs 1969, equations for S²(n−1,n)/S² and S²(1,2)/S²). Small where the two lie
 * far out.
 */
export function pairRatio(sorted: Float64Array, end: 'upper' | 'lower'): number {
  const n = sorted.length;
  const { s2: whole } = centralMoments(sorted);
  const { s2: rest } = centralMoments(end === 'upper' ? sorted.subarray(0, n - 2) : sorted.subarray(2));
  return rest / whole;
}

/** The range in sd: large where one reading at each end lies far out (David, Hartley & Pearson 1954; Grubbs 1969). */
export function rangeOverSd(sorted: Float64Array): number {
  const { sd } = centreAndSpread(sorted);
  return (sorted[sorted.length - 1]! - sorted[0]!) / sd;
}

/** The pairs that a side asks about. */
export const pairsOf = (side: Side): PairEnds[] => (side === 'either' ? ['upper', 'lower', 'both'] : [side]);

export const pairStatistic = (sorted: Float64Array, ends: PairEnds): number =>
  ends === 'both' ? rangeOverSd(sorted) : pairRatio(sorted, ends);

/** Places of the two in a sample in rising order. */
export function pairPlaces(n: number, ends: PairEnds): [number, number] {
  if (ends === 'both') return [0, n - 1];
  return ends === 'upper' ? [n - 2, n - 1] : [0, 1];
}
