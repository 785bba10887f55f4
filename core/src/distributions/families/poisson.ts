import { exp } from '../../numeric/elementary.js';
import { gammaLower, gammaPrefix, gammaUpper, logGammaPrefix } from '../../numeric/gamma-tails.js';
import { discrete, sampleByTransformedRejection, sampleFromMode, type Counts } from '../discrete.js';
import { countsFault, defineFamily, refuse, SCALE } from '../family.js';
import { countsOnly, meanOf } from '../readings-above.js';

/** From this mean on the constants of transformed rejection hold. */
export const REJECTION_FROM = 10;

/** Sums of the Poisson distribution are incomplete gammas (Abramowitz & Stegun 26.4.21). */
export function poissonCounts(mean: number): Counts {
  const mass = (k: number) => (k === 0 ? exp(-mean) : gammaPrefix(k, mean));
  const logMass = (k: number) => (k === 0 ? -mean : logGammaPrefix(k, mean));
  const support = { lower: 0, upper: Infinity };
  const b = 0.931 + 2.53 * Math.sqrt(mean);
  const mode = Math.floor(mean);
  const sample =
    mean < REJECTION_FROM
      ? sampleFromMode(mode, mass(mode), (k) => mean / k, support)
      : sampleByTransformedRejection(
          { logMass, support },
          {
            a: -0.059 + 0.02483 * b,
            b,
            centre: mean + 0.43,
            squeeze: 0.9277 - 3.6224 / (b - 2),
            scale: 1.1239 + 1.1328 / (b - 3.4),
            logPeak: 0,
          },
        );
  return {
    mass,
    logMass,
    lowerTail: (k) => gammaUpper(k + 1, mean),
    upperTail: (k) => gammaLower(k + 1, mean),
    mean,
    variance: mean,
    skewness: 1 / Math.sqrt(mean),
    kurtosis: 1 / mean,
    support,
    sample,
  };
}

/** The Poisson distribution (1837). */
export const poisson = defineFamily({
  family: 'poisson',
  title: 'Poisson',
  about: 'The number of independent events in a fixed area or time: pinholes on a tile, calls in an hour.',
  discrete: true,
  parameters: [{ ...SCALE, name: 'mean', title: 'mean', meaning: 'the mean number of events' }],
  conflict: ({ mean }) => countsFault(mean, 'mean'),
  of: ({ mean }) => discrete(poissonCounts(mean)),
  estimation: {
    maximum(x) {
      const odd = countsOnly(x, 'Poisson');
      if (odd) return odd;
      const mean = meanOf(x, (v) => v);
      return mean > 0 ? { mean } : refuse('All counts are 0, so the estimated mean is 0, which is not a distribution.');
    },
    fromMoments: (mean) => (mean > 0 ? { mean } : refuse('The mean of a Poisson distribution must be above 0.')),
  },
});
