import { medianDistance, meanDistance } from '../describe/deviations.js';
import { medianOfSorted, quartilesOfSorted, type QuantileType } from '../describe/quantiles.js';
import { dixon, dixonRatioFor } from './dixon.js';
import { esdCritical, mostSteps } from './generalized-esd.js';
import type { Side } from './grubbs.js';
import { MAD_SCALE, MEAN_SCALE } from './screens.js';

/** How far the farthest readings of a sample lie out by each rule: the greater, the further. */
export const OUTLIER_STATISTICS = [
  /** Of the farthest, in sd from the mean. */
  'grubbs',
  /** What the two at one end take off the sum of squares, as a share: 1 less the ratio. */
  'pair-same-end',
  /** The range in sd. */
  'pair-both-ends',
  'dixon',
  /** The greatest of its steps, each over its critical value: above 1 where any reading is named. */
  'generalized-esd',
  'modified-z',
  /** Quartile ranges beyond the nearer quartile. */
  'fences',
] as const;
export type OutlierStatistic = (typeof OUTLIER_STATISTICS)[number];

/** What the rules take besides the readings. */
export interface RuleSettings {
  side: Side;
  /** Of the generalised ESD: the most that may be named, and its level. */
  most: number;
  alpha: number;
  /** How the fences define quartiles. */
  quartiles: QuantileType;
}

/** These look at the two ends only: the sample need not be in order for them. */
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

/** The greater of two distances outwards, or that on the side which is asked about. */
const onSide = (upper: number, lower: number, side: Side) =>
  side === 'upper' ? upper : side === 'lower' ? lower : upper > lower ? upper : lower;

/** The sum of squares without a reading of the m that made it: it loses m/(m − 1) of its squared distance from their mean. */
const without = (squares: number, m: number, distance: number) => squares - (m / (m - 1)) * distance * distance;

/** The share of the sum of squares that goes with the two readings at an end, the outer one first. */
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
 * Writes into `out` the scores of the most extreme readings of a sample in rising order, each without those more extreme than it, as the steps of the generalised ESD
 * take them; 0 where what is left has no spread. Call it after the sample was measured: it takes its moments from there.
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
 * Writes the statistics asked for of a sample into `out`. The sample in rising order where `needsOrder` says so; one without any spread has nothing far out: 0.
 * Must equal the rules as they are written one by one (tested); written out because it runs some thousand times.
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
