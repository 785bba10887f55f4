import { normalCumulative, normalSurvival } from '../numeric/standard-normal.js';
import type { Tails } from './alternative.js';
import { doubledRanks } from './ranks.js';

/** How many pairs of a reading of each group have the first above the second, ties half. */
export function mannWhitneyU(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const ranks = doubledRanks([...Array.from(a), ...Array.from(b)]);
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += ranks[i]!;
  return (sum - a.length * (a.length + 1)) / 2;
}

/** The Mann–Whitney test (1947) by the normal, the variance less for ties, half a step towards the middle for continuity. */
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

/** As many pairs are counted out exactly. */
export const MOST_PAIRS = 10_000;

/** How many equal readings there are of each value, the least first. */
function tieSizes(a: ArrayLike<number>, b: ArrayLike<number>): number[] {
  const all = Float64Array.from([...Array.from(a), ...Array.from(b)]).sort();
  const sizes: number[] = [];
  for (let i = 0; i < all.length; i++)
    if (i > 0 && all[i] === all[i - 1]) sizes[sizes.length - 1]!++;
    else sizes.push(1);
  return sizes;
}

/**
 * The shares of U = 0 … mn among all ways to deal m + n different readings: the coefficients of Gauss' polynomial, a factor (1 − x^(n + i))/(1 − x^i) at a time. From the low end upwards, where they are small
 * whole numbers; the high end mirrors it.
 */
function sharesWithoutTies(m: number, n: number): Float64Array {
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

/**
 * The shares of twice U among all ways to deal the readings, equal ones included: value by value, so many of each going to the first group. `shares[k]` holds those with k dealt to it by then.
 */
function sharesWithTies(sizes: readonly number[], m: number, n: number): Float64Array {
  let shares: (Float64Array | null)[] = [Float64Array.of(1)];
  let done = 0;
  for (const size of sizes) {
    const next: (Float64Array | null)[] = Array.from({ length: Math.min(m, done + size) + 1 }, () => null);
    shares.forEach((own, k) => {
      if (!own) return;
      const others = done - k;
      // Of the readings still to be dealt, j of these go to the first group with the chance of a draw without putting back.
      for (let j = Math.max(0, size - (n - others)); j <= Math.min(size, m - k); j++) {
        const chance = hypergeometricShare(size, j, m - k, n - others);
        const shift = 2 * j * others + j * (size - j);
        const target = (next[k + j] ??= new Float64Array(2 * (k + j) * (done + size - k - j) + 1));
        for (let u = 0; u < own.length; u++) target[u + shift]! += chance * own[u]!;
      }
    });
    shares = next;
    done += size;
  }
  return shares[m]!;
}

/** The chance that j of the next `size` readings belong to the first group, `a` of which and `b` others are still to come. */
function hypergeometricShare(size: number, j: number, a: number, b: number): number {
  let share = 1;
  for (let i = 0; i < j; i++) share *= ((size - i) / (i + 1)) * ((a - i) / (a + b - i));
  for (let i = 0; i < size - j; i++) share *= (b - i) / (a + b - j - i);
  return share;
}

/** The Mann–Whitney test by counting out: U among all ways to deal the readings to two groups of these sizes, ties included. For at most `MOST_PAIRS` pairs. */
export function mannWhitneyExact(a: ArrayLike<number>, b: ArrayLike<number>): { statistic: number; tails: Tails } {
  const statistic = mannWhitneyU(a, b);
  const sizes = tieSizes(a, b);
  const tied = sizes.some((size) => size > 1);
  const shares = tied ? sharesWithTies(sizes, a.length, b.length) : sharesWithoutTies(a.length, b.length);
  const at = tied ? Math.round(2 * statistic) : statistic;
  let [lower, upper] = [0, 0];
  for (let u = 0; u <= at; u++) lower += shares[u]!;
  for (let u = shares.length - 1; u >= at; u--) upper += shares[u]!;
  return { statistic, tails: { lower, upper } };
}

/** By how much the first group lies above the second: the median of all differences of a reading of one and of the other (Hodges & Lehmann 1963). */
export function hodgesLehmann(a: ArrayLike<number>, b: ArrayLike<number>): number {
  const differences = new Float64Array(a.length * b.length);
  let at = 0;
  for (let i = 0; i < a.length; i++) for (let j = 0; j < b.length; j++) differences[at++] = a[i]! - b[j]!;
  differences.sort();
  const half = differences.length >> 1;
  return differences.length % 2 === 1 ? differences[half]! : (differences[half - 1]! + differences[half]!) / 2;
}
