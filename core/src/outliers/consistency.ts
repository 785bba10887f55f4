import { f } from '../distributions/families/f.js';
import { studentT } from '../distributions/families/student-t.js';
import { fillGammas } from '../random/gamma.js';
import type { StreamState } from '../random/stream.js';

/** The consistency of groups of measurements: Cochran's C, and the h and k of ISO 5725-2. With two groups h is the same for both. */
export const LEAST_GROUPS_FOR_H = 3;

/** Cochran's C (1941): the greatest variance over the sum of all; 0 where no group has any spread. */
export function cochran(variances: ArrayLike<number>): { statistic: number; at: number } {
  let [sum, at] = [0, 0];
  for (let i = 0; i < variances.length; i++) {
    sum += variances[i]!;
    if (variances[i]! > variances[at]!) at = i;
  }
  return { statistic: sum > 0 ? variances[at]! / sum : 0, at };
}

const ratioLaw = (own: number, others: number) => f.of({ df1: own, df2: others });

/** The critical value of C at a level, of groups with n readings each: C = 1/(1 + (p − 1)/F), F the upper α/p point on n − 1 and (p − 1)(n − 1) degrees of freedom ('t Lam 2010, equation 3). */
export function cochranCritical(n: number, groups: number, alpha: number): number {
  const ratio = ratioLaw(n - 1, (groups - 1) * (n - 1)).survivalQuantile(alpha / groups);
  return ratio / (ratio + groups - 1);
}

/**
 * The p of C by the same formula solved for the level, at most 1: exact for C above ½, since two variances cannot both exceed it; else an upper
 * bound.
 */
export function cochranP(statistic: number, n: number, groups: number): { pValue: number; exact: boolean } {
  const ratio = statistic < 1 ? ((groups - 1) * statistic) / (1 - statistic) : Infinity;
  const tail = ratio === Infinity ? 0 : ratioLaw(n - 1, (groups - 1) * (n - 1)).survival(ratio);
  return { pValue: Math.min(1, groups * tail), exact: statistic > 0.5 };
}

/** Simulated C of clean groups of these sizes: variances of normal samples, each a gamma draw. */
export function simulateCochran({ sizes }: { sizes: readonly number[] }, state: StreamState, replicates: number) {
  const greatest = new Float64Array(replicates);
  const sum = new Float64Array(replicates);
  const drawn = new Float64Array(replicates);
  for (const n of sizes) {
    fillGammas(state, (n - 1) / 2, drawn);
    for (let r = 0; r < replicates; r++) {
      const variance = drawn[r]! / (n - 1);
      sum[r]! += variance;
      if (variance > greatest[r]!) greatest[r] = variance;
    }
  }
  for (let r = 0; r < replicates; r++) greatest[r]! /= sum[r]!;
  return greatest;
}

/**
 * The critical value of |h|, the distance of one group mean from the mean of all group means in their SD, at a level (ISO 5725-2; Mandel): (p −
 * 1)·t/√(p(t² + p − 2)), t the upper α/2 point on p − 2 degrees of freedom.
 */
export function hCritical(groups: number, alpha: number): number {
  const t = studentT.of({ df: groups - 2, location: 0, scale: 1 }).survivalQuantile(alpha / 2);
  return ((groups - 1) * t) / Math.sqrt(groups * (t * t + groups - 2));
}

/**
 * The critical value of k, the sd of one group over the pooled sd, at a level (ISO 5725-2; Mandel): k² = F·ν/(ν₁F + ν − ν₁), F the upper α point on ν₁ degrees of
 * freedom of its own and ν − ν₁ of the others. With groups alike k² = p·F/(F + p − 1).
 */
export function kCritical(own: number, total: number, alpha: number): number {
  const ratio = ratioLaw(own, total - own).survivalQuantile(alpha);
  return Math.sqrt((ratio * total) / (own * ratio + total - own));
}
