import { log, productRest, sumRest } from '../numeric/elementary.js';
import type { Distribution } from './family.js';
import { refined } from './refined.js';

/** Below this probability a rounding of the score is worth several units of the tail, and is made good. */
const FAR = 1e-2;

/** A standard distribution that can be asked at z + rest, a score known better than one double holds it; for tails that end within reach of a rounding. */
export interface Standard extends Distribution {
  exactly?: Record<'density' | 'cumulative' | 'survival', (z: number, rest: number) => number>;
}

/** d log density/dz, by a central difference: it only scales a rounding. */
function logSlope(standard: Distribution, z: number): number {
  const h = 1e-7 * Math.abs(z);
  return (standard.logDensity(z + h) - standard.logDensity(z - h)) / (2 * h);
}

const drawScaled =
  (standard: Standard, location: number, scale: number): Distribution['sample'] =>
  (stream, out) => {
    standard.sample(stream, out);
    for (let i = 0; i < out.length; i++) out[i] = location + scale * out[i]!;
  };

/**
 * The distribution of location + scale·Z, for a standard distribution of Z and scale > 0. The rounding errors of x − location and of the quotient are
 * corrected to first order, since in the far tails probabilities and density change much faster than the score.
 */
export function scaled(standard: Standard, location: number, scale: number): Distribution {
  const logScale = log(scale);
  const { mean, variance, skewness, kurtosis, support, exactly } = standard;
  const lower = location + scale * support.lower;
  const upper = location + scale * support.upper;
  /** What (x − location)/scale = z loses to rounding. */
  const restOf = (x: number, d: number, z: number): number => {
    const product = z * scale;
    const rest = (sumRest(x, -location, d) + (d - product - productRest(z, scale, product))) / scale;
    return Number.isFinite(rest) ? rest : 0;
  };
  const corrected = (tail: number, x: number, d: number, z: number, sign: 1 | -1): number => {
    if (tail > FAR || tail < 1e-305) return tail;
    const slope = standard.density(z);
    const change = sign * slope * restOf(x, d, z);
    // A first-order correction: where it would be more than that, the score itself has no digits left.
    return Math.abs(change) < 0.1 * tail ? tail + change : tail;
  };
  const cumulative = (x: number) => {
    if (!Number.isFinite(x)) return x > 0 ? 1 : x < 0 ? 0 : NaN;
    const d = x - location;
    const z = d / scale;
    if (exactly) return exactly.cumulative(z, restOf(x, d, z));
    return corrected(standard.cumulative(z), x, d, z, 1);
  };
  const survival = (x: number) => {
    if (!Number.isFinite(x)) return x > 0 ? 0 : x < 0 ? 1 : NaN;
    const d = x - location;
    const z = d / scale;
    if (exactly) return exactly.survival(z, restOf(x, d, z));
    return corrected(standard.survival(z), x, d, z, -1);
  };
  const density = (x: number) => {
    if (!Number.isFinite(x)) return Number.isNaN(x) ? NaN : 0;
    const d = x - location;
    const z = d / scale;
    const rest = restOf(x, d, z);
    if (exactly) return exactly.density(z, rest) / scale;
    const value = standard.density(z);
    if (rest === 0 || value === 0) return value / scale;
    const change = logSlope(standard, z) * rest;
    return (Math.abs(change) < 0.1 ? value + value * change : value) / scale;
  };
  const ends = { lower, upper };
  return {
    density,
    logDensity: (x) => standard.logDensity((x - location) / scale) - logScale,
    cumulative,
    survival,
    quantile: (p) =>
      isProbability(p) ? refined(location + scale * standard.quantile(p), p, cumulative, density, 1, ends) : NaN,
    survivalQuantile: (q) =>
      isProbability(q) ? refined(location + scale * standard.survivalQuantile(q), q, survival, density, -1, ends) : NaN,
    mean: location + scale * mean,
    variance: scale * scale * variance,
    skewness,
    kurtosis,
    support: ends,
    sample: drawScaled(standard, location, scale),
  };
}

/** The distribution of −Z. */
export function mirrored(standard: Distribution): Distribution {
  const { mean, variance, skewness, kurtosis, support } = standard;
  return {
    density: (x) => standard.density(-x),
    logDensity: (x) => standard.logDensity(-x),
    cumulative: (x) => standard.survival(-x),
    survival: (x) => standard.cumulative(-x),
    quantile: (p) => -standard.survivalQuantile(p),
    survivalQuantile: (q) => -standard.quantile(q),
    mean: -mean,
    variance,
    skewness: -skewness,
    kurtosis,
    support: { lower: -support.upper, upper: -support.lower },
    sample(stream, out) {
      standard.sample(stream, out);
      for (let i = 0; i < out.length; i++) out[i] = -out[i]!;
    },
  };
}

/** p inside 0 … 1; what `quantile` does with anything else is NaN. */
export function isProbability(p: number): boolean {
  return p >= 0 && p <= 1;
}
