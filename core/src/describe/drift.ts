import { studentT } from '../distributions/families/student-t.js';
import type { Ordered } from '../numeric/ordered.js';

/** A test for a trend of the readings over the row order. */
export interface Drift {
  /** Spearman's rank correlation of reading and row. */
  correlation: number;
  pValue: number;
}

/** Below this n the t distribution is a poor approximation to the permutation distribution. */
export const DRIFT_LEAST_N = 10;

/**
 * Spearman's (1904) rank correlation with the row order, ties at their mean rank, and its two-sided p by Student's t with n − 2 degrees of freedom
 * (Kendall & Gibbons 1990, section 4.14; at n = 10 within 0.005 of the exact p where that is below 0.2). Null for n < 10 or equal readings.
 */
export function driftOf({ sorted, order }: Ordered): Drift | null {
  const n = sorted.length;
  if (n < DRIFT_LEAST_N || sorted[0] === sorted[n - 1]) return null;
  const middle = (n - 1) / 2;
  let products = 0;
  let squares = 0;
  for (let from = 0; from < n;) {
    let to = from + 1;
    while (to < n && sorted[to] === sorted[from]) to++;
    const rank = (from + to - 1) / 2 - middle;
    let places = 0;
    for (let k = from; k < to; k++) places += order[k]! - middle;
    products += rank * places;
    squares += rank * rank * (to - from);
    from = to;
  }
  const rowSquares = (n * (n * n - 1)) / 12;
  const correlation = Math.max(-1, Math.min(1, products / Math.sqrt(squares * rowSquares)));
  const rest = 1 - correlation * correlation;
  if (rest < 1e-15) return { correlation, pValue: 2 / factorial(n) };
  const t = Math.abs(correlation) * Math.sqrt((n - 2) / rest);
  return { correlation, pValue: Math.min(1, 2 * studentT.of({ df: n - 2, location: 0, scale: 1 }).survival(t)) };
}

/** All rows in order: one of n! permutations on either side. */
function factorial(n: number): number {
  let product = 1;
  for (let i = 2; i <= n && product < 1e290; i++) product *= i;
  return product;
}
