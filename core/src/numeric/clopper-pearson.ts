import { betaLowerQuantile } from './beta-quantile.js';

/** The interval of Clopper & Pearson (1934) for a proportion, from b successes in trials; coverage is at least the confidence. */
export function clopperPearson(b: number, trials: number, confidence = 0.95): [number, number] {
  const tail = (1 - confidence) / 2;
  const low = b === 0 ? 0 : betaLowerQuantile(b, trials - b + 1, tail).x;
  const high = b === trials ? 1 : betaLowerQuantile(b + 1, trials - b, 1 - tail).x;
  return [low, high];
}
