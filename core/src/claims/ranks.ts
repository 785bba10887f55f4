import { binomial } from '../distributions/families/binomial.js';
import { normalCumulative, normalQuantile, normalSurvival } from '../numeric/standard-normal.js';
import { tailOf, type Alternative, type Interval, type Tails } from './alternative.js';
import { kthWalshMean, middleOf } from './pairwise.js';
import { TIE } from '../numeric/ties.js';

/** The sign test of a median: the numbers of readings above and below the claim; those equal to it are excluded. */
export function signTest(values: ArrayLike<number>, claimed: number): { above: number; below: number; tails: Tails } {
  let [above, below] = [0, 0];
  for (let i = 0; i < values.length; i++) {
    if (values[i]! > claimed) above++;
    else if (values[i]! < claimed) below++;
  }
  const n = above + below;
  if (n === 0) return { above, below, tails: { lower: 1, upper: 1 } };
  const law = binomial.of({ trials: n, probability: 0.5 });
  return { above, below, tails: { lower: law.cumulative(above), upper: law.survival(above - 1) } };
}

/** Ranks of values with mean ranks for ties, doubled so that they are whole. */
export function doubledRanks(values: ArrayLike<number>): Int32Array {
  const order = Array.from(values, (_, i) => i).sort((a, b) => values[a]! - values[b]!);
  const ranks = new Int32Array(values.length);
  for (let from = 0; from < order.length;) {
    let to = from;
    while (to + 1 < order.length && values[order[to + 1]!] === values[order[from]!]) to++;
    for (let k = from; k <= to; k++) ranks[order[k]!] = from + to + 2;
    from = to + 1;
  }
  return ranks;
}

/** The greatest difference that rounding can make between equal values. */
function settledDistances(values: ArrayLike<number>, claimed: number): { distances: Float64Array; signs: Int8Array } {
  const size = Array.from(values).reduce((most, x) => Math.max(most, Math.abs(x)), Math.abs(claimed));
  const step = TIE * size || 1;
  const kept = Array.from(values, (x) => Math.round((x - claimed) / step)).filter((d) => d !== 0);
  return { distances: Float64Array.from(kept, Math.abs), signs: Int8Array.from(kept, Math.sign) };
}

/** The doubled ranks of the distances from a claim, without readings equal to it. */
export const ranksOfDistances = (values: ArrayLike<number>, claimed: number): Int32Array =>
  doubledRanks(settledDistances(values, claimed).distances);

/**
 * The exact signed-rank test of a median (Wilcoxon 1945; with mean ranks Pratt 1959): the sum of the ranks of the distances above the claim against
 * all 2^n assignments of signs, ties included. Readings equal to the claim are excluded. It assumes a symmetric distribution.
 */
export function signedRank(values: ArrayLike<number>, claimed: number): { statistic: number; n: number; tails: Tails } {
  const { distances, signs } = settledDistances(values, claimed);
  const n = distances.length;
  if (n === 0) return { statistic: 0, n, tails: { lower: 1, upper: 1 } };
  const ranks = doubledRanks(distances);
  let sum = 0;
  let most = 0;
  for (let i = 0; i < n; i++) {
    most += ranks[i]!;
    if (signs[i]! > 0) sum += ranks[i]!;
  }
  const chance = new Float64Array(most + 1);
  chance[0] = 1;
  let reach = 0;
  // Each rank goes in or stays out with chance ½.
  for (let i = 0; i < n; i++) {
    const rank = ranks[i]!;
    for (let s = reach; s >= 0; s--) {
      const half = chance[s]! / 2;
      chance[s] = half;
      chance[s + rank]! += half;
    }
    reach += rank;
  }
  let [lower, upper] = [0, 0];
  for (let s = 0; s <= most; s++) {
    if (s <= sum) lower += chance[s]!;
    if (s >= sum) upper += chance[s]!;
  }
  return { statistic: sum / 2, n, tails: { lower, upper } };
}

/** The Kruskal–Wallis statistic (1952), corrected for ties. */
export function kruskalWallis(groups: readonly ArrayLike<number>[]): number {
  const all = groups.flatMap((values) => Array.from(values));
  const ranks = doubledRanks(all);
  const n = all.length;
  let at = 0;
  let sum = 0;
  for (const values of groups) {
    let own = 0;
    for (let i = 0; i < values.length; i++) own += ranks[at++]! / 2;
    sum += own ** 2 / values.length;
  }
  const counts = new Map<number, number>();
  for (const x of all) counts.set(x, (counts.get(x) ?? 0) + 1);
  let ties = 0;
  for (const t of counts.values()) ties += t ** 3 - t;
  return ((12 / (n * (n + 1))) * sum - 3 * (n + 1)) / (1 - ties / (n ** 3 - n));
}

/** Up to this n the signed-rank distribution is exact; above, a normal approximation is used. */
export const MOST_SIGNED_RANKS = 200;

/** The signed-rank test by the normal approximation, with the variance of the mean ranks and a continuity correction (Lehmann 1975). */
export function signedRankByNormal(
  values: ArrayLike<number>,
  claimed: number,
): { statistic: number; n: number; tails: Tails } {
  const { distances, signs } = settledDistances(values, claimed);
  const ranks = doubledRanks(distances);
  let [sum, all, squares] = [0, 0, 0];
  for (let i = 0; i < ranks.length; i++) {
    const rank = ranks[i]! / 2;
    all += rank;
    squares += rank * rank;
    if (signs[i]! > 0) sum += rank;
  }
  const sd = Math.sqrt(squares) / 2;
  const off = sum - all / 2;
  return {
    ...{ statistic: sum, n: ranks.length },
    tails: { lower: normalCumulative((off + 0.5) / sd), upper: normalSurvival((off - 0.5) / sd) },
  };
}

/** The probabilities of the signed-rank sums 0, 1, 2 … of n distances without ties: the coefficients of Π(1 + x^i)/2. */
export function signedRankShares(n: number): Float64Array {
  const shares = new Float64Array((n * (n + 1)) / 2 + 1);
  shares[0] = 1;
  for (let i = 1, reach = 0; i <= n; reach += i++) {
    for (let s = reach; s >= 0; s--) {
      const half = shares[s]! / 2;
      shares[s] = half;
      shares[s + i]! += half;
    }
  }
  return shares;
}

/** The greatest w whose lower tail is at most the given probability. */
function criticalSum(n: number, tail: number): number {
  if (n > MOST_SIGNED_RANKS) {
    const sd = Math.sqrt((n * (n + 1) * (2 * n + 1)) / 24);
    return Math.max(0, Math.floor((n * (n + 1)) / 4 + sd * normalQuantile(tail)));
  }
  const shares = signedRankShares(n);
  let [w, below] = [0, 0];
  while (w < shares.length && below + shares[w]! <= tail) below += shares[w++]!;
  return w;
}

/**
 * The Hodges–Lehmann centre, which corresponds to the signed-rank test: the median of the means of all pairs (Hodges & Lehmann 1963), and the
 * interval of the centres that are not rejected (Tukey 1949).
 */
export function walshCentre(
  values: ArrayLike<number>,
  confidence: number,
  alternative: Alternative,
): { centre: number; interval: Interval } {
  const sorted = Float64Array.from(values).sort();
  const n = sorted.length;
  const pairs = (n * (n + 1)) / 2;
  const w = criticalSum(n, tailOf(confidence, alternative));
  const end = (k: number) => (w < 1 || k < 1 || k > pairs ? null : kthWalshMean(sorted, k));
  return {
    centre: middleOf(pairs, (k) => kthWalshMean(sorted, k)),
    interval: {
      lower: alternative === 'less' ? null : end(w),
      upper: alternative === 'greater' ? null : end(pairs + 1 - w),
    },
  };
}
