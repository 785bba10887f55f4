import { distribution, familyByName } from '../distributions/registry.js';
import { centreAndSpread, farthest, type Side } from './grubbs.js';

/** One step: the farthest of those that are left, in sd of these, and the value it is held against. */
export interface EsdStep {
  statistic: number;
  critical: number;
  /** Its place in the whole sample in rising order. */
  at: number;
}

export interface EsdResult {
  steps: EsdStep[];
  /** How many are named: the last step whose statistic is above its critical value. A second outlier cannot hide behind the first. */
  count: number;
}

/** Of the steps at least two readings must be left, and t needs a degree of freedom. */
export const mostSteps = (n: number): number => Math.max(0, n - 3);
export const ESD_LEAST_N = 4;

/** Of fewer readings Rosner's values are a little too small for several: of 25 up to three are named in nearly 6 % of clean samples at a level of 5 %. */
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
 * Rosner's generalised extreme studentised deviate (1983): the farthest reading is taken away, the next farthest of the rest, and so on. Readings in rising order, so
 * that what is left stays a stretch of them. Steps end early where what is left has no spread.
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

/** From which ends the readings of the named steps go. */
export function endsOf({ steps, count }: EsdResult): { low: number; high: number } {
  let low = 0;
  for (const { at } of steps.slice(0, count)) if (at === low) low++;
  return { low, high: count - low };
}
