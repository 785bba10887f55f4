import { studentT } from '../distributions/families/student-t.js';
import type { Alternative } from './alternative.js';
import { noncentralT } from './noncentral-t.js';
import { leastNoticed, leastReadings, USUAL_CHANCE } from './noticing.js';

/** The design of a t test for power: degrees of freedom, and the number of standard errors in a difference of one SD. */
export interface TDesign {
  df: number;
  /** √n for one mean or pairs; √(n₁n₂/(n₁ + n₂)) for two groups with equal variances. */
  perSd: number;
}

export const designOfOne = (n: number): TDesign => ({ df: n - 1, perSd: Math.sqrt(n) });
export const designOfTwo = (n: number, m: number): TDesign => ({ df: n + m - 2, perSd: Math.sqrt((n * m) / (n + m)) });

/** The power of a t test for a true difference in SD at a level: exact, by the noncentral t (Johnson & Welch 1940). */
export function powerOfT({ df, perSd }: TDesign, difference: number, alpha: number, alternative: Alternative): number {
  const student = studentT.of({ df, location: 0, scale: 1 });
  const law = noncentralT(df, difference * perSd);
  if (alternative === 'greater') return law.survival(student.survivalQuantile(alpha));
  if (alternative === 'less') return law.cumulative(student.quantile(alpha));
  const limit = student.survivalQuantile(alpha / 2);
  return law.survival(limit) + law.cumulative(-limit);
}

/** The difference in SD that is detected with a given power, on the side of the alternative. */
export function smallestNoticeable(
  design: TDesign,
  alpha: number,
  alternative: Alternative,
  chance = USUAL_CHANCE,
): number | null {
  const sign = alternative === 'less' ? -1 : 1;
  const found = leastNoticed((d) => powerOfT(design, sign * d, alpha, alternative), { chance });
  return found === null ? null : sign * found;
}

/**
 * The smallest n with a given power for a difference in SD; null above a million. `design` makes a test of n (readings, pairs, or readings per
 * group).
 */
export const readingsNeeded = (
  design: (n: number) => TDesign,
  difference: number,
  alpha: number,
  alternative: Alternative,
  chance = USUAL_CHANCE,
): number | null => leastReadings((n) => powerOfT(design(n), difference, alpha, alternative), 2, chance);
