import { betaLower, betaPrefix, betaUpper, logBetaPrefix } from '../../numeric/beta-tails.js';
import { exp, log, log1p } from '../../numeric/elementary.js';
import { discrete, sampleByTransformedRejection, sampleFromMode, type Counts } from '../discrete.js';
import { defineFamily, PROBABILITY, refuse } from '../family.js';
import { countsOnly, meanOf } from '../readings-above.js';
import { REJECTION_FROM } from './poisson.js';

/** Sums of the binomial distribution are incomplete betas (Abramowitz & Stegun 26.5.24). */
function binomialCounts(n: number, p: number): Counts {
  const q = 1 - p;
  // One probability is the prefix of the beta, (n + 1)·C(n, k)·p^(k+1)·q^(n−k+1), which is a saddle point for large shapes (Loader 2000).
  const scale = (n + 1) * p * q;
  const logMass = (k: number): number => {
    if (k === 0) return n * log1p(-p);
    if (k === n) return n * log(p);
    return logBetaPrefix(k + 1, n - k + 1, p, q) - log(scale);
  };
  const mass = (k: number) => (k === 0 || k === n ? exp(logMass(k)) : betaPrefix(k + 1, n - k + 1, p, q) / scale);
  const support = { lower: 0, upper: n };
  const mean = n * p;
  const variance = n * p * q;
  return {
    mass,
    logMass,
    lowerTail: (k) => betaUpper(k + 1, n - k, p, q),
    upperTail: (k) => betaLower(k + 1, n - k, p, q),
    mean,
    variance,
    skewness: (q - p) / Math.sqrt(variance),
    kurtosis: (1 - 6 * p * q) / variance,
    support,
    sample: samplerOf(n, p, mass, logMass),
  };
}

/** Counts the rarer of success and failure, for which the constants of Hörmann (1993) hold. */
function samplerOf(
  n: number,
  p: number,
  mass: (k: number) => number,
  logMass: (k: number) => number,
): Counts['sample'] {
  if (p > 0.5) {
    const failures = binomialCounts(n, 1 - p).sample;
    return (stream, out) => {
      failures(stream, out);
      for (let i = 0; i < out.length; i++) out[i] = n - out[i]!;
    };
  }
  const support = { lower: 0, upper: n };
  const mode = Math.floor((n + 1) * p);
  if (n * p < REJECTION_FROM) {
    return sampleFromMode(mode, mass(mode), (k) => ((n - k + 1) / k) * (p / (1 - p)), support);
  }
  const spread = Math.sqrt(n * p * (1 - p));
  const b = 1.15 + 2.53 * spread;
  return sampleByTransformedRejection(
    { logMass, support },
    {
      a: -0.0873 + 0.0248 * b + 0.01 * p,
      b,
      centre: n * p + 0.5,
      squeeze: 0.92 - 4.2 / b,
      scale: (2.83 + 5.1 / b) * spread,
      logPeak: logMass(mode),
    },
  );
}

/** The binomial distribution. */
export const binomial = defineFamily({
  family: 'binomial',
  title: 'binomial',
  about: 'The number of successes in a fixed number of independent trials: faulty tiles in a carton.',
  discrete: true,
  parameters: [
    {
      name: 'trials',
      title: 'trials',
      meaning: 'the number of trials of one count',
      range: { from: 1, to: 1e12, whole: true },
      usual: 20,
    },
    { ...PROBABILITY, name: 'probability', usual: 0.1 },
  ],
  of: ({ trials, probability }) => discrete(binomialCounts(trials, probability)),
  estimation: {
    given: ['trials'],
    maximum(x, { trials = NaN }) {
      const odd = countsOnly(x, 'binomial');
      if (odd) return odd;
      if (!(trials > 0)) return refuse('A binomial distribution needs the number of trials of each count.');
      if (x[x.length - 1]! > trials) return refuse(`A count of ${x[x.length - 1]!} exceeds ${trials} trials.`);
      const share = meanOf(x, (v) => v) / trials;
      if (share > 0 && share < 1) return { probability: share };
      return refuse(
        'All trials had the same outcome, so the estimated probability is 0 or 1, which is not a distribution.',
      );
    },
    fromMoments: (mean, _variance, { trials = NaN }) =>
      mean > 0 && mean < trials
        ? { trials, probability: mean / trials }
        : refuse('The mean of a binomial distribution must lie between 0 and the number of trials.'),
  },
});
