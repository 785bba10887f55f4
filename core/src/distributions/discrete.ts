import { log } from '../numeric/elementary.js';
import { normalQuantile } from '../numeric/standard-normal.js';
import { nextOpenUnit, type StreamState } from '../random/stream.js';
import type { Distribution } from './family.js';
import { isProbability } from './scaled.js';

/** A distribution over whole numbers as defined by its family: every function takes a whole number of the support. */
export interface Counts extends Pick<
  Distribution,
  'mean' | 'variance' | 'skewness' | 'kurtosis' | 'support' | 'sample'
> {
  mass(k: number): number;
  logMass(k: number): number;
  /** P(X ≤ k). */
  lowerTail(k: number): number;
  /** P(X > k). */
  upperTail(k: number): number;
}

/** A tolerance for rounding: a probability this close below p counts as reaching it. */
const ROUNDING = 4 * Number.EPSILON;

/** The least whole number from which `reached` holds, by doubling steps from a first guess and bisection. */
function leastWhere(reached: (k: number) => boolean, guess: number, least: number, greatest: number): number {
  let high = Math.min(greatest, Math.max(least, Math.round(guess)));
  let low = high;
  let stride = 1;
  if (reached(high)) {
    do {
      high = low;
      low = Math.max(least - 1, high - stride);
      stride *= 2;
    } while (low >= least && reached(low));
  } else {
    do {
      low = high;
      high = Math.min(greatest, low + stride);
      stride *= 2;
    } while (high < greatest && !reached(high));
  }
  while (high - low > 1) {
    const middle = low + Math.floor((high - low) / 2);
    // Beyond 2^53 a double has no whole number left between two neighbours.
    if (middle <= low || middle >= high) break;
    if (reached(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/** A distribution of counts evaluated at any x: between whole numbers the probabilities are those of the whole number below. */
export function discrete(counts: Counts): Distribution {
  const { mean, variance, skewness, kurtosis, support, sample } = counts;
  const { lower, upper } = support;
  const sd = Math.sqrt(variance);
  const isCount = (x: number) => Number.isInteger(x) && x >= lower && x <= upper;
  const cumulative = (x: number) => (x < lower ? 0 : x >= upper ? 1 : counts.lowerTail(Math.floor(x)));
  const survival = (x: number) => (x < lower ? 1 : x >= upper ? 0 : counts.upperTail(Math.floor(x)));
  /** Cornish and Fisher's first term beyond the normal. */
  const lean = Number.isFinite(skewness) ? skewness : 0;
  const guess = (z: number) => mean + sd * (z + (lean * (z * z - 1)) / 6) - 0.5;
  return {
    density: (x) => (isCount(x) ? counts.mass(x) : 0),
    logDensity: (x) => (isCount(x) ? counts.logMass(x) : -Infinity),
    cumulative,
    survival,
    quantile(p) {
      if (!isProbability(p)) return NaN;
      if (p === 0) return lower;
      if (p === 1) return upper;
      const enough = p * (1 - ROUNDING);
      return leastWhere((k) => cumulative(k) >= enough, guess(normalQuantile(p)), lower, upper);
    },
    survivalQuantile(q) {
      if (!isProbability(q)) return NaN;
      if (q === 1) return lower;
      if (q === 0) return upper;
      const enough = q * (1 + ROUNDING);
      return leastWhere((k) => survival(k) <= enough, guess(-normalQuantile(q)), lower, upper);
    },
    mean,
    variance,
    skewness,
    kurtosis,
    support,
    sample,
  };
}

/**
 * Draws by inversion, starting from the mode: the probabilities of mode, mode + 1, mode − 1, … are subtracted from a uniform draw in turn. The number
 * of steps is about the SD. `ratio(k)` is mass(k)/mass(k − 1).
 */
export function sampleFromMode(
  mode: number,
  mass: number,
  ratio: (k: number) => number,
  support: { lower: number; upper: number },
): (stream: StreamState, out: Float64Array) => void {
  const draw = (u: number): number => {
    let rest = u - mass;
    let up = mode;
    let down = mode;
    let massUp = mass;
    let massDown = mass;
    while (rest > 0) {
      if (up === support.upper && down === support.lower) return mode;
      if (up < support.upper) {
        massUp *= ratio(++up);
        rest -= massUp;
        if (rest <= 0) return up;
      }
      if (down > support.lower) {
        massDown /= ratio(down--);
        rest -= massDown;
        if (rest <= 0) return down;
      }
      // Rounding can leave a rest that no probability uses up.
      if (massUp + massDown < 1e-300) return mode;
    }
    return mode;
  };
  return (stream, out) => {
    for (let i = 0; i < out.length; i++) out[i] = draw(nextOpenUnit(stream));
  };
}

/**
 * Hörmann's (1993) transformed rejection with squeeze, for unimodal counts whose mean is about 10 or more: a constant
 * number of uniform draws each, accepted by the exact probability.
 */
export function sampleByTransformedRejection(
  counts: Pick<Counts, 'logMass' | 'support'>,
  shape: { a: number; b: number; centre: number; squeeze: number; scale: number; logPeak: number },
): (stream: StreamState, out: Float64Array) => void {
  const { a, b, centre, squeeze, scale, logPeak } = shape;
  const { lower, upper } = counts.support;
  const draw = (stream: StreamState): number => {
    for (;;) {
      const u = nextOpenUnit(stream) - 0.5;
      const v = nextOpenUnit(stream);
      const distance = 0.5 - Math.abs(u);
      const k = Math.floor(((2 * a) / distance + b) * u + centre);
      if (k < lower || k > upper) continue;
      if (distance >= 0.07 && v <= squeeze) return k;
      const bound = (v * scale) / (a / (distance * distance) + b);
      if (log(bound) <= counts.logMass(k) - logPeak) return k;
    }
  };
  return (stream, out) => {
    for (let i = 0; i < out.length; i++) out[i] = draw(stream);
  };
}
