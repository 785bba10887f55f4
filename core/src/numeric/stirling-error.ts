import { log, log1p } from './elementary.js';
import { logGamma } from './log-gamma.js';

const HALF_LOG_TWO_PI = 0.918938533204672741780329736406;

/** B(2k)/(2k(2k − 1)): the coefficients of Stirling's series (Abramowitz & Stegun 6.1.41). */
const STIRLING = [1 / 12, -1 / 360, 1 / 1260, -1 / 1680, 1 / 1188, -691 / 360360, 1 / 156, -3617 / 122400] as const;

/** From here on the eight terms are exact to 1e-17. */
const STIRLING_FROM = 15;

/** log Γ(x) − [(x − ½) log x − x + ½ log 2π]: what Stirling's formula leaves, for x > 0. Absolute error below 2e-15 below x = 15, relative 2e-16 above. */
export function stirlingError(x: number): number {
  if (x < STIRLING_FROM) return logGamma(x) - ((x - 0.5) * log(x) - x + HALF_LOG_TWO_PI);
  const s = 1 / (x * x);
  let sum = STIRLING[7] as number;
  for (let k = 6; k >= 0; k--) sum = sum * s + STIRLING[k]!;
  return sum / x;
}

/** stirlingError(b) − stirlingError(b + a) for b ≥ 15, keeping the digits of a small a: 1 − r^m = (1 − r)(1 + r + … + r^(m−1)) with r = b/(b + a). */
function stirlingErrorDrop(b: number, a: number): number {
  const r = b / (b + a);
  const s = 1 / (b * b);
  let power = 1;
  let geometric = 1;
  let sum = 0;
  for (const coefficient of STIRLING) {
    sum += coefficient * power * geometric;
    power *= s;
    geometric = 1 + r + r * r * geometric;
  }
  return (sum / b) * (a / (b + a));
}

/**
 * log Γ(b + a) − log Γ(b) for a ≥ 0 and b > 0, exact also where a is tiny beside b or both logarithms are huge
 * (the idea of ALGDIV in DiDonato & Morris 1992). Below b = 15 the recurrence Γ(b + 1) = bΓ(b) lifts b first.
 */
export function logGammaRise(b: number, a: number): number {
  if (a > b && b < STIRLING_FROM) return logGamma(b + a) - logGamma(b);
  let lifted = b;
  let factors = 0;
  for (; lifted < STIRLING_FROM; lifted++) factors += log1p(a / lifted);
  return (lifted + a - 0.5) * log1p(a / lifted) + a * (log(lifted) - 1) - stirlingErrorDrop(lifted, a) - factors;
}
