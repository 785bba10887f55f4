import { exp, expm1, log, log1p } from '../../numeric/elementary.js';
import { nextOpenUnit } from '../../random/stream.js';
import { discrete, type Counts } from '../discrete.js';
import { countsFault, defineFamily, PROBABILITY, refuse } from '../family.js';
import { countsOnly, meanOf } from '../readings-above.js';

function geometricCounts(p: number): Counts {
  const q = 1 - p;
  const logQ = log1p(-p);
  return {
    mass: (k) => p * exp(k * logQ),
    logMass: (k) => log(p) + k * logQ,
    lowerTail: (k) => -expm1((k + 1) * logQ),
    upperTail: (k) => exp((k + 1) * logQ),
    mean: q / p,
    variance: q / p / p,
    skewness: (1 + q) / Math.sqrt(q),
    kurtosis: 6 + (p * p) / q,
    support: { lower: 0, upper: Infinity },
    /** By inversion: the k with q^(k+1) < u ≤ q^k, which has the probability p·q^k exactly. */
    sample(stream, out) {
      for (let i = 0; i < out.length; i++) out[i] = Math.floor(log(nextOpenUnit(stream)) / logQ);
    },
  };
}

/** The geometric distribution of the failures before the first success. */
export const geometric = defineFamily({
  family: 'geometric',
  title: 'geometric',
  about: 'The number of failures before the first success.',
  discrete: true,
  parameters: [{ ...PROBABILITY, name: 'probability' }],
  conflict: ({ probability }) => countsFault(1 / probability, 'probability'),
  of: ({ probability }) => discrete(geometricCounts(probability)),
  estimation: {
    maximum(x) {
      const odd = countsOnly(x, 'geometric');
      if (odd) return odd;
      const mean = meanOf(x, (v) => v);
      if (mean > 0) return { probability: 1 / (1 + mean) };
      return refuse('All counts are 0, so the estimated probability is 1, which is not a distribution.');
    },
    fromMoments: (mean) =>
      mean > 0 ? { probability: 1 / (1 + mean) } : refuse('The mean of a geometric distribution must be above 0.'),
  },
});
