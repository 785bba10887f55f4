import { betaAsymptotic } from './beta-asymptotic.js';
import {
  exp,
  expm1,
  log,
  log1p,
  logPowerProduct,
  power,
  powerProduct,
  productRest,
  quotientRest,
  sumRest,
} from './elementary.js';
import { log1pMinus } from './log1p-minus.js';
import { logGamma, logGammaOnePlus } from './log-gamma.js';
import { logGammaRise, stirlingError } from './stirling-error.js';

/**
 * The regularised incomplete beta function I_x(a, b) and its complement, a and b > 0. Both take x and y = 1 − x, whichever of the two
 * is small being exact, and each is worked out from its own side, so neither loses its far tail.
 * DiDonato & Morris (1992): their continued fraction (BFRAC) and their saddle-point prefix (BRCOMP); for the smaller shape below 1
 * the power series. Relative error below 1e-12 for shapes to 1e5.
 */

const LARGE = 10;
const ASYMPTOTIC_FROM = 500;

/** What the prefix holds of a and b alone, kept for the last pair: only x changes in most calls. */
const memo = { a: NaN, b: NaN, part: 0 };

/** Fills the memo: `part` is three Stirling errors where both shapes are large, else −log B(a, b). */
function remember(a: number, b: number): typeof memo {
  if (a === memo.a && b === memo.b) return memo;
  const total = a + b;
  const large = Math.min(a, b) >= LARGE;
  memo.part = large ? stirlingError(total) - stirlingError(a) - stirlingError(b) : -logBeta(a, b);
  memo.a = a;
  memo.b = b;
  return memo;
}

/** log B(a, b) = log Γ(a) + log Γ(b) − log Γ(a + b), from the smaller shape and the rise of the other's logarithm. */
export function logBeta(a: number, b: number): number {
  const small = Math.min(a, b);
  const large = Math.max(a, b);
  return logGamma(small) - logGammaRise(large, small);
}

/** How far the rounded larger of x and y = 1 − x lies from the complement of the smaller, as a part of it: 1 − larger is exact. */
const complementRest = (larger: number, smaller: number) => (1 - larger - smaller) / larger;

/** log x, through its complement where that is the exact one. */
function logOf(x: number, y: number): number {
  return x > 0.5 ? log1p(-y) : log(x);
}

const isNear = (e: number) => e > -0.4 && e < 0.65;

/** Where the saddle point lies: a distance of x·(a + b) from a, and what it and the sum of the shapes lost to rounding. */
interface Saddle {
  total: number;
  totalRest: number;
  d: number;
  dRest: number;
}

function saddleOf(a: number, b: number, x: number): Saddle {
  const total = a + b;
  const totalRest = sumRest(a, b, total);
  const share = total * x;
  const d = share - a;
  return { total, totalRest, d, dRest: productRest(total, x, share) + sumRest(share, -a, d) };
}

/** What the rests of the distances change in a·log1pMinus(d/a) + b·log1pMinus(−d/b). */
function restOfNear(a: number, b: number, { d, dRest, totalRest }: Saddle): number {
  return (-d / (a + d)) * dRest - (d / (b - d)) * (dRest + totalRest);
}

/**
 * The exponent of the prefix for large shapes, without its root, for x ≤ y: (xT/a)^a·(yT/b)^b with T = a + b, as arguments of `powerProduct`.
 * A side whose x lies near its peak is the deviance n·log1pMinus(e) (Loader 2000); a far one is a power.
 */
function exponentOf(a: number, b: number, x: number, y: number): Parameters<typeof powerProduct> {
  const { part } = remember(a, b);
  const saddle = saddleOf(a, b, x);
  const { total, totalRest, d, dRest } = saddle;
  const nearA = isNear(d / a);
  const nearB = isNear(-d / b);
  if (nearA && nearB) {
    const near = a * log1pMinus(d / a) + b * log1pMinus(-d / b);
    return [near, restOfNear(a, b, saddle) + part, 1, 0, 0, 1, 0, 0];
  }
  const share = total * x;
  const ratioA = share / a;
  const restA = productRest(total, x, share) / share + quotientRest(share, a, ratioA);
  if (nearB) {
    const near = b * log1pMinus(-d / b);
    const c = near - d;
    const cRest = sumRest(near, -d, c) - dRest - (d / (b - d)) * (dRest + totalRest);
    return [c, cRest + part, ratioA, restA, a, 1, 0, 0];
  }
  const shareB = total * y;
  const ratioB = shareB / b;
  const restB = productRest(total, y, shareB) / shareB + quotientRest(shareB, b, ratioB) + complementRest(y, x);
  if (nearA) {
    const near = a * log1pMinus(d / a);
    const c = near + d;
    const cRest = sumRest(near, d, c) + dRest + totalRest - (d / (a + d)) * dRest;
    return [c, cRest + part, 1, 0, 0, ratioB, restB, b];
  }
  return [totalRest, part, ratioA, restA, a, ratioB, restB, b];
}

/** The same for small shapes: x^a·y^b/B(a, b). */
function smallExponent(a: number, b: number, x: number, y: number): Parameters<typeof powerProduct> {
  return [remember(a, b).part, 0, x, 0, a, y, complementRest(y, x), b];
}

/** log of x^a·y^b/B(a, b). */
export function logBetaPrefix(a: number, b: number, x: number, y: number): number {
  if (x > y) return logBetaPrefix(b, a, y, x);
  if (Math.min(a, b) < LARGE) return logPowerProduct(...smallExponent(a, b, x, y));
  return logPowerProduct(...exponentOf(a, b, x, y)) + 0.5 * log((a * (b / (a + b))) / (2 * Math.PI));
}

/** x^a·y^b/B(a, b). */
export function betaPrefix(a: number, b: number, x: number, y: number): number {
  if (!(x > 0 && y > 0)) return 0;
  if (x > y) return betaPrefix(b, a, y, x);
  if (Math.min(a, b) < LARGE) return powerProduct(...smallExponent(a, b, x, y));
  return powerProduct(...exponentOf(a, b, x, y)) * Math.sqrt((a * (b / (a + b))) / (2 * Math.PI));
}

/** x^n, through its complement where x lies next to 1. */
function raised(x: number, y: number, n: number): number {
  return x > 0.9 ? exp(n * log1p(-y)) : power(x, n);
}

/**
 * I_x(a, b) over the prefix, for x below the mean a/(a + b): the continued fraction of DiDonato & Morris (1992, eq. 9), its
 * convergents by forward recurrence, kept as shares of the last denominator so that nothing overflows.
 */
function fraction(a: number, b: number, x: number, y: number): number {
  const lambda = x <= y ? a - (a + b) * x : (a + b) * y - b;
  const total = a + b;
  let perS = 1 / (a + 1);
  let an = 0;
  let bn = 1 / (a * perS * (1 + lambda));
  let r = bn;
  for (let n = 1; n < 20_000; n++) {
    const w = n * (b - n) * x * perS;
    const alpha = (a + n - 1) * (total + n - 1) * (w * x) * perS;
    perS = 1 / (a + 2 * n + 1);
    const beta = n + w + (a + n) * perS * (1 + lambda + n * (1 + y));
    const scale = 1 / (alpha * bn + beta);
    const next = (alpha * an + beta * r) * scale;
    an = r * scale;
    bn = scale;
    const change = Math.abs(next - r);
    r = next;
    if (change <= 1e-16 * r) break;
  }
  return r;
}

/** Σ over n ≥ 1 of (1 − b)(2 − b)…(n − b)·xⁿ/(n!(a + n)). */
function powerSum(a: number, b: number, x: number): number {
  let term = 1;
  let sum = 0;
  for (let n = 1; n < 10_000; n++) {
    term *= (1 - b / n) * x;
    const next = term / (a + n);
    sum += next;
    if (Math.abs(next) <= 1e-17 * Math.abs(sum)) break;
  }
  return sum;
}

/** log of 1/(a·B(a, b)), exact also for tiny a, where it is near 0. */
function logLead(a: number, b: number): number {
  return a <= 1 ? logGammaRise(b, a) - logGammaOnePlus(a) : -logBeta(a, b) - log(a);
}

/** True where the power series in x is short and nothing in it cancels. */
function seriesServes(a: number, b: number, x: number): boolean {
  const least = Math.min(a, b);
  return least < 1 && b * x <= 1 && x <= (least < 0.2 ? 0.5 : 0.15);
}

/** I_x(a, b), or for `upper` its complement, both exact, by the power series about x = 0 (DLMF 8.17.7). */
function bySeries(a: number, b: number, x: number, y: number, upper: boolean): number {
  const rest = a * powerSum(a, b, x);
  if (!upper) return raised(x, y, a) * exp(logLead(a, b)) * (1 + rest);
  const exponent = a * logOf(x, y) + logLead(a, b);
  return -expm1(exponent) - exp(exponent) * rest;
}

/** True where x lies below the mean a/(a + b), so that the fraction for the tail next to 0 converges fast. */
function belowMean(a: number, b: number, x: number, y: number): boolean {
  return x <= y ? (a + b) * x < a : (a + b) * y > b;
}

/** I_x(a, b): the lower tail of a beta distribution at x, with y = 1 − x. */
export function betaLower(a: number, b: number, x: number, y: number): number {
  if (!(x > 0)) return 0;
  if (!(y > 0)) return 1;
  if (seriesServes(a, b, x)) return bySeries(a, b, x, y, false);
  if (seriesServes(b, a, y)) return bySeries(b, a, y, x, true);
  return belowMean(a, b, x, y) ? nearTail(a, b, x, y) : 1 - nearTail(b, a, y, x);
}

/** I_x(a, b) for x below the mean. */
function nearTail(a: number, b: number, x: number, y: number): number {
  const least = Math.min(a, b);
  if (least >= ASYMPTOTIC_FROM) {
    const lambda = x <= y ? a - (a + b) * x : (a + b) * y - b;
    if (lambda <= 0.03 * least) {
      const rest = x <= y ? restOfNear(a, b, saddleOf(a, b, x)) : restOfNear(b, a, saddleOf(b, a, y));
      return betaAsymptotic(a, b, lambda, exp(remember(a, b).part + rest));
    }
  }
  return betaPrefix(a, b, x, y) * fraction(a, b, x, y);
}

/** 1 − I_x(a, b) = I_y(b, a): the upper tail. */
export function betaUpper(a: number, b: number, x: number, y: number): number {
  return betaLower(b, a, y, x);
}
