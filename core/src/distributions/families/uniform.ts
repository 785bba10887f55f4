import { log } from '../../numeric/elementary.js';
import { nextOpenUnit } from '../../random/stream.js';
import { defineFamily, endsFault, LOWER_END, UPPER_END, type Distribution } from '../family.js';
import { isProbability } from '../scaled.js';

function distributionOf(lower: number, upper: number): Distribution {
  const width = upper - lower;
  const inside = (x: number) => x >= lower && x <= upper;
  return {
    density: (x) => (inside(x) ? 1 / width : 0),
    logDensity: (x) => (inside(x) ? -log(width) : -Infinity),
    cumulative: (x) => Math.min(1, Math.max(0, (x - lower) / width)),
    survival: (x) => Math.min(1, Math.max(0, (upper - x) / width)),
    quantile: (p) => (isProbability(p) ? (p > 0.5 ? upper - width * (1 - p) : lower + width * p) : NaN),
    survivalQuantile: (q) => (isProbability(q) ? (q > 0.5 ? lower + width * (1 - q) : upper - width * q) : NaN),
    mean: lower + width / 2,
    variance: (width * width) / 12,
    skewness: 0,
    kurtosis: -1.2,
    support: { lower, upper },
    sample(stream, out) {
      for (let i = 0; i < out.length; i++) out[i] = lower + width * nextOpenUnit(stream);
    },
  };
}

/** The continuous uniform distribution. */
export const uniform = defineFamily({
  family: 'uniform',
  title: 'uniform',
  about:
    'All values between two limits are equally likely: rounding errors, random phases, a tolerance without further information.',
  parameters: [
    { ...LOWER_END, name: 'lower' },
    { ...UPPER_END, name: 'upper' },
  ],
  conflict: endsFault,
  of: ({ lower, upper }) => distributionOf(lower, upper),
  estimation: {
    ends: ['lower', 'upper'],
    maximum: (x) => ({ lower: x[0]!, upper: x[x.length - 1]! }),
    fromMoments: (mean, variance) => {
      const half = Math.sqrt(3 * variance);
      return { lower: mean - half, upper: mean + half };
    },
  },
});
