import { exp, expm1, log, log1p } from '../../numeric/elementary.js';
import { nextExponential } from '../../random/exponential.js';
import { defineFamily, refuse, SCALE, THRESHOLD, type Distribution } from '../family.js';
import { meanOf, readingsAbove } from '../readings-above.js';
import { scaled } from '../scaled.js';

const quantile = (p: number) => -log1p(-p);
const survivalQuantile = (q: number) => -log(q);

/** The standard exponential, mean 1. */
const standard: Distribution = {
  density: (x) => (x >= 0 ? exp(-x) : 0),
  logDensity: (x) => (x >= 0 ? -x : -Infinity),
  cumulative: (x) => (x > 0 ? -expm1(-x) : 0),
  survival: (x) => (x > 0 ? exp(-x) : 1),
  quantile,
  survivalQuantile,
  mean: 1,
  variance: 1,
  skewness: 2,
  kurtosis: 6,
  support: { lower: 0, upper: Infinity },
  sample(stream, out) {
    for (let i = 0; i < out.length; i++) out[i] = nextExponential(stream);
  },
};

/** The exponential distribution: waiting times between events that come at a steady rate (Johnson, Kotz & Balakrishnan 1994, ch. 19). */
export const exponential = defineFamily({
  family: 'exponential',
  title: 'exponential',
  about: 'Waiting times between random events at a constant rate; lifetimes without ageing.',
  parameters: [
    { ...SCALE, name: 'scale', meaning: 'the mean waiting time above the threshold' },
    { ...THRESHOLD, name: 'threshold' },
  ],
  of: ({ scale, threshold }) => scaled(standard, threshold, scale),
  estimation: {
    maximum(x, { threshold = 0 }) {
      const y = readingsAbove(x, threshold, 'exponential', true);
      return 'refused' in y ? y : { scale: meanOf(y, (v) => v) };
    },
    fromMoments: (mean, _variance, { threshold = 0 }) =>
      mean > threshold
        ? { scale: mean - threshold }
        : refuse('The mean of an exponential distribution must be above its threshold.'),
  },
});
