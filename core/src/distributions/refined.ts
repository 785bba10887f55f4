/** So near, in parts of the probability, that a quantile counts as exact. */
const CLOSE = 2 * Number.EPSILON;
const MOST_STEPS = 4;

/**
 * The quantile `x` of a closed form or a search, moved by Newton's steps to where the tail itself, as it is computed, meets p: rounding
 * on the way through scores and scales can leave x some units off. `sign` is −1 for an upper tail. The best place seen is kept,
 * and none outside the support is tried.
 */
export function refined(
  x: number,
  p: number,
  tail: (x: number) => number,
  density: (x: number) => number,
  sign: 1 | -1,
  support = { lower: -Infinity, upper: Infinity },
): number {
  if (!(p > 1e-305 && p < 1) || !Number.isFinite(x) || x === 0) return x;
  let best = x;
  let gap = tail(x) - p;
  let here = x;
  let gapHere = gap;
  for (let step = 0; step < MOST_STEPS && Math.abs(gapHere) > CLOSE * p; step++) {
    const move = (sign * gapHere) / density(here);
    // Only rounding is made good; a larger gap is a place where the tail is not smooth, or an end of the support.
    if (!(Math.abs(move) < 1e-9 * Math.abs(here))) break;
    const next = here - move;
    if (next === here || next < support.lower || next > support.upper) break;
    here = next;
    gapHere = tail(here) - p;
    if (Math.abs(gapHere) < Math.abs(gap)) {
      best = here;
      gap = gapHere;
    }
  }
  return best;
}
