import { exp, log } from '../numeric/elementary.js';
import { normalQuantile } from '../numeric/standard-normal.js';

/** A ratio with its interval. */
export interface Ratio {
  value: number;
  interval: [number, number];
}

/** A count out of n. */
export interface CountOf {
  count: number;
  n: number;
}

const around = (value: number, spread: number, confidence: number): Ratio => {
  const half = -normalQuantile((1 - confidence) / 2) * spread;
  return { value, interval: [value * exp(-half), value * exp(half)] };
};

/** The ratio of two proportions, normal on the logarithmic scale (Katz et al. 1978); null if one of them is 0. */
export function riskRatio(a: CountOf, b: CountOf, confidence: number): Ratio | null {
  if (a.count === 0 || b.count === 0) return null;
  const spread = Math.sqrt(1 / a.count - 1 / a.n + 1 / b.count - 1 / b.n);
  return around((a.count / a.n) * (b.n / b.count), spread, confidence);
}

/** The odds ratio, normal on the logarithmic scale (Woolf 1955); null if a cell of the table is 0. */
export function oddsRatio(a: CountOf, b: CountOf, confidence: number): Ratio | null {
  const cells = [a.count, a.n - a.count, b.count, b.n - b.count];
  if (cells.some((cell) => cell === 0)) return null;
  const [yes, no, others, rest] = cells as [number, number, number, number];
  const spread = Math.sqrt(cells.reduce((sum, cell) => sum + 1 / cell, 0));
  return around(exp(log(yes) - log(no) + log(rest) - log(others)), spread, confidence);
}
