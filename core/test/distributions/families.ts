import { completed, familyByName, FAMILIES } from '../../src/distributions/registry.js';
import type { Distribution, Family, Parameters } from '../../src/distributions/family.js';

/** Parameter sets that between them reach every branch: light and heavy tails, tiny and large shapes, thresholds. */
const SETS: Record<string, Parameters[]> = {
  normal: [
    { mean: 0, sd: 1 },
    { mean: 8.02, sd: 0.11 },
  ],
  lognormal: [
    { logMean: 0.6, logSd: 0.46 },
    { logMean: -3, logSd: 0.02, threshold: 1.5 },
  ],
  exponential: [{ scale: 268.4 }, { scale: 0.02, threshold: -1 }],
  gamma: [
    { shape: 0.3, scale: 2 },
    { shape: 4.56, scale: 0.44 },
    { shape: 31, scale: 3, threshold: 10 },
    { shape: 1200, scale: 0.085 },
  ],
  weibull: [
    { shape: 0.46, scale: 300 },
    { shape: 6.63, scale: 1428 },
    { shape: 2, scale: 1, threshold: 5 },
  ],
  logistic: [
    { location: 0, scale: 1 },
    { location: 1342.5, scale: 133.3 },
  ],
  'log-logistic': [
    { logLocation: 1, logScale: 0.1 },
    { logLocation: -2, logScale: 0.22, threshold: 3 },
  ],
  'smallest-extreme-value': [
    { location: 0, scale: 1 },
    { location: 1445, scale: 208 },
  ],
  'largest-extreme-value': [
    { location: 0, scale: 1 },
    { location: 1206, scale: 279 },
  ],
  'generalized-extreme-value': [
    { location: 0, scale: 1, shape: 0.12 },
    { location: 8.5, scale: 2, shape: -0.27 },
    { location: 3, scale: 1, shape: 0 },
    { location: 3, scale: 1, shape: 1e-4 },
  ],
  'half-normal': [{ scale: 1 }, { scale: 0.013 }],
  rayleigh: [{ scale: 1 }, { scale: 0.4 }],
  'inverse-gaussian': [
    { mean: 1, shape: 3 },
    { mean: 68.5, shape: 15 },
    { mean: 0.18, shape: 2.5 },
    { mean: 1, shape: 400 },
  ],
  'birnbaum-saunders': [
    { shape: 0.5, scale: 1 },
    { shape: 1.2, scale: 41 },
  ],
  laplace: [
    { location: 0, scale: 1 },
    { location: -4, scale: 0.3 },
  ],
  cauchy: [
    { location: 0, scale: 1 },
    { location: 12, scale: 0.5 },
  ],
  uniform: [
    { lower: 0, upper: 1 },
    { lower: -3, upper: 12 },
  ],
  triangular: [
    { lower: 0, mode: 0.3, upper: 1 },
    { lower: 2, mode: 2, upper: 5 },
    { lower: 2, mode: 5, upper: 5 },
  ],
  beta: [
    { shape1: 2, shape2: 3 },
    { shape1: 0.4, shape2: 0.7 },
    { shape1: 80, shape2: 12, lower: -1, upper: 4 },
    { shape1: 0.4, shape2: 28 },
  ],
  'student-t': [{ df: 4.5 }, { df: 9, location: 3, scale: 0.2 }, { df: 107 }],
  'chi-square': [{ df: 1 }, { df: 5 }, { df: 60 }],
  f: [
    { df1: 5, df2: 12 },
    { df1: 1.75, df2: 10.3 },
    { df1: 60, df2: 90 },
  ],
  poisson: [{ mean: 0.4 }, { mean: 6.5 }, { mean: 19.1 }, { mean: 4000 }],
  binomial: [
    { trials: 20, probability: 0.1 },
    { trials: 33, probability: 0.84 },
    { trials: 5000, probability: 0.4 },
  ],
  'negative-binomial': [
    { size: 0.7, probability: 0.4 },
    { size: 16, probability: 0.8 },
  ],
  geometric: [{ probability: 0.3 }, { probability: 0.01 }],
  hypergeometric: [
    { population: 200, successes: 10, draws: 25 },
    { population: 60, successes: 50, draws: 40 },
  ],
  'discrete-uniform': [
    { lower: 1, upper: 6 },
    { lower: -20, upper: 400 },
  ],
};

export interface Case {
  name: string;
  family: Family;
  parameters: Parameters;
  distribution: Distribution;
}

export const CASES: Case[] = FAMILIES.flatMap(({ family }) =>
  (SETS[family] ?? []).map((given) => {
    const found = familyByName(family);
    const parameters = completed(found, given);
    return {
      name: `${family} ${JSON.stringify(given)}`,
      family: found,
      parameters,
      distribution: found.of(parameters),
    };
  }),
);
