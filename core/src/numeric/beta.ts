import { exp, log, log1p } from './elementary.js';
import { logGamma } from './log-gamma.js';

const TINY = 1e-300;

/** Continued fraction of the incomplete beta (Abramowitz & Stegun 26.5.8) by Lentz's method; converges fast for x below the mean. */
function continuedFraction(a: number, b: number, x: number): number {
  let c = 1;
  let d = 1 - ((a + b) * x) / (a + 1);
  d = 1 / (Math.abs(d) < TINY ? TINY : d);
  let h = d;
  for (let m = 1; m < 100_000; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    d = 1 + even * d;
    c = 1 + even / c;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    if (Math.abs(c) < TINY) c = TINY;
    h *= d * c;
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 + odd * d;
    c = 1 + odd / c;
    d = 1 / (Math.abs(d) < TINY ? TINY : d);
    if (Math.abs(c) < TINY) c = TINY;
    const step = d * c;
    h *= step;
    if (Math.abs(step - 1) < 1e-16) break;
  }
  return h;
}

/**
 * The regularised incomplete beta function I_x(a, b) and its complement, each worked from its own tail.
 * Relative error about 1e-15 times max(1, a + b): the exponent of the prefix is a difference of large logarithms.
 */
export function betaTails(x: number, a: number, b: number): { lower: number; upper: number } {
  if (x <= 0) return { lower: 0, upper: 1 };
  if (x >= 1) return { lower: 1, upper: 0 };
  const prefix = exp(a * log(x) + b * log1p(-x) + logGamma(a + b) - logGamma(a) - logGamma(b));
  if (x < (a + 1) / (a + b + 2)) {
    const lower = (prefix * continuedFraction(a, b, x)) / a;
    return { lower, upper: 1 - lower };
  }
  const upper = (prefix * continuedFraction(b, a, 1 - x)) / b;
  return { lower: 1 - upper, upper };
}

/**
 * The x with I_x(a, b) = p, 0 ≤ p ≤ 1: Newton steps kept inside a shrinking bracket.
 * Ends when the bracket is one unit in the last place wide or the step no longer moves x.
 */
export function betaQuantile(p: number, a: number, b: number): number {
  if (p <= 0) return 0;
  if (p >= 1) return 1;
  const logNorm = logGamma(a + b) - logGamma(a) - logGamma(b);
  let low = 0;
  let high = 1;
  let x = a / (a + b);
  for (let i = 0; i < 200; i++) {
    const error = betaTails(x, a, b).lower - p;
    if (error === 0) return x;
    if (error > 0) high = x;
    else low = x;
    const slope = exp((a - 1) * log(x) + (b - 1) * log1p(-x) + logNorm);
    let next = x - error / slope;
    if (!(next > low && next < high)) next = (low + high) / 2;
    if (Math.abs(next - x) <= 2e-16 * x || next === low || next === high) return next;
    x = next;
  }
  return x;
}
