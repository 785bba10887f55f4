import { normalCumulative, normalQuantile, normalSurvival } from '../numeric/standard-normal.js';
import { tailOf, type Alternative, type Interval, type Tails } from './alternative.js';
import { tailsOfSums } from './midrank-sums.js';
import { kthDifference, middleOf } from './pairwise.js';
import { doubledRanks } from './ranks.js';

/** The number of pairs in which the reading of the first group is greater, ties counting half. */
export function mannWhitneyU(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const ranks = doubledRanks([...Array.from(a), ...Array.from(b)]);
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += ranks[i]!;
  return (sum - a.length * (a.length + 1)) / 2;
}

/** The Mann–Whitney test (1947) by the normal approximation, with the variance corrected for ties and a continuity correction. */
export function mannWhitneyByNormal(a: ArrayLike<number>, b: ArrayLike<number>): { statistic: number; tails: Tails } {
  const [m, n] = [a.length, b.length];
  const total = m + n;
  const statistic = mannWhitneyU(a, b);
  const counts = new Map<number, number>();
  for (const x of [...Array.from(a), ...Array.from(b)]) counts.set(x, (counts.get(x) ?? 0) + 1);
  let ties = 0;
  for (const t of counts.values()) ties += t ** 3 - t;
  const sd = Math.sqrt(((m * n) / 12) * (total + 1 - ties / (total * (total - 1))));
  const off = statistic - (m * n) / 2;
  return { statistic, tails: { lower: normalCumulative((off + 0.5) / sd), upper: normalSurvival((off - 0.5) / sd) } };
}

/** Up to this number of pairs the distribution is exact. */
export const MOST_PAIRS = 10_000;

/**
 * The shares of U = 0 … mn among all ways to deal m + n different readings: the coefficients of Gauss' polynomial, a factor (1 − x^(n + i))/(1 − x^i) at a time. From the low end upwards, where they are small
 * whole numbers; the high end mirrors it.
 */
export function sharesWithoutTies(m: number, n: number): Float64Array {
  const most = m * n;
  const half = most >> 1;
  const counts = new Float64Array(half + 1);
  counts[0] = 1;
  for (let i = 1; i <= m; i++) {
    for (let u = half; u >= n + i; u--) counts[u]! -= counts[u - n - i]!;
    for (let u = i; u <= half; u++) counts[u]! += counts[u - i]!;
  }
  let ways = 1;
  for (let i = 1; i <= m; i++) ways = (ways * (n + i)) / i;
  return Float64Array.from({ length: most + 1 }, (_, u) => counts[Math.min(u, most - u)]! / ways);
}

/** True where two of these are equal. */
const hasTies = (sorted: Int32Array) => sorted.some((rank, i) => i > 0 && rank === sorted[i - 1]);

/**
 * The exact Mann–Whitney test: U among all ways to assign the readings to two groups of these sizes, ties included. For at most `MOST_PAIRS` pairs.
 */
export function mannWhitneyExact(a: ArrayLike<number>, b: ArrayLike<number>): { statistic: number; tails: Tails } {
  const [m, n] = [a.length, b.length];
  const ranks = doubledRanks([...Array.from(a), ...Array.from(b)]);
  const sumOf = (from: number, to: number) => ranks.subarray(from, to).reduce((sum, rank) => sum + rank, 0);
  const statistic = (sumOf(0, m) - m * (m + 1)) / 2;
  const sorted = ranks.slice().sort();
  if (!hasTies(sorted)) {
    const shares = sharesWithoutTies(m, n);
    let [lower, upper] = [0, 0];
    for (let u = 0; u <= statistic; u++) lower += shares[u]!;
    for (let u = m * n; u >= statistic; u--) upper += shares[u]!;
    return { statistic, tails: { lower, upper } };
  }
  if (m <= n) return { statistic, tails: tailsOfSums(sorted, m, sumOf(0, m)) };
  const { lower, upper } = tailsOfSums(sorted, n, sumOf(m, m + n));
  return { statistic, tails: { lower: upper, upper: lower } };
}

/** The sorted readings of both. */
const sortedOf = (values: ArrayLike<number>) => Float64Array.from(values).sort();

/** The shift of the first group relative to the second: the median of all pairwise differences (Hodges & Lehmann 1963). */
export function hodgesLehmann(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const [x, y] = [sortedOf(a), sortedOf(b)];
  return middleOf(x.length * y.length, (k) => kthDifference(x, y, k));
}

/** The greatest u with P(U < u) at most the given tail. */
function criticalU(m: number, n: number, tail: number): number {
  if (m * n > MOST_PAIRS) {
    const sd = Math.sqrt((m * n * (m + n + 1)) / 12);
    return Math.max(0, Math.floor((m * n) / 2 + sd * normalQuantile(tail)));
  }
  const shares = sharesWithoutTies(m, n);
  let [u, below] = [0, 0];
  while (u < shares.length && below + shares[u]! <= tail) below += shares[u++]!;
  return u;
}

/**
 * The interval of that shift (Moses 1965; Bauer 1972): the shifts that the Mann–Whitney test does not reject. An end is null if there are too few
 * readings.
 */
export function shiftInterval(
  a: ArrayLike<number>,
  b: ArrayLike<number>,
  confidence: number,
  alternative: Alternative,
): Interval {
  const [x, y] = [sortedOf(a), sortedOf(b)];
  const pairs = x.length * y.length;
  const u = criticalU(x.length, y.length, tailOf(confidence, alternative));
  const end = (k: number) => (u < 1 || k < 1 || k > pairs ? null : kthDifference(x, y, k));
  return {
    lower: alternative === 'less' ? null : end(u),
    upper: alternative === 'greater' ? null : end(pairs + 1 - u),
  };
}
