import { binomial } from '../distributions/families/binomial.js';
import { poisson } from '../distributions/families/poisson.js';
import type { Distribution } from '../distributions/family.js';
import { atan } from '../numeric/trigonometry.js';
import { normalCumulative, normalQuantile } from '../numeric/standard-normal.js';
import { tailOf, type Alternative } from './alternative.js';
import { rateP, shareP } from './shares.js';

/** The rejection region of a count: at most `low`, or at least `high`; beyond the ends if it is empty. */
interface Region {
  low: number;
  high: number;
}

/** The first count from `inside` towards `outside` with p below the level; `none` if there is no such count. */
function firstAgainst(p: (count: number) => number, alpha: number, inside: number, outside: number, none: number) {
  if (!(p(outside) < alpha)) return none;
  let [quiet, against] = [inside, outside];
  if (p(inside) < alpha) return inside;
  while (Math.abs(against - quiet) > 1) {
    const middle = Math.floor((quiet + against) / 2);
    if (p(middle) < alpha) against = middle;
    else quiet = middle;
  }
  return against;
}

function regionOf(
  p: (count: number) => number,
  alpha: number,
  { least, middle, greatest }: { least: number; middle: number; greatest: number },
  alternative: Alternative,
): Region {
  return {
    low: alternative === 'greater' ? least - 1 : firstAgainst(p, alpha, middle, least, least - 1),
    high: alternative === 'less' ? greatest + 1 : firstAgainst(p, alpha, middle, greatest, greatest + 1),
  };
}

const chanceOf = (law: Pick<Distribution, 'cumulative' | 'survival'>, { low, high }: Region) =>
  (low >= 0 ? law.cumulative(low) : 0) + law.survival(high - 1);

/** The counts out of n that the exact test of a share rejects. */
export const shareRegion = (n: number, claimed: number, alpha: number, alternative: Alternative): Region =>
  regionOf(
    (count) => shareP(count, n, claimed, alternative),
    alpha,
    { least: 0, middle: Math.round(n * claimed), greatest: n },
    alternative,
  );

/** The power of the exact test of a proportion: the probability of its rejection region under the true proportion. */
export function powerOfShare(n: number, claimed: number, share: number, alpha: number, alternative: Alternative) {
  const region = shareRegion(n, claimed, alpha, alternative);
  if (share <= 0) return region.low >= 0 ? 1 : 0;
  if (share >= 1) return region.high <= n ? 1 : 0;
  return chanceOf(binomial.of({ trials: n, probability: share }), region);
}

const FAR = 50;

/** The counts over an exposure that the exact test of a rate rejects. */
export function rateRegion(exposure: number, claimed: number, alpha: number, alternative: Alternative): Region {
  const mean = claimed * exposure;
  const greatest = Math.ceil(mean + FAR * Math.sqrt(Math.max(1, mean)));
  const ends = { least: 0, middle: Math.round(mean), greatest };
  return regionOf((count) => rateP(count, exposure, claimed, alternative), alpha, ends, alternative);
}

/** The same for a rate. */
export function powerOfRate(exposure: number, claimed: number, rate: number, alpha: number, alternative: Alternative) {
  const region = rateRegion(exposure, claimed, alpha, alternative);
  return rate <= 0 ? (region.low >= 0 ? 1 : 0) : chanceOf(poisson.of({ mean: rate * exposure }), region);
}

/** The arcsine transformation of a proportion: its variance hardly depends on the proportion (Fisher 1922). */
const angleOf = (share: number) => (share >= 1 ? Math.PI / 2 : atan(Math.sqrt(share / (1 - share))));

/** The power for two proportions by the normal approximation on the arcsine scale: close to Fisher’s exact test, which has slightly less power. */
export function powerOfTwoShares(
  [n, m]: readonly [number, number],
  [p, q]: readonly [number, number],
  alpha: number,
  alternative: Alternative,
): number {
  const off = 2 * (angleOf(p) - angleOf(q)) * Math.sqrt((n * m) / (n + m));
  const z = -normalQuantile(tailOf(1 - alpha, alternative));
  const [above, below] = [normalCumulative(off - z), normalCumulative(-off - z)];
  return alternative === 'greater' ? above : alternative === 'less' ? below : above + below;
}
