import { exp, log } from '../../numeric/elementary.js';
import { atan } from '../../numeric/trigonometry.js';
import { normalQuantile, normalSurvival } from '../../numeric/standard-normal.js';

/** The largest n of Royston's approximations; above it W′ is used, and its p is simulated. */
export const SHAPIRO_WILK_GREATEST_N = 5_000;

const polynomial = (coefficients: readonly number[], x: number): number =>
  coefficients.reduceRight((sum, c) => sum * x + c, 0);

/** Blom's approximations m of the normal scores, and their sum of squares. */
function blomScores(n: number): { m: Float64Array; squares: number } {
  const m = new Float64Array(n);
  let squares = 0;
  for (let i = 0; i < n; i++) {
    m[i] = normalQuantile((i + 1 - 0.375) / (n + 0.25));
    squares += m[i]! * m[i]!;
  }
  return { m, squares };
}

/**
 * The weights a of W for n ≥ 3 readings in rising order, with Σa² = 1 and a(i) = −a(n + 1 − i): Royston's (1995, AS R94) approximation to those of
 * Shapiro & Wilk (1965). Above n = 5 000 those of Shapiro & Francia's (1972) W′, the normal scores themselves.
 */
export function shapiroWilkWeights(n: number): Float64Array {
  if (n === 3) return Float64Array.of(-Math.SQRT1_2, 0, Math.SQRT1_2);
  const { m, squares } = blomScores(n);
  if (n > SHAPIRO_WILK_GREATEST_N) return m.map((x) => x / Math.sqrt(squares));
  const u = 1 / Math.sqrt(n);
  const scale = Math.sqrt(squares);
  const last = polynomial([m[n - 1]! / scale, 0.221157, -0.147981, -2.07119, 4.434685, -2.706056], u);
  const next = polynomial([m[n - 2]! / scale, 0.042981, -0.293762, -1.752461, 5.682633, -3.582633], u);
  const ends = n > 5 ? [last, next] : [last];
  const taken = ends.reduce((sum, _, k) => sum + 2 * m[n - 1 - k]! * m[n - 1 - k]!, 0);
  const left = 1 - ends.reduce((sum, a) => sum + 2 * a * a, 0);
  const weights = m.map((x) => x / Math.sqrt((squares - taken) / left));
  for (const [k, a] of ends.entries()) {
    weights[n - 1 - k] = a;
    weights[k] = -a;
  }
  return weights;
}

/** W of standard scores (divisor n − 1) in rising order: the squared correlation of the readings with the weights. */
export function shapiroWilk(scores: Float64Array, weights: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < scores.length; i++) sum += weights[i]! * scores[i]!;
  return Math.min(1, (sum * sum) / (scores.length - 1));
}

/** The p-value of W by Royston (1995), exact for n = 3; null above n = 5 000, and for a W beyond the formula's reach. */
export function shapiroWilkAsymptotic(w: number, n: number): number | null {
  if (n > SHAPIRO_WILK_GREATEST_N) return null;
  // Two-thirds of a circle: W of three readings is at least 3/4.
  if (n === 3) return Math.max(0, (6 / Math.PI) * (atan(Math.sqrt(w / (1 - w))) - Math.PI / 3));
  const rest = log(1 - w);
  if (n <= 11) {
    const reach = -2.273 + 0.459 * n - rest;
    if (reach <= 0) return null;
    const mean = polynomial([0.544, -0.39978, 0.025054, -6.714e-4], n);
    const sd = exp(polynomial([1.3822, -0.77857, 0.062767, -0.0020322], n));
    return normalSurvival((-log(reach) - mean) / sd);
  }
  const x = log(n);
  const mean = polynomial([-1.5861, -0.31082, -0.083751, 0.0038915], x);
  const sd = exp(polynomial([-0.4803, -0.082676, 0.0030302], x));
  return normalSurvival((rest - mean) / sd);
}
