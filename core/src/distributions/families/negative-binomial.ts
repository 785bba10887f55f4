import { betaLower, betaPrefix, betaUpper, logBetaPrefix } from '../../numeric/beta-tails.js';
import { digamma } from '../../numeric/digamma.js';
import { exp, log, log1p } from '../../numeric/elementary.js';
import { centralMoments } from '../../numeric/sums.js';
import { trigamma } from '../../numeric/trigamma.js';
import { fillGammas } from '../../random/gamma.js';
import { discrete, type Counts } from '../discrete.js';
import { countsFault, defineFamily, PROBABILITY, refuse, shapeParameter } from '../family.js';
import { countsOnly } from '../readings-above.js';
import { poissonCounts } from './poisson.js';

/** Sums of the negative binomial are incomplete betas (Abramowitz & Stegun 26.5.26); the size need not be whole. */
function negativeBinomialCounts(r: number, p: number): Counts {
  const q = 1 - p;
  const logMass = (k: number) => (k === 0 ? r * log(p) : logBetaPrefix(r, k + 1, p, q) - log((r + k) * q));
  return {
    mass: (k) => (k === 0 ? exp(logMass(0)) : betaPrefix(r, k + 1, p, q) / ((r + k) * q)),
    logMass,
    lowerTail: (k) => betaLower(r, k + 1, p, q),
    upperTail: (k) => betaUpper(r, k + 1, p, q),
    mean: (r * q) / p,
    variance: (r * q) / p / p,
    skewness: (1 + q) / Math.sqrt(r * q),
    kurtosis: 6 / r + (p * p) / (r * q),
    support: { lower: 0, upper: Infinity },
    /** A Poisson count whose mean is itself a gamma draw: exactly this distribution (Greenwood & Yule 1920). */
    sample(stream, out) {
      fillGammas(stream, r, out);
      const one = new Float64Array(1);
      for (let i = 0; i < out.length; i++) {
        const mean = (out[i]! * q) / p;
        if (mean > 0) poissonCounts(mean).sample(stream, one);
        out[i] = mean > 0 ? one[0]! : 0;
      }
    },
  };
}

/** The size where the likelihood, with p = r/(r + mean), is greatest: Σ[ψ(x + r) − ψ(r)] = n·log(1 + mean/r), by Newton's steps on log r. */
function sizeOf(x: Float64Array, mean: number, start: number): number {
  const n = x.length;
  let r = start;
  for (let round = 0; round < 200; round++) {
    let first = -n * log1p(mean / r);
    let second = (n * mean) / (r * (r + mean));
    for (let i = 0; i < n; i++) {
      first += digamma(x[i]! + r) - digamma(r);
      second += trigamma(x[i]! + r) - trigamma(r);
    }
    // In log r: slope r·first, curvature r·first + r²·second; uphill by at most a factor e where it is not concave.
    const curvature = r * first + r * r * second;
    const step = curvature < 0 ? Math.max(-1, Math.min(1, (-r * first) / curvature)) : Math.sign(first);
    r *= exp(step);
    if (Math.abs(step) < 1e-13 || r > 1e9) break;
  }
  return r;
}

/** The negative binomial distribution of the failures before the size-th success. */
export const negativeBinomial = defineFamily({
  family: 'negative-binomial',
  title: 'negative binomial',
  about: 'Counts with more variation than Poisson: clustered faults; failures before several successes.',
  discrete: true,
  parameters: [
    {
      ...shapeParameter(
        'the number of successes to wait for; small means clustered, large nearly Poisson',
        3,
        'size',
        'size',
      ),
      name: 'size',
    },
    { ...PROBABILITY, name: 'probability' },
  ],
  conflict: ({ size, probability }) => countsFault(Math.max(size, size / probability), 'size'),
  of: ({ size, probability }) => discrete(negativeBinomialCounts(size, probability)),
  estimation: {
    maximum(x) {
      const odd = countsOnly(x, 'negative binomial');
      if (odd) return odd;
      const { mean, s2, n } = centralMoments(x);
      if (!(mean > 0)) return refuse('All counts are 0, so the size cannot be estimated.');
      if (!(s2 / n > mean)) {
        return refuse(
          'The counts vary no more than Poisson counts, so the size cannot be estimated. Use the Poisson distribution.',
        );
      }
      const size = sizeOf(x, mean, (mean * mean) / (s2 / n - mean));
      return { size, probability: size / (size + mean) };
    },
    fromMoments: (mean, variance) =>
      mean > 0 && variance > mean
        ? { size: (mean * mean) / (variance - mean), probability: mean / variance }
        : refuse('The variance of a negative binomial distribution must exceed its mean.'),
  },
});
