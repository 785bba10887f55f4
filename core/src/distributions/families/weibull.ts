import { exp, expm1, log, log1p, power, root } from '../../numeric/elementary.js';
import { logGamma } from '../../numeric/log-gamma.js';
import { defineFamily, refuse, SCALE, shapeParameter, THRESHOLD, type Distribution } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { powerMoments, zeta } from '../power-moments.js';
import { meanOf, readingsAbove } from '../readings-above.js';
import { scaled } from '../scaled.js';

/** E^(1/shape) for a standard exponential E. */
function standardWeibull(shape: number): Distribution {
  const quantile = (p: number) => root(-log1p(-p), shape);
  const survivalQuantile = (q: number) => root(-log(q), shape);
  const logDensity = (x: number) => log(shape) + (shape - 1) * log(x) - power(x, shape);
  const atZero = shape < 1 ? Infinity : shape === 1 ? 1 : 0;
  return {
    density(x) {
      if (!(x > 0)) return x === 0 ? atZero : 0;
      const e = power(x, shape);
      // Beyond a double e^−e is 0 long before the power is what it is multiplied by.
      return e < 1e300 ? exp(-e) * shape * power(x, shape - 1) : 0;
    },
    logDensity: (x) => (x > 0 ? logDensity(x) : x === 0 ? log(atZero) : -Infinity),
    cumulative: (x) => (x > 0 ? -expm1(-power(x, shape)) : 0),
    survival: (x) => (x > 0 ? exp(-power(x, shape)) : 1),
    quantile,
    survivalQuantile,
    ...powerMoments(
      1 / shape,
      (t) => logGamma(1 + t),
      (n) => ((n % 2 === 0 ? 1 : -1) * zeta(n)) / n,
    ),
    support: { lower: 0, upper: Infinity },
    sample: sampleByInversion(quantile, survivalQuantile),
  };
}

/** The shape k with Σ yᵏ·log y/Σ yᵏ − 1/k = mean log y, `u` being log(y/greatest): Newton's steps, kept positive. */
function shapeOf(u: Float64Array): number {
  const meanLog = meanOf(u, (v) => v);
  let k = 1.2825498301618641 / Math.sqrt(meanOf(u, (v) => (v - meanLog) ** 2));
  for (let round = 0; round < 100; round++) {
    let s0 = 0;
    let s1 = 0;
    let s2 = 0;
    for (let i = 0; i < u.length; i++) {
      const w = exp(k * u[i]!);
      s0 += w;
      s1 += w * u[i]!;
      s2 += w * u[i]! * u[i]!;
    }
    const error = s1 / s0 - 1 / k - meanLog;
    const slope = s2 / s0 - (s1 / s0) ** 2 + 1 / (k * k);
    const next = Math.max(k / 3, k - error / slope);
    const moved = Math.abs(next - k);
    k = next;
    // The error of the next step would be the square of this one.
    if (moved < 1e-9 * k) break;
  }
  return k;
}

/** The relative spread (variance over squared mean) of a standard Weibull falls with its shape: solved by halving log shape. */
function shapeOfSpread(ratio: number): number {
  let low = -4;
  let high = 14;
  for (let round = 0; round < 200 && high - low > 1e-15 * Math.max(1, Math.abs(low)); round++) {
    const middle = (low + high) / 2;
    const { mean, variance } = standardWeibull(exp(middle));
    if (variance / (mean * mean) > ratio) low = middle;
    else high = middle;
  }
  return exp((low + high) / 2);
}

/** The Weibull distribution (Weibull 1951): strengths and lifetimes that depend on the weakest part. */
export const weibull = defineFamily({
  family: 'weibull',
  title: 'Weibull',
  about: 'Strengths and lifetimes determined by the weakest link: breaking forces, times to failure.',
  parameters: [
    { ...shapeParameter('below 1 early failures, 1 exponential, about 3.5 nearly symmetric', 2), name: 'shape' },
    { ...SCALE, name: 'scale', meaning: 'the 63.2 % quantile, measured from the threshold' },
    { ...THRESHOLD, name: 'threshold' },
  ],
  of: ({ shape, scale, threshold }) => scaled(standardWeibull(shape), threshold, scale),
  estimation: {
    maximum(x, { threshold = 0 }) {
      const y = readingsAbove(x, threshold, 'Weibull');
      if ('refused' in y) return y;
      const greatest = y[y.length - 1]!;
      const u = y.map((v) => log(v / greatest));
      const shape = shapeOf(u);
      return {
        shape,
        scale:
          greatest *
          root(
            meanOf(u, (v) => exp(shape * v)),
            shape,
          ),
      };
    },
    fromMoments(mean, variance, { threshold = 0 }) {
      const above = mean - threshold;
      if (!(above > 0)) return refuse('The mean of a Weibull distribution must be above its threshold.');
      const shape = shapeOfSpread(variance / (above * above));
      return { shape, scale: above / standardWeibull(shape).mean };
    },
  },
});
