import { drawOf } from '../goodness-of-fit/normality/anderson-darling-simulation.js';
import type { RoundedNormal } from '../goodness-of-fit/rounded-normal.js';
import { normalCumulative, normalQuantile } from '../numeric/standard-normal.js';
import { createSorter } from '../numeric/sort.js';
import { standardise } from '../numeric/standardise.js';
import type { StreamState } from '../random/stream.js';

/** Beyond this many readings the band is calibrated at chosen ranks: all in the tails, evenly on the plot between. */
const ALL_RANKS = 200;
const TAIL_RANKS = 40;

/** The ranks (from 0, rising) at which the band of n readings is taken; symmetric. */
export function bandRanks(n: number): number[] {
  if (n <= ALL_RANKS) return Array.from({ length: n }, (_, i) => i);
  const ranks = new Set<number>();
  for (let i = 0; i < TAIL_RANKS; i++) ranks.add(i).add(n - 1 - i);
  const from = normalQuantile((TAIL_RANKS - 0.5) / n);
  const steps = ALL_RANKS - 2 * TAIL_RANKS;
  for (let k = 1; k < steps; k++) {
    const z = from * (1 - (2 * k) / steps);
    const rank = Math.min(n - 1, Math.max(0, Math.round(normalCumulative(z) * n - 0.5)));
    ranks.add(rank).add(n - 1 - rank);
  }
  return [...ranks].sort((a, b) => a - b);
}

export interface BandReplicates {
  n: number;
  ranks: number[];
  /** Rounded to whole steps of such a normal, where the steps are coarse; null: not rounded. */
  rounding: RoundedNormal | null;
}

/** Ordered normal samples standardised by their own mean and sd (n − 1), at the given ranks, one replicate after another. */
export function simulateOrderedScores(
  { n, ranks, rounding }: BandReplicates,
  state: StreamState,
  replicates: number,
): Float64Array {
  const values = new Float64Array(n);
  const sort = createSorter(n);
  const fill = drawOf('normal', rounding);
  const at = Int32Array.from(ranks);
  const width = at.length;
  const out = new Float64Array(replicates * width);
  for (let r = 0; r < replicates; r++) {
    fill(values, state);
    standardise(values);
    sort(values);
    for (let j = 0; j < width; j++) out[r * width + j] = values[at[j]!]!;
  }
  return out;
}

export interface Band {
  ranks: number[];
  /** In sds about the fitted mean, one for each rank. */
  lower: number[];
  upper: number[];
  /** The proportion of replicates that lie entirely inside: at least the confidence, unless there are too few replicates. */
  coverage: number;
}

function columnsOf(chunks: readonly Float64Array[], width: number, replicates: number): Float64Array[] {
  const columns = Array.from({ length: width }, () => new Float64Array(replicates));
  let row = 0;
  for (const chunk of chunks) {
    for (let r = 0; r < chunk.length / width; r++, row++) {
      for (let j = 0; j < width; j++) columns[j]![row] = chunk[r * width + j]!;
    }
  }
  return columns;
}

/** A band in the unit of the readings, at some of the ranks of a sorted sample. */
export interface PlottedBand {
  ranks: readonly number[];
  lower: readonly number[];
  upper: readonly number[];
}

/** A hair of tolerance, in sds: with three readings the greatest standard score is a bound that rounding may cross. */
const SLACK = 1e-12;

/** The indices of the sorted readings outside the band. Between two ranks the limits are linear in the score, as drawn. */
export function outsideBand(
  readings: ArrayLike<number>,
  scores: ArrayLike<number>,
  { ranks, lower, upper }: PlottedBand,
  sd: number,
): number[] {
  const outside: number[] = [];
  let j = 0;
  for (let i = 0; i < readings.length; i++) {
    while (j + 2 < ranks.length && ranks[j + 1]! < i) j++;
    const [from, to] = [ranks[j]!, ranks[Math.min(j + 1, ranks.length - 1)]!];
    const t = to === from ? 0 : (scores[i]! - scores[from]!) / (scores[to]! - scores[from]!);
    const k = Math.min(j + 1, ranks.length - 1);
    const low = lower[j]! + t * (lower[k]! - lower[j]!);
    const high = upper[j]! + t * (upper[k]! - upper[j]!);
    if (readings[i]! < low - SLACK * sd || readings[i]! > high + SLACK * sd) outside.push(i);
  }
  return outside;
}

/**
 * The simultaneous band with equal local levels (Aldor-Noiman, Buja, Rolke & Stine 2013, in idea): at every rank it runs from the
 * k-th least to the k-th greatest replicate, with the largest k that keeps the wanted share of whole replicates inside. A replicate
 * is judged by the others (without it, the k-th least is one further), so the coverage is that of a new sample, of rounded readings too.
 */
export function calibrateBand(chunks: readonly Float64Array[], ranks: readonly number[], confidence: number): Band {
  const width = ranks.length;
  const replicates = chunks.reduce((sum, chunk) => sum + chunk.length, 0) / width;
  const columns = columnsOf(chunks, width, replicates);
  const sorted = columns.map((column) => Float64Array.from(column).sort());
  // The ends of a uniform are those of its readings: no replicate differs there from another.
  const still = sorted.map((column) => column[0] === column[replicates - 1]);
  const inside = (k: number): number => {
    let count = 0;
    const low = sorted.map((column) => column[k]!);
    const high = sorted.map((column) => column[replicates - 1 - k]!);
    for (let r = 0; r < replicates; r++) {
      let j = 0;
      while (j < width && (still[j] || (columns[j]![r]! >= low[j]! && columns[j]![r]! <= high[j]!))) j++;
      if (j === width) count++;
    }
    return count / replicates;
  };
  let best = 1;
  let above = Math.floor(replicates / 2);
  while (best + 1 < above) {
    const middle = (best + above) >> 1;
    if (inside(middle) >= confidence) best = middle;
    else above = middle;
  }
  return {
    ranks: [...ranks],
    lower: sorted.map((column) => column[best - 1]!),
    upper: sorted.map((column) => column[replicates - best]!),
    coverage: inside(best),
  };
}
