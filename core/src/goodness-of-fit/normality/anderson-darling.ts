import { exp } from '../../numeric/elementary.js';
import { normalLogCumulative } from '../../numeric/standard-normal.js';

/**
 * A² of sorted readings against a normal with this mean and SD: −n − (1/n) Σ (2i − 1)(ln F(x_i) + ln(1 − F(x_{n+1−i}))) (Anderson & Darling 1954).
 * Every term is computed as a logarithm from its own tail, so that a reading at 300 SD gives a finite value.
 */
export function andersonDarling(sorted: Float64Array, mean: number, sd: number): number {
  const n = sorted.length;
  let sum = 0;
  for (let i = 0; i < n; i++) {
    const z = (sorted[i]! - mean) / sd;
    sum += (2 * i + 1) * normalLogCumulative(z) + (2 * (n - i) - 1) * normalLogCumulative(-z);
  }
  return -n - sum / n;
}

/** Least n of the asymptotic formula, and the greatest adjusted A² it was fitted to. */
export const ASYMPTOTIC_LEAST_N = 8;
const ASYMPTOTIC_GREATEST = 13;

/** A²(1 + 0.75/n + 2.25/n²): the adjustment for estimated mean and sd (D'Agostino & Stephens 1986, table 4.7). */
export function adjustedAndersonDarling(statistic: number, n: number): number {
  return statistic * (1 + 0.75 / n + 2.25 / (n * n));
}

/**
 * The p-value of A² with estimated mean and sd by D'Agostino & Stephens (1986, table 4.9); null below n = 8 or beyond
 * the formula's range, where it is simulated instead.
 */
export function andersonDarlingAsymptotic(statistic: number, n: number): number | null {
  if (n < ASYMPTOTIC_LEAST_N) return null;
  const a = adjustedAndersonDarling(statistic, n);
  if (a > ASYMPTOTIC_GREATEST) return null;
  if (a >= 0.6) return exp(1.2937 - 5.709 * a + 0.0186 * a * a);
  if (a > 0.34) return exp(0.9177 - 4.279 * a - 1.38 * a * a);
  if (a > 0.2) return 1 - exp(-8.318 + 42.796 * a - 59.938 * a * a);
  return 1 - exp(-13.436 + 101.14 * a - 223.73 * a * a);
}
