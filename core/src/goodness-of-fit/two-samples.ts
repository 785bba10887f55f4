import { nextOpenUnit, type StreamState } from '../random/stream.js';
import { leastTie } from '../numeric/ties.js';

/** Two samples combined: the distinct values in rising order, and how many readings of each sample have each value. */
export interface Pooled {
  /** How many readings of both samples are each different value, in rising order. */
  ties: Int32Array;
  /** How many of those are of the first sample. */
  first: Int32Array;
  n: [number, number];
}

/** Combines two samples in rising order. */
export function pooled(a: Float64Array, b: Float64Array): Pooled {
  const ties: number[] = [];
  const first: number[] = [];
  let [i, j] = [0, 0];
  while (i < a.length || j < b.length) {
    const value = j >= b.length || (i < a.length && a[i]! <= b[j]!) ? a[i]! : b[j]!;
    let [own, others] = [0, 0];
    for (; i < a.length && a[i] === value; i++) own++;
    for (; j < b.length && b[j] === value; j++) others++;
    first.push(own);
    ties.push(own + others);
  }
  return { ties: Int32Array.from(ties), first: Int32Array.from(first), n: [a.length, b.length] };
}

/** The two statistics: A² with midranks (Scholz & Stephens 1987, equation 7, for two samples) and D, the greatest distance of the steps (Smirnov 1939). */
export interface TwoSampleStatistics {
  andersonDarling: number;
  kolmogorovSmirnov: number;
}

/**
 * Both statistics of one way to part the values. Of both samples A² sums the same squares, so that one is looked at and weighted with 1/n₁ + 1/n₂.
 * A hot loop: it runs for every way that is tried.
 */
export function twoSampleStatistics(
  ties: Int32Array,
  first: Int32Array,
  [n1, n2]: readonly [number, number],
  into: TwoSampleStatistics,
): void {
  const n = n1 + n2;
  let sum = 0;
  let greatest = 0;
  let [below, own] = [0, 0];
  for (let j = 0; j < ties.length; j++) {
    const h = ties[j]!;
    const f = first[j]!;
    const b = below + h / 2;
    const gap = n * (own + f / 2) - n1 * b;
    const spread = b * (n - b) - (n * h) / 4;
    // All readings alike have no spread at all.
    if (spread > 0) sum += (h * gap * gap) / spread;
    below += h;
    own += f;
    const distance = Math.abs(own / n1 - (below - own) / n2);
    if (distance > greatest) greatest = distance;
  }
  into.andersonDarling = ((n - 1) / (n * n)) * sum * (1 / n1 + 1 / n2);
  into.kolmogorovSmirnov = greatest;
}

export interface TwoSampleTallies {
  ties: number[];
  n: [number, number];
  observed: TwoSampleStatistics;
}

/** The number of random divisions of the same readings into two samples that are at least as different: by A², by D. */
export function tallyTwoSamples(
  { ties: given, n, observed }: TwoSampleTallies,
  state: StreamState,
  replicates: number,
): Float64Array {
  const ties = Int32Array.from(given);
  const first = new Int32Array(ties.length);
  const total = n[0] + n[1];
  // Neither statistic hangs on which sample is called the first. The smaller one is dealt out: its members are drawn to the front of the list, the value of each standing in it.
  const small = Math.min(n[0], n[1]);
  const sizes = [small, total - small] as const;
  const places = new Int32Array(total);
  let at = 0;
  for (let j = 0; j < ties.length; j++) for (let k = 0; k < ties[j]!; k++) places[at++] = j;
  const found: TwoSampleStatistics = { andersonDarling: 0, kolmogorovSmirnov: 0 };
  const tallies = new Float64Array(2);
  const a2 = leastTie(observed.andersonDarling);
  const d = leastTie(observed.kolmogorovSmirnov);
  for (let r = 0; r < replicates; r++) {
    first.fill(0);
    for (let i = 0; i < small; i++) {
      const k = i + Math.floor(nextOpenUnit(state) * (total - i));
      const place = places[k]!;
      places[k] = places[i]!;
      places[i] = place;
      first[place] = first[place]! + 1;
    }
    twoSampleStatistics(ties, first, sizes, found);
    if (found.andersonDarling >= a2) tallies[0]!++;
    if (found.kolmogorovSmirnov >= d) tallies[1]!++;
  }
  return tallies;
}
