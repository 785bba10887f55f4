import { logBetaPrefix } from '../../numeric/beta-tails.js';
import { exp, log, log1p } from '../../numeric/elementary.js';
import { discrete, sampleFromMode, type Counts } from '../discrete.js';
import { defineFamily } from '../family.js';

/** log of C(n, k)·p^k·(1 − p)^(n−k). */
function logBinomial(k: number, n: number, p: number): number {
  if (k === 0) return n * log1p(-p);
  if (k === n) return n * log(p);
  return logBetaPrefix(k + 1, n - k + 1, p, 1 - p) - log((n + 1) * p * (1 - p));
}

function hypergeometricCounts(population: number, successes: number, draws: number): Counts {
  const failures = population - successes;
  const lower = Math.max(0, draws - failures);
  const upper = Math.min(successes, draws);
  const p = draws / population;
  const share = successes / population;
  /** Three binomials with the same p, in which p cancels (Loader 2000): no large factorials meet. */
  const logMass = (k: number): number => {
    if (lower === upper) return 0;
    if (draws === population || draws === 0) return 0;
    return logBinomial(k, successes, p) + logBinomial(draws - k, failures, p) - logBinomial(draws, population, p);
  };
  const mass = (k: number) => exp(logMass(k));
  /** mass(k)/mass(k − 1). */
  const ratio = (k: number) => ((successes - k + 1) / k) * ((draws - k + 1) / (failures - draws + k));
  /** Σ mass from k away from the mode: the terms fall ever faster. */
  const outward = (k: number, step: 1 | -1): number => {
    if (k < lower || k > upper) return 0;
    const first = mass(k);
    let term = 1;
    let sum = 1;
    for (let j = k; step > 0 ? j < upper : j > lower;) {
      term = step > 0 ? term * ratio(j + 1) : term / ratio(j);
      j += step;
      sum += term;
      if (term < sum * 1e-18) break;
    }
    return Math.min(1, first * sum);
  };
  const mode = Math.floor(((draws + 1) * (successes + 1)) / (population + 2));
  const lowerTail = (k: number) => (k < mode ? outward(k, -1) : 1 - outward(k + 1, 1));
  const upperTail = (k: number) => (k < mode ? 1 - outward(k, -1) : outward(k + 1, 1));
  const rest = 1 - share;
  const variance = population === 1 ? 0 : (draws * share * rest * (population - draws)) / (population - 1);
  return {
    mass,
    logMass,
    lowerTail,
    upperTail,
    mean: draws * share,
    variance,
    ...shapeOf(population, successes, draws),
    support: { lower, upper },
    sample: sampleFromMode(mode, mass(mode), ratio, { lower, upper }),
  };
}

/** Skewness and excess kurtosis (Johnson, Kemp & Kotz 2005, ch. 6). */
function shapeOf(N: number, K: number, n: number): { skewness: number; kurtosis: number } {
  const product = n * K * (N - K) * (N - n);
  if (N < 4 || product === 0) return { skewness: product === 0 ? NaN : 0, kurtosis: NaN };
  const skewness = ((N - 2 * K) * Math.sqrt(N - 1) * (N - 2 * n)) / (Math.sqrt(product) * (N - 2));
  const inner =
    (N - 1) * N * N * (N * (N + 1) - 6 * K * (N - K) - 6 * n * (N - n)) + 6 * n * K * (N - K) * (N - n) * (5 * N - 6);
  return { skewness, kurtosis: inner / (product * (N - 2) * (N - 3)) };
}

const whole = { from: 0, to: 1e9, whole: true };

/** The hypergeometric distribution: successes among draws without replacement. */
export const hypergeometric = defineFamily({
  family: 'hypergeometric',
  title: 'hypergeometric',
  about: 'The number of faulty pieces in a sample drawn from a lot without replacement.',
  discrete: true,
  parameters: [
    {
      name: 'population',
      title: 'population',
      meaning: 'the size of the lot',
      range: { ...whole, from: 1 },
      usual: 200,
    },
    {
      name: 'successes',
      title: 'successes',
      meaning: 'the number of pieces in the lot with the property counted',
      range: whole,
      usual: 10,
    },
    { name: 'draws', title: 'draws', meaning: 'the sample size', range: whole, usual: 25 },
  ],
  conflict({ population, successes, draws }) {
    if (successes > population)
      return { name: 'successes', message: `Successes must be at most ${population}, the size of the population.` };
    if (draws > population)
      return { name: 'draws', message: `Draws must be at most ${population}, the size of the population.` };
    return null;
  },
  of: ({ population, successes, draws }) => discrete(hypergeometricCounts(population, successes, draws)),
  estimation: {
    never: 'A hypergeometric distribution cannot be fitted to readings; lot, successes and draws must be known.',
  },
});
