import { pOfMean, welch } from '../../src/claims/means.js';
import { wilson } from '../../src/claims/shares.js';
import { centralMoments } from '../../src/numeric/sums.js';

const figures = (values: Float64Array) => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
};

/** Two-sided p of Welch's test. */
export const bothWelch = (a: Float64Array, b: Float64Array): number =>
  pOfMean(welch(figures(a), figures(b)), 'two-sided');

export const wilsonOf = (count: number, n: number): [number, number] => wilson(count, n, 0.95);
