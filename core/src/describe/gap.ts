import { normalCumulative, normalSurvival } from '../numeric/standard-normal.js';
import { exp, log1p } from '../numeric/elementary.js';

/** The widest gap between two neighbouring readings, relative to what a normal distribution would place there. */
export interface Gap {
  from: number;
  to: number;
  /** An upper bound on the probability of so wide a gap, if the readings were normal. */
  pValue: number;
}

const DENSITY_AT_0 = 0.3989422804014327;

/**
 * The gap between two neighbouring readings to which a normal with this mean and SD gives most probability g, and an upper bound on the probability
 * that the widest of the n + 1 spacings of n uniform readings is so wide: (n + 1)(1 − g)ⁿ, the first term of Fisher's (1929) series. One step of the
 * resolution is subtracted from the width, since rounding alone separates neighbours by that much. Null without spread, or where no two neighbours
 * are more than one step apart.
 */
export function widestGap(sorted: Float64Array, mean: number, sd: number, step: number): Gap | null {
  const n = sorted.length;
  if (!(sd > 0)) return null;
  let widest = 0;
  let at = -1;
  for (let i = 1; i < n; i++) {
    const width = sorted[i]! - sorted[i - 1]! - step;
    // Only where the curve could hold more than the best so far.
    if ((width / sd) * DENSITY_AT_0 <= widest) continue;
    const [a, b] = [(sorted[i - 1]! + step / 2 - mean) / sd, (sorted[i]! - step / 2 - mean) / sd];
    const share = a > 0 ? normalSurvival(a) - normalSurvival(b) : normalCumulative(b) - normalCumulative(a);
    if (share > widest) {
      widest = share;
      at = i;
    }
  }
  if (at < 0) return null;
  return { from: sorted[at - 1]!, to: sorted[at]!, pValue: Math.min(1, (n + 1) * exp(n * log1p(-widest))) };
}
