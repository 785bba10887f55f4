import { binomial } from '../distributions/families/binomial.js';
import { nextBelow } from '../random/whole.js';
import { nextOpenUnit, type StreamState } from '../random/stream.js';
import { leastTie, scaleOfSum } from '../numeric/ties.js';

/** Counts of n against shares, all above 0, and their χ². */
export interface CountsReplicates {
  n: number;
  shares: readonly number[];
  observed: number;
}

/** One by one the counts of this many are drawn as fast as they are dealt. */
const DEALT = 40;

/** Fills `counts` with n dealt to places with these shares: one by one, or place by place what a binomial leaves. */
export function dealerOf({
  n,
  shares,
}: Pick<CountsReplicates, 'n' | 'shares'>): (state: StreamState, counts: Float64Array) => void {
  const last = shares.length - 1;
  if (n <= DEALT * shares.length) {
    const upTo = new Float64Array(shares.length);
    shares.reduce((sum, share, i) => (upTo[i] = sum + share), 0);
    return (state, counts) => {
      counts.fill(0);
      for (let i = 0; i < n; i++) {
        const u = nextOpenUnit(state);
        let at = 0;
        while (at < last && u > upTo[at]!) at++;
        counts[at]!++;
      }
    };
  }
  // Of what is left over from this place on.
  const remaining = shares.map((_, i) => shares.slice(i).reduce((a, b) => a + b, 0));
  const one = new Float64Array(1);
  return (state, counts) => {
    let left = n;
    for (let i = 0; i < last; i++) {
      const probability = Math.min(1, shares[i]! / remaining[i]!);
      if (left === 0 || probability >= 1) one[0] = left;
      else binomial.of({ trials: left, probability }).sample(state, one);
      counts[i] = one[0]!;
      left -= one[0]!;
    }
    counts[last] = left;
  };
}

/** The number of simulated tables with a χ² of at least the observed one. */
export function tallyCountsAgainst(input: CountsReplicates, state: StreamState, replicates: number): Float64Array {
  const { n, shares, observed } = input;
  const deal = dealerOf(input);
  const counts = new Float64Array(shares.length);
  const weights = Float64Array.from(shares, (share) => 1 / (n * share));
  const limit = leastTie(observed, scaleOfSum(observed));
  let far = 0;
  for (let r = 0; r < replicates; r++) {
    deal(state, counts);
    // Σ(count − expected)²/expected = Σcount²/expected − n.
    let chi = -n;
    for (let i = 0; i < counts.length; i++) chi += counts[i]! * counts[i]! * weights[i]!;
    if (chi >= limit) far++;
  }
  return Float64Array.of(far);
}

/** A table with these totals, and its χ². */
export interface TableReplicates {
  rows: readonly number[];
  columns: readonly number[];
  observed: number;
}

/** χ² of random tables with the same totals and independent rows and columns: the column labels of all items are shuffled. */
export function permutedTables(
  { rows, columns }: Omit<TableReplicates, 'observed'>,
  state: StreamState,
  replicates: number,
): Float64Array {
  const n = rows.reduce((a, b) => a + b, 0);
  const items = new Int32Array(n);
  let at = 0;
  columns.forEach((count, j) => items.fill(j, at, (at += count)));
  const counts = new Float64Array(columns.length);
  return Float64Array.from({ length: replicates }, () => {
    let place = 0;
    let sum = 0;
    for (const row of rows) {
      counts.fill(0);
      for (let k = 0; k < row; k++, place++) {
        const other = place + nextBelow(state, n - place);
        const item = items[other]!;
        items[other] = items[place]!;
        items[place] = item;
        counts[item]!++;
      }
      for (let j = 0; j < counts.length; j++) sum += (counts[j]! * counts[j]!) / (row * columns[j]!);
    }
    // χ² = n·(Σ count²/(row·column) − 1).
    return n * (sum - 1);
  });
}

/** The number of them with a χ² of at least the observed one. */
export function tallyTables(input: TableReplicates, state: StreamState, replicates: number): Float64Array {
  const limit = leastTie(input.observed, scaleOfSum(input.observed));
  return Float64Array.of(permutedTables(input, state, replicates).reduce((far, chi) => far + Number(chi >= limit), 0));
}

/** Ranks, doubled, of the readings of several groups one after the other, and their Kruskal–Wallis statistic up to what all orders share. */
export interface RankReplicates {
  ranks: readonly number[];
  sizes: readonly number[];
  observed: number;
}

/** Σ (sum of ranks)²/n over groups: the statistic of Kruskal & Wallis but for what no shuffle changes. */
export function rankSumsOf(ranks: ArrayLike<number>, sizes: readonly number[]): number {
  let at = 0;
  let total = 0;
  for (const size of sizes) {
    let sum = 0;
    for (let k = 0; k < size; k++) sum += ranks[at++]!;
    total += (sum * sum) / size;
  }
  return total;
}

/** The number of random assignments of the ranks to the groups with a statistic of at least the observed one. */
export function tallyRanks({ ranks, sizes, observed }: RankReplicates, state: StreamState, replicates: number) {
  const items = Float64Array.from(ranks);
  const limit = leastTie(observed, scaleOfSum(observed));
  let far = 0;
  for (let r = 0; r < replicates; r++) {
    for (let i = items.length - 1; i > 0; i--) {
      const other = nextBelow(state, i + 1);
      const item = items[other]!;
      items[other] = items[i]!;
      items[i] = item;
    }
    if (rankSumsOf(items, sizes) >= limit) far++;
  }
  return Float64Array.of(far);
}
