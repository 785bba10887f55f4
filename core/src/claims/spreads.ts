import { chiSquare } from '../distributions/families/chi-square.js';
import { f } from '../distributions/families/f.js';
import { medianOfSorted } from '../describe/quantiles.js';
import { hasNoSpread, magnitudeOf } from '../numeric/no-spread.js';
import { centralMoments } from '../numeric/sums.js';
import type { Tails } from './alternative.js';

/**
 * Test of one SD: (n − 1)s²/σ₀² has a χ² distribution with n − 1 degrees of freedom if the readings are normal. Sensitive to departures from
 * normality.
 */
export function spreadByChiSquare(
  n: number,
  sd: number,
  claimed: number,
): { statistic: number; df: number; tails: Tails } {
  const statistic = (n - 1) * (sd / claimed) ** 2;
  const law = chiSquare.of({ df: n - 1 });
  return { statistic, df: n - 1, tails: { lower: law.cumulative(statistic), upper: law.survival(statistic) } };
}

/** Two SDs: the ratio of the variances has an F distribution if both samples are normal. Sensitive to departures from normality. */
export function spreadsByF(a: { n: number; sd: number }, b: { n: number; sd: number }) {
  const statistic = (a.sd / b.sd) ** 2;
  const law = f.of({ df1: a.n - 1, df2: b.n - 1 });
  const tails: Tails = { lower: law.cumulative(statistic), upper: law.survival(statistic) };
  return { statistic, df: [a.n - 1, b.n - 1] as const, tails };
}

/** An F over groups, with its degrees of freedom. */
export interface GroupsF {
  statistic: number;
  df: readonly [number, number];
  pValue: number;
}

/** One-way analysis of variance (Fisher 1925): the variance of the means relative to that within groups, which is assumed equal. */
export function oneWay(groups: readonly ArrayLike<number>[]): GroupsF {
  const all = groups.map((values) => centralMoments(values));
  const n = all.reduce((sum, one) => sum + one.n, 0);
  const mean = all.reduce((sum, one) => sum + (one.n / n) * one.mean, 0);
  const df = [groups.length - 1, n - groups.length] as const;
  const amid = all.reduce((sum, one) => sum + one.n * (one.mean - mean) ** 2, 0) / df[0];
  const within = all.reduce((sum, one) => sum + one.s2, 0) / df[1];
  const statistic = amid / within;
  return { statistic, df, pValue: f.of({ df1: df[0], df2: df[1] }).survival(statistic) };
}

/**
 * The absolute deviations of each group from its median; null if they differ by no more than rounding in every group: with two readings each they
 * never differ.
 */
export function distancesFromMedians(groups: readonly ArrayLike<number>[]): Float64Array[] | null {
  const distances = groups.map((values) => {
    const median = medianOfSorted(Float64Array.from(values).sort());
    return Float64Array.from(values, (x) => Math.abs(x - median));
  });
  const magnitude = magnitudeOf(...groups);
  return distances.every((own) => hasNoSpread(own, magnitude)) ? null : distances;
}

/**
 * Equality of variances by the absolute deviations from group medians (Brown & Forsythe 1974): hardly sensitive to departures from normality. NaN if
 * the deviations within groups do not differ.
 */
export function brownForsythe(groups: readonly ArrayLike<number>[]): GroupsF {
  const distances = distancesFromMedians(groups);
  return distances ? oneWay(distances) : { statistic: NaN, df: [groups.length - 1, NaN], pValue: NaN };
}
