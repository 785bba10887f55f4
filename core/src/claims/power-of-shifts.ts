import { normalCumulative, normalQuantile } from '../numeric/standard-normal.js';
import { tailOf, type Alternative } from './alternative.js';
import { powerOfShare } from './power-of-shares.js';

/** Φ on the side, or both sides, that the alternative asks about. */
function noticed(off: number, alpha: number, alternative: Alternative): number {
  const z = -normalQuantile(tailOf(1 - alpha, alternative));
  const [above, below] = [normalCumulative(off - z), normalCumulative(-off - z)];
  return alternative === 'greater' ? above : alternative === 'less' ? below : above + below;
}

/** The chance that z notices a mean so many sd off: exact. */
export const powerOfZ = (n: number, difference: number, alpha: number, alternative: Alternative): number =>
  noticed(Math.sqrt(n) * difference, alpha, alternative);

/** The chance that the sign test notices a normal whose centre is so many sd off: exact. */
export const powerOfSigns = (n: number, difference: number, alpha: number, alternative: Alternative): number =>
  powerOfShare(n, 0.5, normalCumulative(difference), alpha, alternative);

/** The same of the signed rank test, by the normal (Noether 1987): a mean of two readings lies above the claim with a chance of Φ(√2·d). */
export const powerOfSignedRanks = (n: number, difference: number, alpha: number, alternative: Alternative): number =>
  noticed(Math.sqrt(3 * n) * (normalCumulative(Math.SQRT2 * difference) - 0.5), alpha, alternative);

/** The same of the Mann–Whitney test (Noether 1987): a reading of the first lies above one of the second with a chance of Φ(d/√2). */
export function powerOfRankSum(
  [n, m]: readonly [number, number],
  difference: number,
  alpha: number,
  alternative: Alternative,
): number {
  const scale = Math.sqrt((12 * n * m) / (n + m));
  return noticed(scale * (normalCumulative(difference / Math.SQRT2) - 0.5), alpha, alternative);
}
