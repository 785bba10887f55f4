import {
  exp,
  expm1,
  log,
  log1p,
  logPowerProduct,
  powerProduct,
  productRest,
  sumRest,
} from '../../numeric/elementary.js';
import { logGamma } from '../../numeric/log-gamma.js';
import { defineFamily, LOCATION, SCALE } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { powerMoments, zeta } from '../power-moments.js';
import { scaled, type Standard } from '../scaled.js';
import { standardLargest } from './largest-extreme-value.js';

/** F(z) = exp(−(1 + ξz)^(−1/ξ)), the Gumbel distribution at ξ = 0 (Jenkinson 1955); moments through E^−ξ for a standard exponential E. */
function standardOf(shape: number): Standard {
  if (shape === 0) return standardLargest;
  const end = -1 / shape;
  const endRest = -(end * shape + 1 + productRest(end, shape, end * shape)) / shape;
  const beyond = shape > 0 ? 0 : 1;
  /** 1 + ξz, and what it loses to rounding: next to the end of the support the sum cancels. */
  const base = { w: 0, rest: 0 };
  const lookAt = (z: number, rest: number): boolean => {
    const product = shape * z;
    const sum = 1 + product;
    const lost = sumRest(1, product, sum) + productRest(shape, z, product) + shape * rest;
    base.w = Number.isFinite(lost) ? sum + lost : sum;
    base.rest = Number.isFinite(lost) ? sumRest(sum, lost, base.w) : 0;
    return base.w > 0;
  };
  /** The exponential that belongs to the base: w^(−1/ξ). */
  const exponential = () => powerProduct(0, endRest * log(base.w), base.w, base.rest / base.w, end, 1, 0, 0);
  const from = (e: number) => expm1(-shape * log(e)) / shape;
  const quantile = (p: number) => from(-log(p));
  const survivalQuantile = (q: number) => from(-log1p(-q));
  const exactly = {
    density(z: number, rest: number): number {
      if (!lookAt(z, rest)) return 0;
      const e = exponential();
      return e === Infinity ? 0 : (e / base.w) * exp(-e);
    },
    cumulative: (z: number, rest: number) => (lookAt(z, rest) ? exp(-exponential()) : beyond),
    survival: (z: number, rest: number) => (lookAt(z, rest) ? -expm1(-exponential()) : 1 - beyond),
  };
  const moments = powerMoments(
    -shape,
    (t) => (t > -1 ? logGamma(1 + t) : Infinity),
    (n) => ((n % 2 === 0 ? 1 : -1) * zeta(n)) / n,
  );
  return {
    exactly,
    density: (z) => exactly.density(z, 0),
    logDensity(z) {
      if (!lookAt(z, 0)) return -Infinity;
      const logE = logPowerProduct(0, endRest * log(base.w), base.w, base.rest / base.w, end, 1, 0, 0);
      return (1 + shape) * logE - exp(logE);
    },
    cumulative: (z) => exactly.cumulative(z, 0),
    survival: (z) => exactly.survival(z, 0),
    quantile,
    survivalQuantile,
    mean: shape >= 1 ? Infinity : meanOf(shape),
    variance: moments.variance / (shape * shape),
    // E^−ξ falls in E; with ξ < 0 it is the negative of what z is.
    skewness: shape < 0 ? -moments.skewness : moments.skewness,
    kurtosis: moments.kurtosis,
    support: shape > 0 ? { lower: end, upper: Infinity } : { lower: -Infinity, upper: end },
    sample: sampleByInversion(quantile, survivalQuantile),
  };
}

/** (Γ(1 − ξ) − 1)/ξ. */
function meanOf(shape: number): number {
  return expm1(Math.abs(shape) < NEAR_ZERO ? logGammaBelowOne(shape) : logGamma(1 - shape)) / shape;
}

/** Nearer to 0 than this 1 − ξ loses the digits of ξ. */
const NEAR_ZERO = 1e-3;

/** log Γ(1 − ξ) = γξ + Σ ζ(k)ξᵏ/k (Abramowitz & Stegun 6.1.33). */
const logGammaBelowOne = (x: number): number =>
  x *
  (0.5772156649015329 +
    x *
      (1.6449340668482264 / 2 +
        x *
          (1.2020569031595942 / 3 +
            x * (1.0823232337111382 / 4 + x * (1.0369277551433699 / 5 + (x * 1.0173430619844491) / 6)))));

/** The generalized extreme-value distribution. */
export const generalizedExtremeValue = defineFamily({
  family: 'generalized-extreme-value',
  title: 'generalized extreme value',
  about: 'The maximum of many values, with a bounded, exponential or heavy upper tail.',
  parameters: [
    { ...LOCATION, name: 'location' },
    { ...SCALE, name: 'scale' },
    {
      name: 'shape',
      title: 'shape',
      meaning: 'above 0 a heavy upper tail, 0 a Gumbel distribution, below 0 an upper limit',
      range: {},
      usual: 0.1,
    },
  ],
  of: ({ location, scale, shape }) => scaled(standardOf(shape), location, scale),
  estimation: {
    /** From the L-moments of the readings (Hosking, Wallis & Wood 1985). */
    boundless: ({ shape }) =>
      shape! <= -1
        ? 'The likelihood has no maximum: it increases without limit as the upper end approaches the maximum reading.'
        : null,
    start(x) {
      const n = x.length;
      let b0 = 0;
      let b1 = 0;
      let b2 = 0;
      for (let i = 0; i < n; i++) {
        b0 += x[i]! / n;
        b1 += ((i / (n - 1)) * x[i]!) / n;
        b2 += (((i * (i - 1)) / ((n - 1) * (n - 2 || 1))) * x[i]!) / n;
      }
      const l2 = 2 * b1 - b0;
      const ratio = (6 * b2 - 6 * b1 + b0) / l2;
      const c = 2 / (3 + ratio) - Math.LN2 / 1.0986122886681098;
      const k = Math.max(-0.45, Math.min(0.45, 7.859 * c + 2.9554 * c * c)) || 1e-3;
      const g = exp(logGamma(1 + k));
      const scale = (l2 * k) / (-expm1(-k * Math.LN2) * g);
      return { location: b0 - (scale * (1 - g)) / k, scale, shape: -k };
    },
  },
});
