/**
 * How close, relative to their scale, two statistics are that differ by rounding only. Sums in another order, logarithms of factorials and roots part equal
 * statistics by less than 1e-11 (pairs of samples of 100, sums of 100 000 readings). Different ones of tables of that size are more than 1e-9 apart; of a
 * million trials a few outcomes are closer than 1e-8 by coincidence. `ties.test.ts` fails with 0 and with 1e-8.
 */
export const TIE = 1e-10;

/** True for two statistics that are equal but for rounding. `scale`: the size of what they were computed from, where it is not their own. */
export const isTie = (a: number, b: number, scale = Math.max(Math.abs(a), Math.abs(b))): boolean =>
  Math.abs(a - b) <= TIE * scale;

/** The least value that counts as at least `observed`. In loops over replicates it is computed once, before the loop. */
export const leastTie = (observed: number, scale = Math.abs(observed)): number => observed - TIE * scale;

/** The greatest value that counts as at most `observed`. */
export const greatestTie = (observed: number, scale = Math.abs(observed)): number => observed + TIE * scale;

/** The scale of a sum of squares over its expectation, such as χ²: terms of the size of 1 cancel in it, so near 0 its own size is no scale. */
export const scaleOfSum = (sum: number): number => Math.max(1, Math.abs(sum));
