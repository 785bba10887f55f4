import { chiSquare } from '../distributions/families/chi-square.js';
import { f } from '../distributions/families/f.js';
import type { Distribution } from '../distributions/family.js';
import { tailOf, type Alternative } from './alternative.js';

/** The probability beyond the critical values of a distribution whose variable is multiplied by `times`. */
function beyond(law: Distribution, times: number, alpha: number, alternative: Alternative): number {
  const tail = tailOf(1 - alpha, alternative);
  const above = alternative === 'less' ? 0 : law.survival(law.survivalQuantile(tail) / times);
  const below = alternative === 'greater' ? 0 : law.cumulative(law.quantile(tail) / times);
  return above + below;
}

/** The power of χ² for a ratio of the SD to the claimed one: exact for normal readings. */
export const powerOfSpread = (n: number, ratio: number, alpha: number, alternative: Alternative): number =>
  beyond(chiSquare.of({ df: n - 1 }), ratio ** 2, alpha, alternative);

/** The power of F for a ratio of two SDs: exact for normal readings. */
export const powerOfTwoSpreads = (
  [n, m]: readonly [number, number],
  ratio: number,
  alpha: number,
  alternative: Alternative,
): number => beyond(f.of({ df1: n - 1, df2: m - 1 }), ratio ** 2, alpha, alternative);
