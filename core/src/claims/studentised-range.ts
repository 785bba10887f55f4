import { bracketedRoot } from '../numeric/bracketed-root.js';
import { exp, expm1, log, log1p } from '../numeric/elementary.js';
import { integrate, worthwhile } from '../numeric/integrate.js';
import { piecewiseChebyshev } from '../numeric/piecewise-chebyshev.js';
import { normalCumulative, normalSurvival } from '../numeric/standard-normal.js';
import { greatestSd, logDensityOfSd } from './noncentral-t.js';

const ROOT_TWO_PI = Math.sqrt(2 * Math.PI);
const INNER_PANELS = 8;
const OUTER_PANELS = 6;
/** A standard normal further out adds nothing. */
const FAR = 9;

/** Over so much of w the chance above it is interpolated: it is asked for at thousands of places. */
const STRETCH = 0.75;

/** P(a < Z ≤ z), from the side whose tails are small. */
const between = (a: number, z: number) =>
  a > 0 ? normalSurvival(a) - normalSurvival(z) : normalCumulative(z) - normalCumulative(a);

/** The chance that the range of k standard normals is above w: with the greatest at z, all others lie below it but not all within w of it. */
function rangeAbove(w: number, k: number): number {
  const others = k - 1;
  const of = (z: number) => {
    const all = normalCumulative(z);
    const within = between(z - w, z);
    // Φ(z)^(k − 1) − within^(k − 1), without a difference of two near numbers.
    const lost = -expm1(others * log1p(-Math.min(1, (all - within) / all)));
    return (exp(-0.5 * z * z) / ROOT_TWO_PI) * exp(others * log(all)) * lost;
  };
  return Math.min(1, k * integrate(of, -FAR, FAR, INNER_PANELS));
}

/**
 * The studentised range of k means with df degrees of freedom of the error (Tukey 1953; Copenhaver & Holland 1988): the range of k standard normals
 * divided by an independent SD. By integration over the distribution of the SD; 1e-10 down to a tail of 1e-10. Used for pairs of several means, not
 * offered as a family.
 */
export function studentisedRange(k: number, df: number) {
  const density = logDensityOfSd(df);
  const above = piecewiseChebyshev((w) => rangeAbove(w, k), STRETCH);
  function survival(q: number): number {
    if (!(q > 0)) return 1;
    const logOf = (s: number) => density(s) + log(Math.max(Number.MIN_VALUE, above(q * s)));
    const [from, to] = worthwhile(logOf, 0, greatestSd(df));
    return Math.min(
      1,
      integrate((s) => exp(density(s)) * above(q * s), from, to, OUTER_PANELS),
    );
  }
  /** The value with upper tail probability p. */
  function survivalQuantile(p: number): number {
    let high = 4;
    while (survival(high) > p) high *= 2;
    return bracketedRoot((q) => survival(q) - p, 0, high, 1e-10);
  }
  return { survival, survivalQuantile };
}
