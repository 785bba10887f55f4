import { root } from '../../numeric/elementary.js';
import { normalQuantile } from '../../numeric/standard-normal.js';

/** Filliben's (1975) scores of n readings: normal quantiles at his approximation to the medians of the order statistics. */
export function fillibenScores(n: number): Float64Array {
  const last = root(0.5, n);
  return Float64Array.from({ length: n }, (_, i) => {
    if (i === 0 && n > 1) return normalQuantile(1 - last);
    if (i === n - 1 && n > 1) return normalQuantile(last);
    return normalQuantile((i + 1 - 0.3175) / (n + 0.365));
  });
}

/** The correlation of standard scores (divisor n − 1), in rising order, with Filliben's: 1 for a straight normal plot. */
export function plotCorrelation(scores: Float64Array, filliben: Float64Array): number {
  let sum = 0;
  let squares = 0;
  for (let i = 0; i < scores.length; i++) {
    sum += filliben[i]! * scores[i]!;
    squares += filliben[i]! * filliben[i]!;
  }
  return Math.min(1, sum / Math.sqrt(squares * (scores.length - 1)));
}
