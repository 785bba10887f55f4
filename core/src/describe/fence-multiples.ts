import { normalQuantile } from '../numeric/standard-normal.js';
import { fillGammas } from '../random/gamma.js';
import { createStream, type StreamState } from '../random/stream.js';
import { quartileRanks, type QuantileType, type Rank } from './quantiles.js';

/** The distance of a reading beyond the nearer quartile in interquartile ranges; negative between the quartiles. */
export function fenceMultiple(value: number, [q1, q3]: readonly [number, number]): number {
  return Math.max(q1 - value, value - q3) / (q3 - q1);
}

/**
 * The same for the most extreme of sorted readings with a known resolution, allowing for rounding: the reading may be half a step less extreme than
 * written, and each quartile half a step further out.
 */
export function farthestMultiple(sorted: ArrayLike<number>, [q1, q3]: readonly [number, number], step: number): number {
  return (Math.max(q1 - sorted[0]!, sorted[sorted.length - 1]! - q3) - step) / (q3 - q1 + step);
}

const REPLICATES = 5_000;
/** A fixed seed: the probabilities are the same everywhere. */
const SEED = 20_250_901;
const LEAST_N = 4;
const MOST_KEPT = 64;
const kept = new Map<string, Float64Array>();

/** The normal scores of the order statistics at these ranks of n uniform draws, by sums of gammas (Devroye 1986, ch. V, theorem 2.2): the cost does not grow with n. */
function scoresAt(ranks: readonly number[], n: number, stream: StreamState): Float64Array[] {
  const gaps = [...ranks, n + 1].map((rank, i) => {
    const gap = new Float64Array(REPLICATES);
    fillGammas(stream, rank - (ranks[i - 1] ?? 0), gap);
    return gap;
  });
  const scores = ranks.map(() => new Float64Array(REPLICATES));
  for (let r = 0; r < REPLICATES; r++) {
    let total = 0;
    for (const gap of gaps) total += gap[r]!;
    let below = 0;
    for (let i = 0; i < ranks.length; i++) {
      below += gaps[i]![r]!;
      let above = 0;
      for (let k = i + 1; k < gaps.length; k++) above += gaps[k]![r]!;
      scores[i]![r] = below < above ? normalQuantile(below / total) : -normalQuantile(above / total);
    }
  }
  return scores;
}

/**
 * For 5 000 normal samples of n in rising order: the distance of the most extreme reading beyond the quartiles in interquartile ranges; null below n
 * = 4. It gives the proportion of clean samples with a reading outside a fence.
 */
export function fenceMultiples(n: number, type: QuantileType): Float64Array | null {
  if (n < LEAST_N) return null;
  const key = `${n} ${type}`;
  const known = kept.get(key);
  if (known) return known;
  const quartiles = quartileRanks(n, type);
  const ends = ({ at, beyond }: Rank) => (beyond === 0 ? [at] : [at, at + 1]);
  const ranks = [...new Set([1, ...quartiles.flatMap(ends), n])].sort((a, b) => a - b);
  const scores = scoresAt(ranks, n, createStream(SEED, n));
  const of = (rank: number) => scores[ranks.indexOf(rank)]!;
  const quartile = ({ at, beyond }: Rank, r: number) =>
    beyond === 0 ? of(at)[r]! : of(at)[r]! * (1 - beyond) + of(at + 1)[r]! * beyond;
  const multiples = Float64Array.from({ length: REPLICATES }, (_, r) => {
    const [q1, q3] = [quartile(quartiles[0], r), quartile(quartiles[1], r)];
    return Math.max(fenceMultiple(of(1)[r]!, [q1, q3]), fenceMultiple(of(n)[r]!, [q1, q3]));
  }).sort();
  if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!);
  kept.set(key, multiples);
  return multiples;
}

/**
 * The proportion of normal samples of n whose most extreme reading is at least this many interquartile ranges beyond a quartile; null below n = 4.
 */
export function shareBeyond(multiple: number, n: number, type: QuantileType): number | null {
  const multiples = fenceMultiples(n, type);
  if (!multiples) return null;
  let low = 0;
  let high = multiples.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (multiples[middle]! < multiple) low = middle + 1;
    else high = middle;
  }
  return (multiples.length - low + 1) / (multiples.length + 1);
}
