import { exp, log, log1p } from '../../numeric/elementary.js';
import { centralMoments } from '../../numeric/sums.js';
import { defineFamily, LOCATION, SCALE, type Distribution, type Parameters } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { scaled } from '../scaled.js';

/** log(p/(1 − p)), exact also next to p = ½, where it is 2·artanh(2p − 1). */
export function logit(p: number): number {
  const d = 2 * p - 1;
  return Math.abs(d) < 0.1 ? log1p((2 * d) / (1 - d)) : log(p / (1 - p));
}

const survivalQuantile = (q: number) => -logit(q);
/** The lower tail at z; the upper tail is that of −z. */
const tail = (z: number) => (z > 0 ? 1 / (1 + exp(-z)) : exp(z) / (1 + exp(z)));

const VARIANCE = (Math.PI * Math.PI) / 3;

const standard: Distribution = {
  density: (z) => tail(z) * tail(-z),
  logDensity: (z) => -Math.abs(z) - 2 * log1p(exp(-Math.abs(z))),
  cumulative: tail,
  survival: (z) => tail(-z),
  quantile: logit,
  survivalQuantile,
  mean: 0,
  variance: VARIANCE,
  skewness: 0,
  kurtosis: 1.2,
  support: { lower: -Infinity, upper: Infinity },
  sample: sampleByInversion(logit, survivalQuantile),
};

/**
 * The likelihood equations Σ tanh(z/2) = 0 and Σ [z·tanh(z/2) − 1] = 0 by scoring, the expected information standing in for the curvature
 * (Johnson, Kotz & Balakrishnan 1995, ch. 23.10). The equations have one solution.
 */
export function fitLogistic(x: Float64Array): { location: number; scale: number } {
  const { mean, s2, n } = centralMoments(x);
  let location = mean;
  let scale = Math.sqrt(s2 / n / VARIANCE);
  for (let round = 0; round < 200; round++) {
    let first = 0;
    let second = 0;
    for (let i = 0; i < n; i++) {
      const z = (x[i]! - location) / scale;
      const w = tail(z) - tail(-z);
      first += w;
      second += z * w - 1;
    }
    const along = (3 * first) / n;
    const wider = Math.max(-0.5, Math.min(0.5, second / n / (1 / 3 + VARIANCE / 3)));
    location += scale * along;
    scale *= exp(wider);
    if (Math.abs(along) + Math.abs(wider) < 1e-14) break;
  }
  return { location, scale };
}

/** The logistic distribution (Johnson, Kotz & Balakrishnan 1995, ch. 23). */
export const logistic = defineFamily({
  family: 'logistic',
  title: 'logistic',
  about: 'Symmetric like the normal, with somewhat heavier tails.',
  parameters: [
    { ...LOCATION, name: 'location', meaning: 'where the curve is centred: its mean and median' },
    { ...SCALE, name: 'scale', meaning: 'its sd is 1.81 times this' },
  ],
  of: ({ location, scale }) => scaled(standard, location, scale),
  estimation: {
    maximum: (x): Parameters => ({ ...fitLogistic(x) }),
    fromMoments: (mean, variance) => ({ location: mean, scale: Math.sqrt(variance / VARIANCE) }),
  },
});
