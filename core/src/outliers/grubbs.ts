import { distribution, familyByName } from '../distributions/registry.js';
import { centralMoments } from '../numeric/sums.js';

/** The side on which a reading may be an outlier. Chosen before looking at the readings, as part of the question. */
export type Side = 'either' | 'upper' | 'lower';

export const GRUBBS_LEAST_N = 3;

/** The most extreme reading of a sorted sample by its position, and its distance from the mean in SD. */
export interface Farthest {
  at: number;
  statistic: number;
}

/** Mean and sd, divisor n − 1. */
export function centreAndSpread(values: ArrayLike<number>): { mean: number; sd: number } {
  const { n, mean, s2 } = centralMoments(values);
  return { mean, sd: Math.sqrt(s2 / (n - 1)) };
}

/** The most extreme reading on the tested side; if both ends are equally far, the upper one. */
export function farthest(sorted: Float64Array, mean: number, sd: number, side: Side): Farthest {
  const last = sorted.length - 1;
  const upper = (sorted[last]! - mean) / sd;
  const lower = (mean - sorted[0]!) / sd;
  const isUpper = side === 'upper' || (side === 'either' && upper >= lower);
  return isUpper ? { at: last, statistic: upper } : { at: 0, statistic: lower };
}

/** Grubbs' G (1950): the distance of the most extreme reading from the mean in SD. At least three sorted readings, not all equal. */
export function grubbs(sorted: Float64Array, side: Side): Farthest {
  const { mean, sd } = centreAndSpread(sorted);
  return farthest(sorted, mean, sd, side);
}

/** The greatest possible G of n readings: all others are equal. */
export const greatestScore = (n: number): number => (n - 1) / Math.sqrt(n);

/** The number of tails that share the level: n readings, each on one side or on two. */
const sharesOf = (n: number, side: Side) => (side === 'either' ? 2 * n : n);

const studentT = (df: number) => distribution(familyByName('student-t'), { df });

/**
 * The critical value of G at a level, for any n from 3 on (Grubbs & Beck 1972): ((n − 1)/√n)·√(t²/(n − 2 + t²)) with t the upper α/(2n) point, one-sided α/n, of
 * Student's t on n − 2 degrees of freedom.
 */
export function grubbsCritical(n: number, alpha: number, side: Side): number {
  const t = studentT(n - 2).survivalQuantile(alpha / sharesOf(n, side));
  return greatestScore(n) * Math.sqrt((t * t) / (n - 2 + t * t));
}

/** The p of G by the same formula solved for the level, and whether it is exact or an upper bound. */
export interface FormulaP {
  pValue: number;
  exact: boolean;
}

/**
 * The p of G: the probability that one given reading is so extreme, times the number of readings and sides, at most 1. An upper bound, since two
 * readings can be so extreme at once; exact if they cannot: two on opposite sides need 2G² ≤ n − 1, two on one side 2nG² ≤ (n − 1)(n − 2).
 */
export function grubbsP(statistic: number, n: number, side: Side): FormulaP {
  const g2 = statistic * statistic;
  const twice = side === 'either' ? (n - 1) / 2 : ((n - 1) * (n - 2)) / (2 * n);
  const left = (n - 1) ** 2 - n * g2;
  const t = left > 0 ? Math.sqrt((n * (n - 2) * g2) / left) : Infinity;
  // A farthest reading below the mean cannot be: with n readings on one side G is above 0.
  const tail = t === Infinity ? 0 : studentT(n - 2).survival(statistic < 0 ? -t : t);
  return { pValue: Math.min(1, sharesOf(n, side) * tail), exact: g2 > twice };
}
