import { binomial } from '../distributions/families/binomial.js';
import { hypergeometric } from '../distributions/families/hypergeometric.js';
import { poisson } from '../distributions/families/poisson.js';
import { gammaLowerQuantile, gammaUpperQuantile } from '../numeric/gamma-quantile.js';
import { normalQuantile } from '../numeric/standard-normal.js';
import type { Alternative } from './alternative.js';
import { exactP } from './exact-tails.js';

/** The exact p of a count out of n under a claimed proportion. A claim of 0 or 1 is refuted by a single contrary outcome. */
export function shareP(count: number, n: number, claimed: number, alternative: Alternative): number {
  if (claimed === 0) return alternative === 'less' || count === 0 ? 1 : 0;
  if (claimed === 1) return alternative === 'greater' || count === n ? 1 : 0;
  return exactP(binomial.of({ trials: n, probability: claimed }), count, { least: 0, greatest: n }, alternative);
}

/** The interval of a proportion by Wilson (1927): the proportions that the normal test does not reject. */
export function wilson(count: number, n: number, confidence: number): [number, number] {
  const z = -normalQuantile((1 - confidence) / 2);
  const share = count / n;
  const middle = (share + (z * z) / (2 * n)) / (1 + (z * z) / n);
  const half = (z / (1 + (z * z) / n)) * Math.sqrt((share * (1 - share)) / n + (z * z) / (4 * n * n));
  // At the ends the two parts are equal, and rounding alone is between them.
  return [count === 0 ? 0 : middle - half, count === n ? 1 : middle + half];
}

/** The interval of the difference of two proportions (Newcombe 1998, method 10), from the two Wilson intervals. */
export function newcombe(
  a: { count: number; n: number },
  b: { count: number; n: number },
  confidence: number,
): [number, number] {
  const [p, q] = [a.count / a.n, b.count / b.n];
  const [[lowA, highA], [lowB, highB]] = [wilson(a.count, a.n, confidence), wilson(b.count, b.n, confidence)];
  const d = p - q;
  return [d - Math.sqrt((p - lowA) ** 2 + (highB - q) ** 2), d + Math.sqrt((highA - p) ** 2 + (q - lowB) ** 2)];
}

/** Beyond so many sd a count of Poisson has no chance that a double tells. */
const FAR = 50;

/** The exact p of a count under a claimed rate over an exposure. */
export function rateP(count: number, exposure: number, claimed: number, alternative: Alternative): number {
  const mean = claimed * exposure;
  const greatest = Math.ceil(Math.max(count, mean) + FAR * Math.sqrt(Math.max(1, mean)));
  return exactP(poisson.of({ mean }), count, { least: 0, greatest }, alternative);
}

/** The exact interval of a rate (Garwood 1936). */
export function rateInterval(count: number, exposure: number, confidence: number): [number, number] {
  const tail = (1 - confidence) / 2;
  return [count === 0 ? 0 : gammaLowerQuantile(count, tail) / exposure, gammaUpperQuantile(count + 1, tail) / exposure];
}

/** Fisher's exact test (1935) of a two-by-two table with fixed margins. */
export function fisherP(
  [[a, b], [c, d]]: readonly [readonly [number, number], readonly [number, number]],
  alternative: Alternative,
): number {
  const [rows, first] = [a + b, a + c];
  const population = a + b + c + d;
  const ends = { least: Math.max(0, first + rows - population), greatest: Math.min(rows, first) };
  return exactP(hypergeometric.of({ population, successes: first, draws: rows }), a, ends, alternative);
}
