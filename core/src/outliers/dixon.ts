import type { Side } from './grubbs.js';

/** Dixon's ratios by n (1953): the gap to the nearest reading over a range that excludes readings which could mask the outlier. */
export type DixonRatio = 'r10' | 'r11' | 'r21' | 'r22';
export const DIXON_LEAST_N = 3;
/** Dixon gave no values above this n. */
export const DIXON_GREATEST_N = 30;

export function dixonRatioFor(n: number): DixonRatio | null {
  if (n < DIXON_LEAST_N || n > DIXON_GREATEST_N) return null;
  if (n <= 7) return 'r10';
  if (n <= 10) return 'r11';
  return n <= 13 ? 'r21' : 'r22';
}

/** The rank distance of the neighbour to which the gap is measured, and the number of readings excluded at the other end. */
const PLACES: Record<DixonRatio, { gap: number; left: number }> = {
  r10: { gap: 1, left: 0 },
  r11: { gap: 1, left: 1 },
  r21: { gap: 2, left: 1 },
  r22: { gap: 2, left: 2 },
};

/** The ratio at one end of a sorted sample; 0 if its range is 0. */
export function dixonAt(sorted: Float64Array, ratio: DixonRatio, end: 'upper' | 'lower'): number {
  const n = sorted.length;
  const { gap, left } = PLACES[ratio];
  const at = (i: number) => (end === 'lower' ? sorted[i]! : -sorted[n - 1 - i]!);
  const range = at(n - 1 - left) - at(0);
  return range > 0 ? (at(gap) - at(0)) / range : 0;
}

/** The ratio on the tested side, and its end; for either side the greater ratio. */
export function dixon(
  sorted: Float64Array,
  ratio: DixonRatio,
  side: Side,
): { statistic: number; end: 'upper' | 'lower' } {
  if (side !== 'either') return { statistic: dixonAt(sorted, ratio, side), end: side };
  const [upper, lower] = [dixonAt(sorted, ratio, 'upper'), dixonAt(sorted, ratio, 'lower')];
  return upper >= lower ? { statistic: upper, end: 'upper' } : { statistic: lower, end: 'lower' };
}
