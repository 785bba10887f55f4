import { exp, expm1, log, log1p } from '../../numeric/elementary.js';
import { defineFamily, refuse, SCALE, type Distribution } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { meanOf, readingsAbove } from '../readings-above.js';
import { scaled } from '../scaled.js';

const quantile = (p: number) => Math.sqrt(-2 * log1p(-p));
const survivalQuantile = (q: number) => Math.sqrt(-2 * log(q));
const variance = 2 - Math.PI / 2;

const standard: Distribution = {
  density: (x) => (x > 0 ? x * exp(-0.5 * x * x) : 0),
  logDensity: (x) => (x > 0 ? log(x) - 0.5 * x * x : -Infinity),
  cumulative: (x) => (x > 0 ? -expm1(-0.5 * x * x) : 0),
  survival: (x) => (x > 0 ? exp(-0.5 * x * x) : 1),
  quantile,
  survivalQuantile,
  mean: Math.sqrt(Math.PI / 2),
  variance,
  skewness: (Math.sqrt(Math.PI / 2) * (Math.PI - 3)) / (variance * Math.sqrt(variance)),
  kurtosis: (-6 * Math.PI * Math.PI + 24 * Math.PI - 16) / (4 - Math.PI) ** 2,
  support: { lower: 0, upper: Infinity },
  sample: sampleByInversion(quantile, survivalQuantile),
};

/** The Rayleigh distribution (1880): the length of two independent normal deviations (Johnson, Kotz & Balakrishnan 1994, ch. 18). */
export const rayleigh = defineFamily({
  family: 'rayleigh',
  title: 'Rayleigh',
  about: 'The distance from a centre when both coordinates have normal errors: run-out, radial play.',
  parameters: [{ ...SCALE, name: 'scale', meaning: 'the standard deviation of each coordinate' }],
  of: ({ scale }) => scaled(standard, 0, scale),
  estimation: {
    maximum(x) {
      const y = readingsAbove(x, 0, 'Rayleigh');
      return 'refused' in y ? y : { scale: Math.sqrt(meanOf(y, (v) => v * v) / 2) };
    },
    fromMoments: (mean) =>
      mean > 0 ? { scale: mean / standard.mean } : refuse('The mean of a Rayleigh distribution must be above 0.'),
  },
});
