import { medianOfSorted, quantileOfSorted } from '../describe/quantiles.js';
import { log } from '../numeric/elementary.js';
import { centralMoments } from '../numeric/sums.js';

/** A statistic of one group of readings. */
export type Figure =
  | { name: 'mean' | 'median' | 'sd' | 'variance' | 'cv' | 'skewness' }
  /** The share that is cut off at either end. */
  | { name: 'trimmed-mean'; trim: number }
  /** The quantile at a share, by a definition of Hyndman & Fan (1996). */
  | { name: 'percentile'; share: number; type: 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8 | 9 };

/** Readings in groups, each in rising order; pairs as two columns in row order. */
export type Evaluator = (groups: readonly Float64Array[]) => number;

/** The trimmed mean (Tukey 1962), without ⌊trim·n⌋ readings at either end. */
export function trimmedMean(sorted: Float64Array, trim: number): number {
  // A share that rounding alone keeps off a whole number of readings has it.
  const cut = Math.floor(trim * sorted.length + 1e-9);
  return centralMoments(sorted.subarray(cut, sorted.length - cut)).mean;
}

/** NaN if the statistic is undefined: no spread to divide by, or no mean. */
export function figureOfSorted(figure: Figure, sorted: Float64Array): number {
  switch (figure.name) {
    case 'median':
      return medianOfSorted(sorted);
    case 'percentile':
      return quantileOfSorted(sorted, figure.share, figure.type);
    case 'trimmed-mean':
      return trimmedMean(sorted, figure.trim);
    default:
      return momentFigure(figure.name, sorted);
  }
}

function momentFigure(name: 'mean' | 'sd' | 'variance' | 'cv' | 'skewness', values: Float64Array): number {
  const { n, mean, s2 } = centralMoments(values);
  if (name === 'mean') return mean;
  if (name === 'skewness') {
    if (s2 === 0) return NaN;
    let s3 = 0;
    for (let i = 0; i < n; i++) s3 += (values[i]! - mean) ** 3;
    const m2 = s2 / n;
    return s3 / n / (m2 * Math.sqrt(m2));
  }
  if (n < 2) return NaN;
  const variance = s2 / (n - 1);
  if (name === 'variance') return variance;
  const sd = Math.sqrt(variance);
  if (name === 'sd') return sd;
  return mean === 0 ? NaN : sd / Math.abs(mean);
}

/** The correlation of pairs (Pearson 1896), and the slope of the least-squares line of x over y. */
export function pairFigure(of: 'correlation' | 'slope', x: Float64Array, y: Float64Array): number {
  const [a, b] = [centralMoments(x), centralMoments(y)];
  let products = 0;
  for (let i = 0; i < a.n; i++) products += (x[i]! - a.mean) * (y[i]! - b.mean);
  if (of === 'slope') return b.s2 > 0 ? products / b.s2 : NaN;
  const size = Math.sqrt(a.s2) * Math.sqrt(b.s2);
  return size > 0 ? Math.max(-1, Math.min(1, products / size)) : NaN;
}

/** ln(s₁/s₂); NaN where one has no spread. */
export const logRatio = (sd1: number, sd2: number): number => (sd1 > 0 && sd2 > 0 ? log(sd1) - log(sd2) : NaN);
