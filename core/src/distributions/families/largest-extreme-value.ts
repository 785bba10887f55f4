import { exp, expm1, log, log1p } from '../../numeric/elementary.js';
import { centralMoments } from '../../numeric/sums.js';
import { defineFamily, LOCATION, SCALE, type Distribution, type Parameters } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { scaled } from '../scaled.js';

const EULER = 0.57721566490153286061;
const VARIANCE = (Math.PI * Math.PI) / 6;
const quantile = (p: number) => -log(-log(p));
const survivalQuantile = (q: number) => -log(-log1p(-q));

/** The standard Gumbel distribution of greatest values, F(z) = exp(−e^−z). */
export const standardLargest: Distribution = {
  density: (z) => exp(-z - exp(-z)),
  logDensity: (z) => -z - exp(-z),
  cumulative: (z) => exp(-exp(-z)),
  survival: (z) => -expm1(-exp(-z)),
  quantile,
  survivalQuantile,
  mean: EULER,
  variance: VARIANCE,
  skewness: 1.13954709940464865749,
  kurtosis: 2.4,
  support: { lower: -Infinity, upper: Infinity },
  sample: sampleByInversion(quantile, survivalQuantile),
};

/**
 * The likelihood equation of the scale, b = mean − Σ x·e^(−x/b)/Σ e^(−x/b), by Newton's steps on log b; the location follows
 * (Johnson, Kotz & Balakrishnan 1995, ch. 22).
 */
export function fitLargest(x: Float64Array): { location: number; scale: number } {
  const { mean, s2, n } = centralMoments(x);
  const least = x.reduce((a, b) => Math.min(a, b));
  let b = Math.sqrt(s2 / n / VARIANCE);
  for (let round = 0; round < 100; round++) {
    let s0 = 0;
    let s1 = 0;
    let s2w = 0;
    for (let i = 0; i < n; i++) {
      const d = x[i]! - least;
      const w = exp(-d / b);
      s0 += w;
      s1 += w * d;
      s2w += w * d * d;
    }
    const centre = s1 / s0;
    const error = b - (mean - least) + centre;
    const slope = 1 + (s2w / s0 - centre * centre) / (b * b);
    const next = Math.max(b / 3, b - error / slope);
    const moved = Math.abs(next - b);
    b = next;
    if (moved < 1e-14 * b) break;
  }
  let sum = 0;
  for (let i = 0; i < n; i++) sum += exp(-(x[i]! - least) / b);
  return { location: least - b * log(sum / n), scale: b };
}

/** The Gumbel distribution of greatest values (1958). */
export const largestExtremeValue = defineFamily({
  family: 'largest-extreme-value',
  title: 'largest extreme value',
  about: 'The maximum of many values: peak loads, deepest pits, daily maxima.',
  parameters: [
    { ...LOCATION, name: 'location', meaning: 'the most frequent value' },
    { ...SCALE, name: 'scale', meaning: 'the standard deviation is 1.28 times this' },
  ],
  of: ({ location, scale }) => scaled(standardLargest, location, scale),
  estimation: {
    maximum: (x): Parameters => ({ ...fitLargest(x) }),
    fromMoments(mean, variance) {
      const scale = Math.sqrt(variance / VARIANCE);
      return { location: mean - EULER * scale, scale };
    },
  },
});
