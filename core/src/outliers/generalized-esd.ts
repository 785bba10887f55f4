import { distribution, familyByName } from '../distributions/registry.js';
import { centreAndSpread, farthest, type Side } from './grubbs.js';

/** One step: the most extreme of the remaining readings, in their SD, and the critical value. */
export interface EsdStep {
  statistic: number;
  critical: number;
  /** Its place in the whole sample in rising order. */
  at: number;
}

export interface EsdResult {
  steps: EsdStep[];
  /** The number of flagged readings: the last step whose statistic is above its critical value. A second outlier therefore cannot mask the first. */
  count: number;
}

/** At least two readings must remain after the steps, and t needs a degree of freedom. */
export const mostSteps = (n: number): number => Math.max(0, n - 3);
export const ESD_LEAST_N = 4;

/**
 * Below this n Rosner's critical values are slightly too small for several outliers: with 25 readings and up to three outliers, nearly 6 % of clean
 * samples are flagged at a level of 5 %.
 */
export const APPROXIMATE_BELOW = 50;

const studentT = (df: number) => distribution(familyByName('student-t'), { df });

/**
 * The critical value of step i of n (Rosner 1983): (n − i)·t/√((n − i − 1 + t²)(n − i + 1)), t the upper α/(2(n − i + 1)) point on n − i − 1 degrees of freedom;
 * one-sided α/(n − i + 1).
 */
export function esdCritical(n: number, i: number, alpha: number, side: Side): number {
  const left = n - i;
  const tails = (side === 'either' ? 2 : 1) * (left + 1);
  const t = studentT(left - 1).survivalQuantile(alpha / tails);
  return (left * t) / Math.sqrt((left - 1 + t * t) * (left + 1));
}

/**
 * Rosner's generalised extreme studentised deviate (1983): the most extreme reading is removed, then the most extreme of the remaining ones, and so
 * on. The readings are sorted, so that those that remain are contiguous. The steps end early if the remaining readings are equal.
 */
export function generalizedEsd(sorted: Float64Array, most: number, alpha: number, side: Side): EsdResult {
  const n = sorted.length;
  const steps: EsdStep[] = [];
  let [from, to] = [0, n];
  for (let i = 1; i <= Math.min(most, mostSteps(n)); i++) {
    const rest = sorted.subarray(from, to);
    if (!(rest[rest.length - 1]! > rest[0]!)) break;
    const { mean, sd } = centreAndSpread(rest);
    const { at, statistic } = farthest(rest, mean, sd, side);
    steps.push({ statistic, critical: esdCritical(n, i, alpha, side), at: from + at });
    if (at === 0) from++;
    else to--;
  }
  let count = 0;
  steps.forEach(({ statistic, critical }, i) => {
    if (statistic > critical) count = i + 1;
  });
  return { steps, count };
}

/** The ends from which the readings of the flagged steps were removed. */
export function endsOf({ steps, count }: EsdResult): { low: number; high: number } {
  let low = 0;
  for (const { at } of steps.slice(0, count)) if (at === low) low++;
  return { low, high: count - low };
}
