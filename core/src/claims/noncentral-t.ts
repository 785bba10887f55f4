import { bracketedRoot } from '../numeric/bracketed-root.js';
import { exp, log } from '../numeric/elementary.js';
import { integrate, worthwhile } from '../numeric/integrate.js';
import { logGamma } from '../numeric/log-gamma.js';
import { normalLogCumulative } from '../numeric/standard-normal.js';

/** Panels over the stretch that counts. */
const PANELS = 24;

/** The logarithm of the density of an sd over its own expectation's root: s = √(χ²/df). */
export function logDensityOfSd(df: number): (s: number) => number {
  const half = df / 2;
  const constant = Math.LN2 + half * log(half) - logGamma(half);
  return (s) => (s > 0 ? constant + (df - 1) * log(s) - half * s * s : df > 1 ? -Infinity : constant);
}

/** As far up as an sd over its expectation can matter, where a normal tail pulls it upwards by `pull`. */
export const greatestSd = (df: number, pull = 0): number => 2 + (45 + Math.abs(pull)) / Math.sqrt(df);

/** P(T ≤ t): the normal tail Φ(t·s − δ) averaged over the law of s, whose product has a single summit for df ≥ 1. */
function smallerTail(t: number, df: number, delta: number): number {
  const density = logDensityOfSd(df);
  const logOf = (s: number) => density(s) + normalLogCumulative(t * s - delta);
  const [from, to] = worthwhile(logOf, 0, greatestSd(df, delta));
  return Math.min(
    1,
    integrate((s) => exp(logOf(s)), from, to, PANELS),
  );
}

/**
 * The noncentral t (Fisher 1931; Johnson & Welch 1940): (Z + δ)/√(χ²/df), the distribution of t if the mean is δ standard errors off the claim. Each
 * tail is computed by itself, by integrating over the distribution of the SD: to 1e-11 relative, in the far tails too. df from 1 on. Used for power
 * and tolerance limits, not fitted.
 */
export function noncentralT(df: number, delta: number) {
  // The tail away from δ is one bump, whose stretch is found; the other one is what is left.
  const below = (t: number, shift: number) =>
    t <= shift ? smallerTail(t, df, shift) : 1 - smallerTail(-t, df, -shift);
  const cumulative = (t: number) => below(t, delta);
  const survival = (t: number) => below(-t, -delta);
  /** The value with lower tail probability p. */
  function quantile(p: number): number {
    const off = (t: number) => (p < 0.5 ? log(cumulative(t)) - log(p) : log(1 - p) - log(survival(t)));
    let [low, high] = [delta - 1, delta + 1];
    for (let reach = 2; off(low) > 0; reach *= 2) low = delta - reach;
    for (let reach = 2; off(high) < 0; reach *= 2) high = delta + reach;
    return bracketedRoot(off, low, high, 1e-13 * Math.max(1, Math.abs(delta)));
  }
  return { cumulative, survival, quantile };
}
