import {
  andersonDarling,
  andersonDarlingAsymptotic,
  ASYMPTOTIC_LEAST_N,
} from '../../goodness-of-fit/normality/anderson-darling.js';
import { COARSE } from '../../goodness-of-fit/rounding.js';
import { brownForsythe } from '../../claims/spreads.js';
import { equalsP, formatP } from '../../numeric/format.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Assumption } from './claim-result.js';

/** From this n on the mean is nearly normal for almost any readings. */
const LARGE = 200;

interface Looked {
  name: string;
  values: Float64Array;
  resolution: number | null;
}

/** Whether A² rejects normality; null if it cannot be computed. */
function pOfNormality({ values, resolution }: Looked): number | 'few' | 'coarse' {
  const n = values.length;
  if (n < ASYMPTOTIC_LEAST_N) return 'few';
  const { mean, s2 } = centralMoments(values);
  const sd = Math.sqrt(s2 / (n - 1));
  if (!(sd > 0) || (resolution !== null && sd / resolution < COARSE)) return 'coarse';
  return andersonDarlingAsymptotic(andersonDarling(values.slice().sort(), mean, sd), n) ?? 0;
}

/** Normality of one sample or of each of several, in one line. `mean` where only a mean has to be normal. */
export function normalityLine(
  groups: readonly Looked[],
  { alpha, instead, mean }: { alpha: number; instead: string; mean: boolean },
): Assumption {
  const found = groups.map((group) => ({ ...group, p: pOfNormality(group) }));
  const against = found.filter(({ p }) => typeof p === 'number' && p < alpha);
  const untold = found.filter(({ p }) => typeof p !== 'number');
  const of = (names: readonly Looked[]) =>
    groups.length === 1
      ? ''
      : ` of ${names.length > 3 ? `${names.length} groups` : names.map(({ name }) => name).join(', ')}`;
  if (against.length > 0) {
    const least = Math.min(...against.map(({ p }) => p as number));
    const enough = mean && against.every(({ values }) => values.length >= LARGE);
    const text = `Normality${of(against)}: not supported (A², ${equalsP(least, alpha)})${enough ? '. With this many readings a test of the mean is hardly affected' : ''}.`;
    return { text, holds: enough, instead: enough ? '' : instead };
  }
  if (untold.length === groups.length) {
    const why = untold.every(({ p }) => p === 'few')
      ? 'too few readings to test'
      : 'rounding too coarse for this check; see Fit';
    return { text: `Normality: ${why}.`, holds: true, instead: '' };
  }
  const p = Math.min(...found.flatMap(({ p: one }) => (typeof one === 'number' ? [one] : [])));
  const text = `Normality: no evidence against it (A², ${groups.length > 1 ? `smallest p = ${formatP(p, alpha)}` : equalsP(p, alpha)}).`;
  return { text, holds: true, instead: '' };
}

/** Equal spread, in one line. */
export function spreadsLine(groups: readonly Float64Array[], alpha: number, instead: string): Assumption[] {
  if (groups.some(({ length }) => length < 3)) return [];
  const { pValue } = brownForsythe(groups);
  if (!Number.isFinite(pValue)) return [];
  const alike = pValue >= alpha;
  const text = alike
    ? `Equal spread: no evidence against it (Brown–Forsythe, ${equalsP(pValue, alpha)}).`
    : `Equal spread: not supported (Brown–Forsythe, ${equalsP(pValue, alpha)}).`;
  return [{ text, holds: alike, instead: alike ? '' : instead }];
}
