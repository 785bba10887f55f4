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

/** The power of z for a shift in SD: exact. */
export const powerOfZ = (n: number, difference: number, alpha: number, alternative: Alternative): number =>
  noticed(Math.sqrt(n) * difference, alpha, alternative);

/** The power of the sign test for a shift of a normal in SD: exact. */
export const powerOfSigns = (n: number, difference: number, alpha: number, alternative: Alternative): number =>
  powerOfShare(n, 0.5, normalCumulative(difference), alpha, alternative);

/** The asymptotic efficiency of ranks for normal readings: n readings are equivalent to 3n/π with t (Hodges & Lehmann 1956). */
const KEPT_BY_RANKS = 3 / Math.PI;

/** The smallest attainable p with this number of equally likely arrangements. */
const leastP = (logWays: number, alternative: Alternative) => exp(-logWays) * (alternative === 'two-sided' ? 2 : 1);

/** The same for the signed-rank test: close to t with 3n/π readings; none if not even the most extreme signs lead to rejection. */
export function powerOfSignedRanks(n: number, difference: number, alpha: number, alternative: Alternative): number {
  if (leastP(n * Math.LN2, alternative) >= alpha) return 0;
  return powerOfT({ df: n - 1, perSd: Math.sqrt(KEPT_BY_RANKS * n) }, difference, alpha, alternative);
}

/** The same for the Mann–Whitney test. */
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
