import { normalSurvival } from '../../numeric/standard-normal.js';
import { root } from '../../numeric/elementary.js';
import type { MomentTest } from './skewness.js';

/** Anscombe & Glynn's (1983) score Z(b2) of the kurtosis b2 = g2 + 3 of n ≥ 4 readings: the cube root of a scaled b2, near normal from n = 20 on. */
export function kurtosisScore(g2: number, n: number): number {
  const mean = (3 * (n - 1)) / (n + 1);
  const variance = (24 * n * (n - 2) * (n - 3)) / ((n + 1) * (n + 1) * (n + 3) * (n + 5));
  const x = (g2 + 3 - mean) / Math.sqrt(variance);
  const third =
    ((6 * (n * n - 5 * n + 2)) / ((n + 7) * (n + 9))) * Math.sqrt((6 * (n + 3) * (n + 5)) / (n * (n - 2) * (n - 3)));
  const a = 6 + (8 / third) * (2 / third + Math.sqrt(1 + 4 / (third * third)));
  const ratio = (1 - 2 / a) / (1 + x * Math.sqrt(2 / (a - 4)));
  return (1 - 2 / (9 * a) - Math.sign(ratio) * root(Math.abs(ratio), 3)) / Math.sqrt(2 / (9 * a));
}

/** The two-sided test of the kurtosis by that score; null below n = 20, where the approximation is not good enough. */
export function kurtosisTest(g2: number, n: number): MomentTest | null {
  if (n < 20) return null;
  const z = kurtosisScore(g2, n);
  return { z, pValue: Math.min(1, 2 * normalSurvival(Math.abs(z))) };
}
