import { centralMoments, compensatedSum, type CentralMoments } from '../numeric/sums.js';

export interface Description {
  n: number;
  sum: number;
  mean: number;
  min: number;
  median: number;
  max: number;
  range: number;
  /** Divisor n − 1; null for a single reading. */
  sd: number | null;
  variance: number | null;
  standardError: number | null;
  /** Null where n is too small or all readings are equal. */
  skewness: {
    moment: number | null;
    adjusted: number | null;
    pearsonMedian: number | null;
    standardError: number | null;
  };
  kurtosis: { moment: number | null; adjusted: number | null; standardError: number | null };
}

/** The middle reading, or the mean of the two middle ones (type 7 of Hyndman & Fan 1996 at ½). */
export function medianOfSorted(sorted: Float64Array): number {
  const n = sorted.length;
  const half = n >> 1;
  return n % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/**
 * The readings as whole steps of the resolution, or null where they are not. "10 000 000.23" is 1 000 000 023 steps of 0.01, exactly,
 * while the nearest double is off by up to 1e-9: spread and shape keep the digits that were written.
 */
export function inWholeSteps(values: Float64Array, resolution: number | null): Float64Array | null {
  if (!resolution) return null;
  const steps = new Float64Array(values.length);
  for (let i = 0; i < values.length; i++) {
    const exact = values[i]! / resolution;
    const whole = Math.round(exact);
    if (!Number.isSafeInteger(whole) || Math.abs(exact - whole) > 1e-6) return null;
    steps[i] = whole;
  }
  return steps;
}

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

/**
 * Centre, spread, ends and shape of one or more readings (not empty). Figures that n or a lack of spread forbids are null, never NaN.
 * @param resolution the step of the instrument; with it the readings are taken as the decimals that were written
 */
export function describe(values: Float64Array, resolution: number | null = null): Description {
  const steps = inWholeSteps(values, resolution);
  const unit = steps ? resolution! : 1;
  const sorted = Float64Array.from(steps ?? values).sort();
  const moments = centralMoments(steps ?? values);
  const { n, s2 } = moments;
  const [min, max] = [sorted[0]!, sorted[n - 1]!];
  const median = medianOfSorted(sorted);
  // Not mean − median: both are rounded at the size of the offset, their small difference would not survive.
  const meanOverMedian = compensatedSum(sorted.map((x) => x - median)) / n;
  const variance = n > 1 ? (s2 / (n - 1)) * unit * unit : null;
  const sd = n > 1 ? Math.sqrt(s2 / (n - 1)) * unit : null;
  return {
    n,
    sum: moments.sum * unit,
    mean: moments.mean * unit,
    min: min * unit,
    median: median * unit,
    max: max * unit,
    range: (max - min) * unit,
    sd,
    variance,
    standardError: sd === null ? null : sd / Math.sqrt(n),
    ...shapeFigures(moments, meanOverMedian, max > min),
  };
}
