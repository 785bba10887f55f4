import { exp, expm1, log, powerProduct, quotientRest, sumRest } from './elementary.js';
import { log1pMinus } from './log1p-minus.js';
import { logGamma, logGammaOnePlus } from './log-gamma.js';
import { stirlingError } from './stirling-error.js';
import { temmeTail, TEMME_LEAST_A, TEMME_REACH } from './temme.js';

/**
 * The regularised incomplete gamma functions P(a, x) and Q(a, x) = 1 − P(a, x), a > 0. Each is worked out from its own side, so
 * neither loses its far tail. By region: Temme's expansion near x = a for a ≥ 20; the power series below the mean (DLMF 8.11.4);
 * the continued fraction above it (DLMF 8.9.2); for small a and x the complement of the series taken term by term.
 * Relative error below 2e-13 for a from 1e-3 to 1e6, down to tails of 1e-300.
 */

const SADDLE_FROM = 10;
/** From this shape on, the prefix is 0 wherever it is not near its peak. */
const PEAKED_FROM = 10_000;
/** Below this x the series also serves Q for a < 1. */
const SMALL_X = 1.5;

let memoShape = NaN;
let memoPrefix = 0;

/** log Γ(a + 1), or the Stirling error where that is used: the part of the prefix that depends on a alone, kept for the last a. */
function shapePart(a: number): number {
  if (a !== memoShape) {
    memoPrefix = a >= SADDLE_FROM ? stirlingError(a) : a < 1 ? logGammaOnePlus(a) : logGamma(a + 1);
    memoShape = a;
  }
  return memoPrefix;
}

/** The logarithm of x^a·e^−x/Γ(a + 1); for large a the exponent as a saddle point (Loader 2000), where the logarithms would cancel. */
export function logGammaPrefix(a: number, x: number): number {
  if (!(x > 0)) return -Infinity;
  return saddle(a, x) - (a >= SADDLE_FROM ? 0.5 * log(2 * Math.PI * a) : 0);
}

/** x^a·e^−x/Γ(a + 1), the Poisson probability of a at mean x, for a > 0. */
export function gammaPrefix(a: number, x: number): number {
  if (!(x > 0)) return 0;
  if (a < SADDLE_FROM) return powerProduct(-x, -shapePart(a), x, 0, a, 1, 0, 0);
  return powered(a, x) / Math.sqrt(2 * Math.PI * a);
}

/** (x/a)^a·e^(a − x)·e^−stirlingError(a). Away from x = a the logarithm of the power and a − x cancel: they are summed in two parts. */
function powered(a: number, x: number): number {
  if (a > PEAKED_FROM || isNear(a, x)) return exp(saddle(a, x));
  const ratio = x / a;
  const gap = a - x;
  return powerProduct(gap, sumRest(a, -x, gap) - shapePart(a), ratio, quotientRest(x, a, ratio), a, 1, 0, 0);
}

function isNear(a: number, x: number): boolean {
  return x > 0.6 * a && x < 1.65 * a;
}

/** The exponent of the prefix, without the root of 2πa where a is large. */
function saddle(a: number, x: number): number {
  const part = shapePart(a);
  if (a < SADDLE_FROM) return a * log(x) - x - part;
  return (isNear(a, x) ? a * log1pMinus((x - a) / a) : a * log(x / a) + (a - x)) - part;
}

/** 1 + x/(a + 1) + x²/((a + 1)(a + 2)) + … */
function series(a: number, x: number): number {
  let term = 1;
  let sum = 1;
  for (let n = a + 1; term > sum * 1e-17; n++) {
    term *= x / n;
    sum += term;
  }
  return sum;
}

/**
 * Q(a, x)/(a·prefix) by the continued fraction, summed from its far end: that way nothing cancels. For x ≥ max(a, 1.5), and
 * beyond Temme's reach for a ≥ 20, so many terms leave less than 2e-17 (found by trial over a from 0.01 to 1e6).
 */
function fraction(a: number, x: number): number {
  let n = Math.ceil(6 + 102 / x + Math.min(a, TEMME_LEAST_A));
  const b = x + 1 - a;
  let f = b + 2 * n;
  for (; n >= 1; n--) f = b + 2 * (n - 1) - (n * (n - a)) / f;
  return 1 / f;
}

/** Q(a, x) for a < 1 and small x: 1 − u − u·a·Σ (−x)^n/(n!(a + n)) with u = x^a/Γ(1 + a), so that nothing cancels as a goes to 0. */
function smallUpper(a: number, x: number): number {
  const exponent = a * log(x) - shapePart(a);
  let term = 1;
  let sum = 0;
  for (let n = 1; n < 60; n++) {
    term *= -x / n;
    const next = term / (a + n);
    sum += next;
    if (Math.abs(next) < 1e-18 * Math.abs(sum)) break;
  }
  return -expm1(exponent) - exp(exponent) * a * sum;
}

function nearMean(a: number, x: number): boolean {
  return a >= TEMME_LEAST_A && Math.abs(x - a) <= TEMME_REACH * a;
}

/** True where the lower tail is the one to sum: x below the mean, or both small. */
function fromBelow(a: number, x: number): boolean {
  return x < a || x < SMALL_X;
}

/** P(a, x), the lower tail of a gamma distribution with shape a and scale 1. */
export function gammaLower(a: number, x: number): number {
  if (!(x > 0)) return 0;
  if (x === Infinity) return 1;
  if (nearMean(a, x)) return temmeTail(a, (x - a) / a, false);
  // For small shapes the series is the faster of the two, and as exact as P needs, some way above the mean as well.
  if (x < Math.max(a, 3)) return Math.min(1, gammaPrefix(a, x) * series(a, x));
  return 1 - a * gammaPrefix(a, x) * fraction(a, x);
}

/** Q(a, x), the upper tail of a gamma distribution with shape a and scale 1. */
export function gammaUpper(a: number, x: number): number {
  if (!(x > 0)) return 1;
  if (x === Infinity) return 0;
  if (nearMean(a, x)) return temmeTail(a, (x - a) / a, true);
  if (!fromBelow(a, x)) return a * gammaPrefix(a, x) * fraction(a, x);
  if (a < 1) return smallUpper(a, x);
  return 1 - gammaPrefix(a, x) * series(a, x);
}
