import { medianDistance, meanDistance } from '../describe/deviations.js';
import { medianOfSorted, quartilesOfSorted, type QuantileType } from '../describe/quantiles.js';
import { dixon, dixonRatioFor } from './dixon.js';
import { esdCritical, mostSteps } from './generalized-esd.js';
import type { Side } from './grubbs.js';
import { MAD_SCALE, MEAN_SCALE } from './screens.js';

/** The statistics of the outlier rules for one sample; greater for more extreme readings. */
export const OUTLIER_STATISTICS = [
  /** The distance of the most extreme reading from the mean in SD. */
  'grubbs',
  /** The proportion of the sum of squares that the two most extreme readings at one end contribute: 1 minus the ratio. */
  'pair-same-end',
  /** The range in sd. */
  'pair-both-ends',
  'dixon',
  /** The greatest of its steps, each divided by its critical value: above 1 if any reading is flagged. */
  'generalized-esd',
  'modified-z',
  /** Quartile ranges beyond the nearer quartile. */
  'fences',
] as const;
export type OutlierStatistic = (typeof OUTLIER_STATISTICS)[number];

/** Settings of the rules. */
export interface RuleSettings {
  side: Side;
  /** For the generalised ESD: the greatest number of readings to flag, and its level. */
  most: number;
  alpha: number;
  /** How the fences define quartiles. */
  quartiles: QuantileType;
}

/** These rules use the two ends only: the sample need not be sorted for them. */
const OF_THE_ENDS: readonly OutlierStatistic[] = ['grubbs', 'pair-both-ends'];
export const needsOrder = (which: readonly OutlierStatistic[]): boolean =>
  which.some((one) => !OF_THE_ENDS.includes(one));

/** Mean, sum of squares and ends of the sample in hand. One object: nothing is allocated for a replicate. */
const hand = { n: 0, mean: 0, squares: 0, least: 0, greatest: 0 };

function takeInHand(values: Float64Array): void {
  const n = values.length;
  let sum = 0;
  let least = values[0]!;
  let greatest = least;
  for (let i = 0; i < n; i++) {
    const x = values[i]!;
    sum += x;
    if (x < least) least = x;
    if (x > greatest) greatest = x;
  }
  const mean = sum / n;
  let squares = 0;
  for (let i = 0; i < n; i++) {
    const d = values[i]! - mean;
    squares += d * d;
  }
  hand.n = n;
  hand.mean = mean;
  hand.squares = squares;
  hand.least = least;
  hand.greatest = greatest;
}

/** The greater of the two outward distances, or the one on the tested side. */
const onSide = (upper: number, lower: number, side: Side) =>
  side === 'upper' ? upper : side === 'lower' ? lower : upper > lower ? upper : lower;

/** The sum of squares of m readings without one of them: it decreases by m/(m − 1) times the squared distance of that reading from their mean. */
const without = (squares: number, m: number, distance: number) => squares - (m / (m - 1)) * distance * distance;

/** The proportion of the sum of squares that is removed with the two readings at an end, the outer one first. */
function pairShare(outer: number, inner: number): number {
  const { n, mean, squares } = hand;
  const d = outer - mean;
  const rest = without(squares, n, d);
  return 1 - without(rest, n - 1, inner - (mean - d / (n - 1))) / squares;
}

/** The steps of the ESD with running sums, as the farthest readings go one by one. */
function greatestStep(sorted: Float64Array, limits: Float64Array, side: Side): number {
  let { n: m, mean, squares } = hand;
  let [from, to] = [0, m - 1];
  let best = 0;
  for (let i = 0; i < limits.length && sorted[to]! > sorted[from]!; i++) {
    const upper = sorted[to]! - mean;
    const lower = mean - sorted[from]!;
    const isUpper = side === 'upper' || (side === 'either' && upper >= lower);
    const d = isUpper ? upper : -lower;
    const ratio = (isUpper ? upper : lower) / Math.sqrt(squares / (m - 1)) / limits[i]!;
    if (ratio > best) best = ratio;
    if (isUpper) to--;
    else from++;
    squares = without(squares, m, d);
    m--;
    mean -= d / m;
  }
  return best;
}

/**
 * Writes into `out` the scores of the most extreme readings of a sorted sample, each computed without the more extreme ones, as in the steps of the
 * generalised ESD; 0 if the remaining readings are equal. Call it after the sample was measured: it uses those moments.
 */
export function scoreExtremes(
  sorted: Float64Array,
  side: Side,
  count: number,
  out: Float64Array,
  offset: number,
): void {
  let { n: m, mean, squares } = hand;
  let [from, to] = [0, m - 1];
  for (let i = 0; i < count; i++) {
    if (!(sorted[to]! > sorted[from]!)) {
      out[offset + i] = 0;
      continue;
    }
    const upper = sorted[to]! - mean;
    const lower = mean - sorted[from]!;
    const isUpper = side === 'upper' || (side === 'either' && upper >= lower);
    const d = isUpper ? upper : -lower;
    out[offset + i] = (isUpper ? upper : lower) / Math.sqrt(squares / (m - 1));
    if (isUpper) to--;
    else from++;
    squares = without(squares, m, d);
    m--;
    mean -= d / m;
  }
}

function modifiedDistance(sorted: Float64Array, side: Side): number {
  const median = medianOfSorted(sorted);
  const mad = medianDistance(sorted, median);
  const unit = mad > 0 ? mad / MAD_SCALE : MEAN_SCALE * meanDistance(sorted, median);
  return onSide(hand.greatest - median, median - hand.least, side) / unit;
}

function fenceDistance(sorted: Float64Array, quartiles: QuantileType, side: Side): number {
  const [q1, q3] = quartilesOfSorted(sorted, quartiles);
  const out = onSide(hand.greatest - q3, q1 - hand.least, side);
  // Without a quartile range any other reading lies infinitely many of them out.
  return out > 0 ? out / (q3 - q1) : 0;
}

/**
 * Writes the requested statistics of a sample into `out`. The sample must be sorted where `needsOrder` says so; for equal readings they are 0. Must
 * equal the rules computed one by one (tested); written out because it runs thousands of times.
 */
export function createDistances(
  n: number,
  which: readonly OutlierStatistic[],
  { side, most, alpha, quartiles }: RuleSettings,
): (values: Float64Array, out: Float64Array, offset: number) => void {
  const steps = which.includes('generalized-esd') ? Math.min(most, mostSteps(n)) : 0;
  const limits = Float64Array.from({ length: steps }, (_, i) => esdCritical(n, i + 1, alpha, side));
  const ratio = dixonRatioFor(n);
  function distance(values: Float64Array, one: OutlierStatistic): number {
    const sd = Math.sqrt(hand.squares / (n - 1));
    switch (one) {
      case 'grubbs':
        return onSide(hand.greatest - hand.mean, hand.mean - hand.least, side) / sd;
      case 'pair-both-ends':
        return (hand.greatest - hand.least) / sd;
      case 'pair-same-end':
        return onSide(
          side === 'lower' ? 0 : pairShare(values[n - 1]!, values[n - 2]!),
          side === 'upper' ? 0 : pairShare(values[0]!, values[1]!),
          side,
        );
      case 'dixon':
        return dixon(values, ratio!, side).statistic;
      case 'generalized-esd':
        return greatestStep(values, limits, side);
      case 'modified-z':
        return modifiedDistance(values, side);
      case 'fences':
        return fenceDistance(values, quartiles, side);
    }
  }
  return (values, out, offset) => {
    takeInHand(values);
    const flat = !(hand.greatest > hand.least);
    for (let k = 0; k < which.length; k++) out[offset + k] = flat ? 0 : distance(values, which[k]!);
  };
}
