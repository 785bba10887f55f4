import { quantileOfSorted } from '../describe/quantiles.js';
import { normalCumulative, normalQuantile } from '../numeric/standard-normal.js';

/** A bootstrap interval, and the Monte Carlo standard error of each end; null if unknown. */
export interface ResampledInterval {
  lower: number;
  upper: number;
  lowerError: number | null;
  upperError: number | null;
}

export type IntervalName = 'percentile' | 'basic' | 'standard' | 'twoErrors' | 'bca' | 'studentised';
export const INTERVAL_NAMES: readonly IntervalName[] = [
  'bca',
  'studentised',
  'percentile',
  'basic',
  'standard',
  'twoErrors',
];

type Ends = readonly [lower: number, upper: number];

/** The input of the intervals. */
export interface Made {
  observed: number;
  /** The statistics of the replicates in the order drawn. */
  statistics: Float64Array;
  /** (statistic − observed) over its own standard error, where that is wanted; of replicates without spread NaN: they count as ±∞, or as 0 where they equal what was observed. */
  studentised: Float64Array | null;
  /** The standard error of the readings themselves, by formula. */
  standardError: number | null;
  acceleration: number | null;
  confidence: number;
  tie: number;
}

/** The quantile of B replicates at a probability: that of rank (B + 1)·p (Davison & Hinkley 1997, section 5.2). */
const at = (sorted: Float64Array, share: number) => quantileOfSorted(sorted, share, 6);

/** Divisor B − 1. */
export function spreadOf(statistics: Float64Array): { mean: number; sd: number } {
  const n = statistics.length;
  let mean = 0;
  for (const value of statistics) mean += value / n;
  // In the unit of the farthest: the squares of variances of great readings would be beyond what a double holds.
  let unit = 0;
  for (const value of statistics) unit = Math.max(unit, Math.abs(value - mean));
  if (n < 2 || unit === 0) return { mean, sd: 0 };
  let squares = 0;
  for (const value of statistics) squares += ((value - mean) / unit) ** 2;
  return { mean, sd: unit * Math.sqrt(squares / (n - 1)) };
}

/** The proportion of replicates below the observed value, half of the ties included. */
function shareBelow(sorted: Float64Array, observed: number, tie: number): number {
  const upTo = (limit: number) => {
    let [low, high] = [0, sorted.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (sorted[middle]! < limit) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  return (upTo(observed - tie) + upTo(observed + tie)) / 2 / sorted.length;
}

/** Bias-corrected and accelerated (BCa) interval (Efron 1987, equation 2.3); null if all replicates lie on one side of the observed value. */
function bca(sorted: Float64Array, { observed, acceleration, confidence, tie }: Made): Ends | null {
  const below = shareBelow(sorted, observed, tie);
  if (acceleration === null || below <= 0 || below >= 1) return null;
  const bias = normalQuantile(below);
  const end = (share: number) => {
    const z = bias + normalQuantile(share);
    return normalCumulative(bias + z / (1 - acceleration * z));
  };
  const tail = (1 - confidence) / 2;
  // Where the acceleration outweighs all, the ends change places.
  const [low, high] = [end(tail), end(1 - tail)];
  return low < high ? [at(sorted, low), at(sorted, high)] : null;
}

/** A studentized replicate without spread is infinitely far from the observed value, unless it equals it. */
const unbounded = (difference: number, tie: number): number =>
  Math.abs(difference) <= tie ? 0 : difference > 0 ? Infinity : -Infinity;

/** No interval if more than one tail probability of the replicates is unbounded: an end would be infinite. */
function studentisedEnds(t: Float64Array, tail: number, observed: number, standardError: number): Ends | null {
  const ends: Ends = [observed - at(t, 1 - tail) * standardError, observed - at(t, tail) * standardError];
  return ends.every(Number.isFinite) ? ends : null;
}

function endsOf(made: Made): Record<IntervalName, Ends | null> {
  const { observed, statistics, studentised, standardError, confidence } = made;
  const sorted = statistics.slice().sort();
  const tail = (1 - confidence) / 2;
  const [low, high] = [at(sorted, tail), at(sorted, 1 - tail)];
  const { sd } = spreadOf(statistics);
  const about = (half: number): Ends => [observed - half, observed + half];
  const t = studentised
    ?.map((value, r) => (Number.isNaN(value) ? unbounded(statistics[r]! - observed, made.tie) : value))
    .sort();
  return {
    percentile: [low, high],
    basic: [2 * observed - high, 2 * observed - low],
    standard: about(-normalQuantile(tail) * sd),
    twoErrors: about(2 * sd),
    bca: bca(sorted, made),
    studentised: t && t.length > 0 && standardError !== null ? studentisedEnds(t, tail, observed, standardError) : null,
  };
}

const PARTS = 10;
const LEAST_PARTED = 1_000;

/**
 * All intervals; null for those that cannot be computed. The Monte Carlo error of an end comes from ten parts of the replicates, each with its own
 * interval.
 */
export function intervalsOf(made: Made): Record<IntervalName, ResampledInterval | null> {
  const whole = endsOf(made);
  const { length } = made.statistics;
  const parts =
    length < LEAST_PARTED
      ? []
      : Array.from({ length: PARTS }, (_, k) => {
          const [from, to] = [Math.floor((k * length) / PARTS), Math.floor(((k + 1) * length) / PARTS)];
          const studentised = made.studentised?.subarray(from, to) ?? null;
          return endsOf({ ...made, statistics: made.statistics.subarray(from, to), studentised });
        });
  const errorOf = (name: IntervalName, end: 0 | 1): number | null => {
    const ends = parts.flatMap((part) => (part[name] ? [part[name][end]] : []));
    return ends.length < PARTS ? null : spreadOf(Float64Array.from(ends)).sd / Math.sqrt(PARTS);
  };
  const entries = INTERVAL_NAMES.map((name) => {
    const ends = whole[name];
    const found = ends && {
      ...{ lower: ends[0], upper: ends[1] },
      ...{ lowerError: errorOf(name, 0), upperError: errorOf(name, 1) },
    };
    return [name, found] as const;
  });
  return Object.fromEntries(entries) as Record<IntervalName, ResampledInterval | null>;
}
