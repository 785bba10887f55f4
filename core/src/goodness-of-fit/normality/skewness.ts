import { log } from '../../numeric/elementary.js';
import { normalSurvival } from '../../numeric/standard-normal.js';

export interface MomentTest {
  z: number;
  /** Two-sided. */
  pValue: number;
}

/** The least n of D'Agostino's score. */
export const SKEWNESS_LEAST_N = 8;

/** D'Agostino's (1970) score Z(√b1) of the skewness √b1 = g1 of n ≥ 8 readings: Johnson's S_U approximation, equations (2) to (5). */
export function skewnessScore(g1: number, n: number): number {
  const y = g1 * Math.sqrt(((n + 1) * (n + 3)) / (6 * (n - 2)));
  const beta2 = (3 * (n * n + 27 * n - 70) * (n + 1) * (n + 3)) / ((n - 2) * (n + 5) * (n + 7) * (n + 9));
  const w2 = -1 + Math.sqrt(2 * (beta2 - 1));
  const delta = 1 / Math.sqrt(log(w2) / 2);
  const alpha = Math.sqrt(2 / (w2 - 1));
  const x = y / alpha;
  // An odd function of x, from the side where the logarithm loses nothing.
  return Math.sign(x) * delta * log(Math.abs(x) + Math.sqrt(x * x + 1));
}

/** The two-sided test of the skewness by that score; null below n = 8. */
export function skewnessTest(g1: number, n: number): MomentTest | null {
  if (n < SKEWNESS_LEAST_N) return null;
  const z = skewnessScore(g1, n);
  return { z, pValue: Math.min(1, 2 * normalSurvival(Math.abs(z))) };
}
