import { betaQuantile } from './beta.js';

/** The interval of Clopper & Pearson (1934) for a share, from b successes in trials; covers with at least the confidence. */
export function clopperPearson(b: number, trials: number, confidence = 0.95): [number, number] {
  const tail = (1 - confidence) / 2;
  const low = b === 0 ? 0 : betaQuantile(tail, b, trials - b + 1);
  const high = b === trials ? 1 : betaQuantile(1 - tail, b + 1, trials - b);
  return [low, high];
}
