import { f } from '../distributions/families/f.js';
import { studentT } from '../distributions/families/student-t.js';

/** Figures of how groups of measurements agree: Cochran's C, and the h and k of ISO 5725-2. Two groups with two readings each at least. */
export const LEAST_GROUPS = 2;
/** With fewer the h of every group is the same. */
export const LEAST_GROUPS_FOR_H = 3;

const ratioLaw = (n: number, groups: number) => f.of({ df1: n - 1, df2: (groups - 1) * (n - 1) });

/** Cochran's C (1941): the greatest variance over the sum of all. */
export function cochran(variances: ArrayLike<number>): { statistic: number; at: number } {
  let [sum, at] = [0, 0];
  for (let i = 0; i < variances.length; i++) {
    sum += variances[i]!;
    if (variances[i]! > variances[at]!) at = i;
  }
  return { statistic: sum > 0 ? variances[at]! / sum : 0, at };
}

/** The share of the sum that a variance has whose ratio to the mean of the others is the upper point of F at a chance ('t Lam 2010, equation 3). */
function shareAt(chance: number, n: number, groups: number): number {
  const ratio = ratioLaw(n, groups).survivalQuantile(chance);
  return ratio / (ratio + groups - 1);
}

/** The critical value of C at a level, of groups with n readings each: C = 1/(1 + (p − 1)/F), F the upper α/p point on n − 1 and (p − 1)(n − 1) degrees of freedom. */
export const cochranCritical = (n: number, groups: number, alpha: number): number => shareAt(alpha / groups, n, groups);

/** p of C by the same formula solved for the level, at most 1: exact where C is above ½, since two variances cannot both be; else an upper bound. */
export function cochranP(statistic: number, n: number, groups: number): { pValue: number; exact: boolean } {
  const ratio = statistic < 1 ? ((groups - 1) * statistic) / (1 - statistic) : Infinity;
  const tail = ratio === Infinity ? 0 : ratioLaw(n, groups).survival(ratio);
  return { pValue: Math.min(1, groups * tail), exact: statistic > 0.5 };
}

/**
 * The critical value of |h| for one group at a level (ISO 5725-2, Mandel's between-group figure): h = (p − 1)·t/√(p(t² + p − 2)), t the upper α/2 point on p − 2
 * degrees of freedom.
 */
export function hCritical(groups: number, alpha: number): number {
  const t = studentT.of({ df: groups - 2, location: 0, scale: 1 }).survivalQuantile(alpha / 2);
  return ((groups - 1) * t) / Math.sqrt(groups * (t * t + groups - 2));
}

/** The critical value of k for one group of n at a level (ISO 5725-2, Mandel's within-group figure): k² is p times the share that its variance has of all. */
export const kCritical = (n: number, groups: number, alpha: number): number =>
  Math.sqrt(groups * shareAt(alpha, n, groups));
