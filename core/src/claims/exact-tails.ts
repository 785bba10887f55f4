import type { Distribution } from '../distributions/family.js';
import type { Alternative, Tails } from './alternative.js';
import { greatestTie } from '../numeric/ties.js';

/** P(X ≤ x) and P(X ≥ x) of a count. */
export const countTails = (law: Pick<Distribution, 'cumulative' | 'survival'>, x: number): Tails => ({
  lower: law.cumulative(x),
  upper: law.survival(x - 1),
});

/** The last count from `inside` towards `outside` with a greater probability than the observed one; the probabilities decrease in that direction. */
function lastLikelier(law: Distribution, limit: number, inside: number, outside: number): number {
  let [likely, other] = [inside, outside];
  while (Math.abs(other - likely) > 1) {
    const middle = Math.floor((likely + other) / 2);
    if (law.density(middle) > limit) likely = middle;
    else other = middle;
  }
  return likely;
}

/**
 * The exact p of a count under a unimodal distribution between two ends. Two-sided: the sum over all outcomes that are no more probable than the
 * observed one (Freeman & Halton 1951).
 */
export function exactP(
  law: Distribution,
  x: number,
  ends: { least: number; greatest: number },
  alternative: Alternative,
): number {
  const { lower, upper } = countTails(law, x);
  if (alternative !== 'two-sided') return Math.min(1, alternative === 'less' ? lower : upper);
  const limit = greatestTie(law.density(x));
  const summit = Math.min(ends.greatest, Math.max(ends.least, Math.round(law.mean)));
  // Where the summit itself is no likelier, everything is at least as unlikely.
  const top = [summit - 1, summit, summit + 1]
    .filter((at) => at >= ends.least && at <= ends.greatest)
    .reduce((best, at) => (law.density(at) > law.density(best) ? at : best), summit);
  if (law.density(top) <= limit) return 1;
  if (x < top) {
    if (law.density(ends.greatest) > limit) return Math.min(1, lower);
    return Math.min(1, lower + law.survival(lastLikelier(law, limit, top, ends.greatest)));
  }
  if (law.density(ends.least) > limit) return Math.min(1, upper);
  return Math.min(1, upper + law.cumulative(lastLikelier(law, limit, top, ends.least) - 1));
}
