import { ordered } from '../numeric/ordered.js';
import { settled } from '../numeric/settled.js';
import { centralMoments, type CentralMoments } from '../numeric/sums.js';
import { meanDistance, medianDistance } from './deviations.js';
import { geometricMean } from './geometric-mean.js';
import { meanMargin, medianRanks, sdInterval } from './intervals.js';
import { modesOfSorted, type Modes } from './modes.js';
import { medianOfSorted, QUANTILE_TYPES, quantileOfSorted, quartilesOfSorted, type QuantileType } from './quantiles.js';
import { worked, type Worked } from './working-unit.js';

export interface DescribeOptions {
  quantileType: QuantileType;
  /** Of the intervals for mean, median and sd. */
  confidence: number;
  /** Percentiles to compute besides the quartiles, 0 … 100. */
  percentiles: readonly number[];
}

export const USUAL_DESCRIBE: DescribeOptions = { quantileType: 7, confidence: 0.95, percentiles: [] };

/**
 * The figures of STATISTICS section 1. A figure is null if n is too small, if all readings are equal, or if it is beyond the range of doubles: a sum
 * of readings of 1e308, a variance of readings of 1e-300.
 */
export interface Description {
  n: number;
  sum: number | null;
  mean: number;
  min: number;
  q1: number;
  median: number;
  q3: number;
  max: number;
  range: number | null;
  iqr: number | null;
  quantileType: QuantileType;
  modes: Modes;
  /** How many different values there are. */
  distinct: number;
  /** How many readings share their value with another. */
  tied: number;
  geometricMean: number | null;
  /** Divisor n − 1; null for a single reading. */
  sd: number | null;
  variance: number | null;
  sdPopulation: number;
  variancePopulation: number | null;
  standardError: number | null;
  /** sd/|mean|. */
  cv: number | null;
  meanAbsoluteDeviation: number;
  medianAbsoluteDeviation: number;
  madSigma: number | null;
  skewness: {
    moment: number | null;
    adjusted: number | null;
    pearsonMedian: number | null;
    standardError: number | null;
  };
  kurtosis: { moment: number | null; adjusted: number | null; standardError: number | null };
  confidence: number;
  meanInterval: [number, number] | null;
  sdInterval: [number, number] | null;
  medianInterval: { lower: number; upper: number; coverage: number } | null;
  /** The quartiles by every definition. */
  quartiles: { type: QuantileType; q1: number; q3: number }[];
  /** The requested percentiles by each of the nine definitions; hinges define quartiles only, so type 7 is used with them. */
  percentiles: { percent: number; value: number; byType: number[] }[];
}

/** The sd of a normal per median absolute deviation: 1/Φ⁻¹(¾). */
const NORMAL_MAD = 1.482602218505602;

/** Skewness g1, G1 and kurtosis (excess) g2, G2 with their standard errors under normality: Joanes & Gill (1998). */
function shapeFigures({ n, s2, s3, s4 }: CentralMoments, meanOverMedian: number, spread: boolean) {
  const shape =
    spread && s2 > 0 ? { g1: s3 / n / ((s2 / n) * Math.sqrt(s2 / n)), g2: (s4 / n / s2 / s2) * n * n - 3 } : null;
  const ses = n > 2 ? Math.sqrt((6 * n * (n - 1)) / ((n - 2) * (n + 1) * (n + 3))) : null;
  return {
    skewness: {
      moment: shape && shape.g1,
      adjusted: shape && n > 2 ? (shape.g1 * Math.sqrt(n * (n - 1))) / (n - 2) : null,
      pearsonMedian: shape && (3 * meanOverMedian) / Math.sqrt(s2 / (n - 1)),
      standardError: ses,
    },
    kurtosis: {
      moment: shape && shape.g2,
      adjusted: shape && n > 3 ? ((n - 1) / ((n - 2) * (n - 3))) * ((n + 1) * shape.g2 + 6) : null,
      standardError: ses !== null && n > 3 ? 2 * ses * Math.sqrt((n * n - 1) / ((n - 3) * (n + 5))) : null,
    },
  };
}

/** The figure, or null if it is not finite, or if a square is too small for a double although its root is not. */
const held = (figure: number, vanished = false): number | null =>
  Number.isFinite(figure) && !vanished ? figure : null;

const heldPair = (low: number, high: number): [number, number] | null =>
  Number.isFinite(low) && Number.isFinite(high) ? [low, high] : null;

/** The figures that come from the sorted readings alone. */
function orderFigures(sorted: Float64Array, back: (x: number) => number, options: DescribeOptions) {
  const n = sorted.length;
  const [min, max, median] = [sorted[0]!, sorted[n - 1]!, medianOfSorted(sorted)];
  const [q1, q3] = quartilesOfSorted(sorted, options.quantileType);
  const { modes, distinct, tied } = modesOfSorted(sorted);
  const numbered = options.quantileType === 'hinges' ? 7 : options.quantileType;
  const { rank, coverage } = medianRanks(n, options.confidence);
  const mad = back(medianDistance(sorted, median));
  return {
    min: back(min),
    q1: back(q1),
    median: back(median),
    q3: back(q3),
    max: back(max),
    range: held(back(max - min)),
    iqr: held(back(q3 - q1)),
    quantileType: options.quantileType,
    modes: { ...modes, values: modes.values.map(back) },
    distinct,
    tied,
    medianAbsoluteDeviation: mad,
    madSigma: held(mad * NORMAL_MAD),
    medianInterval: n > 1 ? { lower: back(sorted[rank - 1]!), upper: back(sorted[n - rank]!), coverage } : null,
    quartiles: QUANTILE_TYPES.map((type) => {
      const [a, b] = quartilesOfSorted(sorted, type);
      return { type, q1: back(a), q3: back(b) };
    }),
    percentiles: options.percentiles.map((percent) => {
      const byType = ([1, 2, 3, 4, 5, 6, 7, 8, 9] as const).map((t) =>
        back(quantileOfSorted(sorted, percent / 100, t)),
      );
      return { percent, value: byType[numbered - 1]!, byType };
    }),
  };
}

/** The figures that depend on the mean: SD and variance with both divisors, their intervals, the standard error. */
function momentFigures({ n, mean, s2 }: CentralMoments, back: (x: number) => number, confidence: number) {
  const rootMean = Math.sqrt(s2 / n);
  const sdPopulation = back(rootMean);
  const square = (root: number) => held(root * root, root > 0 && root * root < Number.MIN_VALUE * 2 ** 52);
  if (n === 1) {
    return { sdPopulation, variancePopulation: square(sdPopulation), ...NO_SPREAD_OF_ONE };
  }
  const root = Math.sqrt(s2 / (n - 1));
  const sd = back(root);
  // In the working unit, where the two are of one size, whatever the size of the readings.
  const margin = meanMargin(n, root, confidence);
  const [low, high] = sdInterval(n, root, confidence);
  return {
    sd: held(sd),
    // Exact where the readings are whole steps: not the square of a rounded root.
    variance: varianceOf(s2 / (n - 1), back, square(sd)),
    sdPopulation,
    variancePopulation: varianceOf(s2 / n, back, square(sdPopulation)),
    standardError: held(back(root / Math.sqrt(n))),
    cv: mean === 0 ? null : held(root / Math.abs(mean)),
    meanInterval: heldPair(back(mean - margin), back(mean + margin)),
    sdInterval: heldPair(back(low), back(high)),
  };
}

/** A mean square back in squares of the unit. */
function varianceOf(meanSquare: number, back: (x: number) => number, rough: number | null): number | null {
  return rough === null ? null : back(back(meanSquare));
}

const NO_SPREAD_OF_ONE = {
  sd: null,
  variance: null,
  standardError: null,
  cv: null,
  meanInterval: null,
  sdInterval: null,
};

/**
 * Centre, spread, order and shape of at least one reading. Figures that cannot be computed (too few readings, no spread, beyond the range of doubles)
 * are null, never NaN.
 * @param resolution the step of the instrument; with it the readings are taken as exact decimals, as written
 */
export function describe(
  values: Float64Array,
  resolution: number | null = null,
  options: DescribeOptions = USUAL_DESCRIBE,
): Description {
  const work = worked(values, resolution);
  return describeWorked(work, ordered(work.values).sorted, options);
}

/** The same for readings that are already sorted and in their unit of calculation. */
export function describeWorked({ values, back }: Worked, sorted: Float64Array, options: DescribeOptions): Description {
  const moments = centralMoments(values);
  const median = medianOfSorted(sorted);
  const size = Math.max(-sorted[0]!, sorted[sorted.length - 1]!);
  const mean = settled(moments.mean, size);
  // Not mean − median: both are rounded at the size of the offset, their small difference would not survive.
  let above = 0;
  for (let i = 0; i < sorted.length; i++) above += sorted[i]! - median;
  const geometric = geometricMean(values);
  return {
    n: moments.n,
    sum: held(back(settled(moments.sum, moments.n * size))),
    mean: back(mean),
    ...orderFigures(sorted, back, options),
    geometricMean: geometric === null ? null : back(geometric),
    ...momentFigures({ ...moments, mean }, back, options.confidence),
    meanAbsoluteDeviation: back(meanDistance(values, moments.mean)),
    ...shapeFigures(moments, above / moments.n, sorted[sorted.length - 1]! > sorted[0]!),
    confidence: options.confidence,
  };
}
