import { centralMoments } from '../numeric/sums.js';
import { centreAndSpread, type Side } from './grubbs.js';

/** The test of two outliers at one end needs at least two other readings. */
export const PAIR_LEAST_N = 4;

/**
 * The ratio of the sums of squares without and with the two most extreme readings at one end: S²(n−1,n)/S² or S²(1,2)/S² (Grubbs 1969). Small if the
 * two are outliers.
 */
export function pairRatio(sorted: Float64Array, end: 'upper' | 'lower'): number {
  const n = sorted.length;
  const { s2: whole } = centralMoments(sorted);
  const { s2: rest } = centralMoments(end === 'upper' ? sorted.subarray(0, n - 2) : sorted.subarray(2));
  return rest / whole;
}

/** The ratio on the tested side, and its end; for either side the smaller ratio. */
export function pairOnSide(sorted: Float64Array, side: Side): { statistic: number; end: 'upper' | 'lower' } {
  if (side !== 'either') return { statistic: pairRatio(sorted, side), end: side };
  const [upper, lower] = [pairRatio(sorted, 'upper'), pairRatio(sorted, 'lower')];
  return upper <= lower ? { statistic: upper, end: 'upper' } : { statistic: lower, end: 'lower' };
}

/** The range in SD: large if there is an outlier at each end (David, Hartley & Pearson 1954; Grubbs 1969). */
export function rangeOverSd(sorted: Float64Array): number {
  const { sd } = centreAndSpread(sorted);
  return (sorted[sorted.length - 1]! - sorted[0]!) / sd;
}
