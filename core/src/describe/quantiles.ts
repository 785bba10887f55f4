/** The nine definitions of a sample quantile by Hyndman & Fan (1996), and the medians of the halves (Tukey 1977: hinges), which give quartiles only. */
export const QUANTILE_TYPES = [1, 2, 3, 4, 5, 6, 7, 8, 9, 'hinges'] as const;
export type QuantileType = (typeof QUANTILE_TYPES)[number];

/** A proportion that misses a whole rank only by rounding counts as that rank. */
const DUST = 4 * Number.EPSILON;

/** A place among ranks: at rank `at` (from 1; 0 and n are the ends) and a part `beyond` of the way to the next. */
export interface Rank {
  at: number;
  beyond: number;
}

/** The position of a proportion among n ranks. */
function rankOf(n: number, share: number, type: Exclude<QuantileType, 'hinges'>): Rank {
  const shift = [0, 0, -0.5, 0, 0.5, share, 1 - share, (share + 1) / 3, share / 4 + 0.375][type - 1]!;
  const exact = n * share + shift;
  const dust = DUST * (1 + Math.abs(exact));
  const at = Math.floor(exact + dust);
  const rest = exact - at;
  if (type > 3) return { at, beyond: Math.abs(rest) < dust ? 0 : rest };
  const met = Math.abs(rest) < dust;
  if (type === 1) return { at, beyond: met ? 0 : 1 };
  if (type === 2) return { at, beyond: met ? 0.5 : 1 };
  return { at, beyond: met && at % 2 === 0 ? 0 : 1 };
}

function valueAt(sorted: Float64Array, { at, beyond }: Rank): number {
  const n = sorted.length;
  const low = sorted[Math.min(n - 1, Math.max(0, at - 1))]!;
  const high = sorted[Math.min(n - 1, Math.max(0, at))]!;
  return beyond === 0 || low === high ? low : beyond === 1 ? high : low + beyond * (high - low);
}

/**
 * The quantile of readings in rising order (not empty) at a share from 0 to 1, by a definition of Hyndman & Fan (1996, table 1 and
 * definitions 1 to 9).
 */
export function quantileOfSorted(
  sorted: Float64Array,
  share: number,
  type: Exclude<QuantileType, 'hinges'> = 7,
): number {
  return valueAt(sorted, rankOf(sorted.length, share, type));
}

/** The middle reading, or the mean of the two middle ones. */
export function medianOfSorted(sorted: Float64Array): number {
  const n = sorted.length;
  const half = n >> 1;
  if (n % 2 === 1) return sorted[half]!;
  const [low, high] = [sorted[half - 1]!, sorted[half]!];
  return low + (high - low) / 2;
}

/** The position of the quantile of n readings at a proportion, within 1 … n: a fraction `beyond` of the way from rank `at` to the next. */
export function quantileRank(n: number, share: number, type: Exclude<QuantileType, 'hinges'> = 7): Rank {
  return withinRanks(rankOf(n, share, type), n);
}

function withinRanks({ at, beyond }: Rank, n: number): Rank {
  if (at < 1) return { at: 1, beyond: 0 };
  if (at >= n) return { at: n, beyond: 0 };
  return beyond === 1 ? { at: at + 1, beyond: 0 } : { at, beyond };
}

/** The positions of the quartiles of n readings, within 1 … n. With hinges the halves share the middle reading if n is odd. */
export function quartileRanks(n: number, type: QuantileType): [q1: Rank, q3: Rank] {
  if (type === 'hinges') {
    const half = (n + 1) >> 1;
    const middle: Rank = { at: (half + 1) >> 1, beyond: half % 2 === 0 ? 0.5 : 0 };
    return [middle, { at: middle.at + n - half, beyond: middle.beyond }];
  }
  return [quantileRank(n, 0.25, type), quantileRank(n, 0.75, type)];
}

/** First and third quartile of readings in rising order (not empty). */
export function quartilesOfSorted(sorted: Float64Array, type: QuantileType): [q1: number, q3: number] {
  const [q1, q3] = quartileRanks(sorted.length, type);
  return [valueAt(sorted, q1), valueAt(sorted, q3)];
}
