import { exp, expm1, log } from '../../numeric/elementary.js';
import { defineFamily, LOCATION, SCALE, type Distribution } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { meanOf } from '../readings-above.js';
import { scaled } from '../scaled.js';

const tail = (z: number) => (z > 0 ? 1 - 0.5 * exp(-z) : 0.5 * exp(z));
const quantile = (p: number) => (p > 0.5 ? -log(2 * (1 - p)) : log(2 * p));
const survivalQuantile = (q: number) => -quantile(q);

const standard: Distribution = {
  density: (z) => 0.5 * exp(-Math.abs(z)),
  logDensity: (z) => -Math.abs(z) - Math.LN2,
  cumulative: (z) => (Math.abs(z) < 0.1 ? 0.5 - 0.5 * Math.sign(z) * expm1(-Math.abs(z)) : tail(z)),
  survival: (z) => (Math.abs(z) < 0.1 ? 0.5 + 0.5 * Math.sign(z) * expm1(-Math.abs(z)) : tail(-z)),
  quantile,
  survivalQuantile,
  mean: 0,
  variance: 2,
  skewness: 0,
  kurtosis: 3,
  support: { lower: -Infinity, upper: Infinity },
  sample: sampleByInversion(quantile, survivalQuantile),
};

/** The Laplace distribution (1774): the median and the mean deviation from it are its maximum-likelihood estimates. */
export const laplace = defineFamily({
  family: 'laplace',
  title: 'Laplace',
  about: 'A sharp peak with exponential tails on both sides: differences, errors with occasional large values.',
  parameters: [
    { ...LOCATION, name: 'location', meaning: 'the position of the peak: the mean and the median' },
    { ...SCALE, name: 'scale', meaning: 'the mean distance from the peak' },
  ],
  of: ({ location, scale }) => scaled(standard, location, scale),
  estimation: {
    maximum(x) {
      const n = x.length;
      const location = 0.5 * (x[(n - 1) >> 1]! + x[n >> 1]!);
      return { location, scale: meanOf(x, (v) => Math.abs(v - location)) };
    },
    fromMoments: (mean, variance) => ({ location: mean, scale: Math.sqrt(variance / 2) }),
    // The likelihood has a kink at the median and no curvature there: the expected information stands in.
    information: ({ scale }, n) => ({
      names: ['location', 'scale'],
      matrix: [
        [n / (scale! * scale!), 0],
        [0, n / (scale! * scale!)],
      ],
    }),
  },
});
