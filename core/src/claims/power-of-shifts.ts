import { exp } from '../numeric/elementary.js';
import { logGamma } from '../numeric/log-gamma.js';
import { normalCumulative, normalQuantile } from '../numeric/standard-normal.js';
import { tailOf, type Alternative } from './alternative.js';
import { powerOfShare } from './power-of-shares.js';
import { powerOfT } from './power-of-t.js';

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

/** What the ranks of normals keep of the readings: as many are as good as 3/π times as many by t (Hodges & Lehmann 1956). */
const KEPT_BY_RANKS = 3 / Math.PI;

/** The least p that so many ways, all as likely, can come to. */
const leastP = (logWays: number, alternative: Alternative) => exp(-logWays) * (alternative === 'two-sided' ? 2 : 1);

/** The same of the signed rank test: near that of t with 3/π times as many readings; none where not even the most extreme signs reject. */
export function powerOfSignedRanks(n: number, difference: number, alpha: number, alternative: Alternative): number {
  if (leastP(n * Math.LN2, alternative) >= alpha) return 0;
  return powerOfT({ df: n - 1, perSd: Math.sqrt(KEPT_BY_RANKS * n) }, difference, alpha, alternative);
}

/** The same of the Mann–Whitney test. */
export function powerOfRankSum(
  [n, m]: readonly [number, number],
  difference: number,
  alpha: number,
  alternative: Alternative,
): number {
  const ways = logGamma(n + m + 1) - logGamma(n + 1) - logGamma(m + 1);
  if (n + m <= 2 || leastP(ways, alternative) >= alpha) return 0;
  const design = { df: n + m - 2, perSd: Math.sqrt((KEPT_BY_RANKS * n * m) / (n + m)) };
  return powerOfT(design, difference, alpha, alternative);
}
