import { centralMoments } from '../numeric/sums.js';
import { centreAndSpread, type Side } from './grubbs.js';

/** Two at one end need two others at least. */
export const PAIR_LEAST_N = 4;

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

/** The ratio on a side, and at which end it is taken: of either the smaller. */
export function pairOnSide(sorted: Float64Array, side: Side): { statistic: number; end: 'upper' | 'lower' } {
  if (side !== 'either') return { statistic: pairRatio(sorted, side), end: side };
  const [upper, lower] = [pairRatio(sorted, 'upper'), pairRatio(sorted, 'lower')];
  return upper <= lower ? { statistic: upper, end: 'upper' } : { statistic: lower, end: 'lower' };
}

/** The range in sd: large where one reading at each end lies far out (David, Hartley & Pearson 1954; Grubbs 1969). */
export function rangeOverSd(sorted: Float64Array): number {
  const { sd } = centreAndSpread(sorted);
  return (sorted[sorted.length - 1]! - sorted[0]!) / sd;
}
