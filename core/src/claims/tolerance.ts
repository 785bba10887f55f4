import { chiSquare } from '../distributions/families/chi-square.js';
import { betaUpper } from '../numeric/beta-tails.js';
import { bracketedRoot } from '../numeric/bracketed-root.js';
import { exp } from '../numeric/elementary.js';
import { integrate } from '../numeric/integrate.js';
import { normalCumulative, normalQuantile, normalSurvival } from '../numeric/standard-normal.js';
import { noncentralT } from './noncentral-t.js';

/**
 * The factor of a one-sided tolerance limit of a normal: mean + factor·SD covers a proportion of the population with a confidence. Exact, by the
 * noncentral t (Owen 1963).
 */
export function oneSidedFactor(n: number, share: number, confidence: number): number {
  const root = Math.sqrt(n);
  return noncentralT(n - 1, normalQuantile(share) * root).quantile(confidence) / root;
}

/** The half-width of an interval about a centre that is off by `off` SD and that covers a proportion of a standard normal. */
function halfWidth(off: number, share: number): number {
  const missed = (half: number) => normalSurvival(half - off) + normalCumulative(-half - off) - (1 - share);
  return bracketedRoot(missed, 0, off + 2 + Math.abs(normalQuantile((1 - share) / 2)));
}

const PANELS = 4;
/** A mean further off than so many standard errors adds nothing. */
const FAR = 9;

/**
 * The factor of a two-sided tolerance interval of a normal: mean ± factor·SD covers a proportion with a confidence (Wald & Wolfowitz 1946; exact by
 * integrating over the distribution of the mean, as tabulated by Odeh 1978).
 */
export function twoSidedFactor(n: number, share: number, confidence: number): number {
  const law = chiSquare.of({ df: n - 1 });
  const root = Math.sqrt(n);
  // For each place of the mean the width that is needed: it does not depend on the factor.
  const widths = new Map<number, number>();
  const needed = (x: number) => {
    const known = widths.get(x);
    if (known !== undefined) return known;
    const found = halfWidth(x / root, share);
    widths.set(x, found);
    return found;
  };
  const held = (factor: number) => {
    const of = (x: number) => {
      const need = needed(x) / factor;
      return exp(-0.5 * x * x) * law.survival((n - 1) * need * need);
    };
    return (2 / Math.sqrt(2 * Math.PI)) * integrate(of, 0, FAR, PANELS);
  };
  let high = 2;
  while (held(high) < confidence) high *= 2;
  return bracketedRoot((factor) => held(factor) - confidence, high / 4, high, 1e-11);
}

/**
 * The confidence with which the range of n readings covers a proportion P of any continuous distribution (Wilks 1941): 1 − n·P^(n − 1) + (n − 1)·P^n.
 */
export const confidenceOfExtremes = (n: number, share: number): number => betaUpper(n - 1, 2, share, 1 - share);
