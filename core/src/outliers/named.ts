import { quartilesOfSorted, type QuantileType } from '../describe/quantiles.js';
import { dixon, dixonRatioFor } from './dixon.js';
import { centreAndSpread, farthest, type Side } from './grubbs.js';
import { pairOnSide, rangeOverSd } from './pairs.js';
import type { Rule } from './rules.js';
import { fencePlace, modifiedZ, MODIFIED_Z_LIMIT, robustScale, Z_LIMIT } from './screens.js';
import { mostSteps } from './generalized-esd.js';

/** The readings that a rule flags: the number of least and of greatest readings. All rules flag from the ends inwards. */
export interface Ends {
  low: number;
  high: number;
}
export const NONE: Ends = { low: 0, high: 0 };
const atEnd = (end: 'upper' | 'lower', count: number): Ends =>
  end === 'upper' ? { low: 0, high: count } : { low: count, high: 0 };

/** The critical value of a rule; for the generalised ESD one a step. Rules of thumb have their own. */
export type Limits = number | ArrayLike<number>;

export interface Judging {
  side: Side;
  /** How the fences define quartiles. */
  quartiles: QuantileType;
}

/** The readings from the ends inwards that a rule of thumb flags. */
function beyond(sorted: Float64Array, side: Side, isOut: (x: number) => boolean): Ends {
  const n = sorted.length;
  let [low, high] = [0, 0];
  if (side !== 'upper') while (low < n && isOut(sorted[low]!)) low++;
  if (side !== 'lower') while (high < n - low && isOut(sorted[n - 1 - high]!)) high++;
  return { low, high };
}

function namedBySteps(sorted: Float64Array, limits: ArrayLike<number>, side: Side): Ends {
  let [from, to] = [0, sorted.length];
  let named = NONE;
  const most = Math.min(limits.length, mostSteps(sorted.length));
  for (let i = 0; i < most && sorted[to - 1]! > sorted[from]!; i++) {
    const rest = sorted.subarray(from, to);
    const { mean, sd } = centreAndSpread(rest);
    const { at, statistic } = farthest(rest, mean, sd, side);
    if (at === 0) from++;
    else to--;
    if (statistic > limits[i]!) named = { low: from, high: sorted.length - to };
  }
  return named;
}

/** The readings of a sorted sample that a rule flags at its critical values. Dixon has none beyond n = 30. */
export function namedBy(rule: Rule, sorted: Float64Array, limits: Limits, { side, quartiles }: Judging): Ends {
  const n = sorted.length;
  if (!(sorted[n - 1]! > sorted[0]!)) return NONE;
  switch (rule) {
    case 'grubbs': {
      const { mean, sd } = centreAndSpread(sorted);
      const { at, statistic } = farthest(sorted, mean, sd, side);
      return statistic > (limits as number) ? atEnd(at === 0 ? 'lower' : 'upper', 1) : NONE;
    }
    case 'pair-same-end': {
      const { statistic, end } = pairOnSide(sorted, side);
      return statistic < (limits as number) ? atEnd(end, 2) : NONE;
    }
    case 'pair-both-ends':
      return rangeOverSd(sorted) > (limits as number) ? { low: 1, high: 1 } : NONE;
    case 'dixon': {
      const ratio = dixonRatioFor(n);
      if (!ratio) return NONE;
      const { statistic, end } = dixon(sorted, ratio, side);
      return statistic > (limits as number) ? atEnd(end, 1) : NONE;
    }
    case 'generalized-esd':
      return namedBySteps(sorted, limits as ArrayLike<number>, side);
    case 'modified-z': {
      const scale = robustScale(sorted);
      return beyond(sorted, side, (x) => Math.abs(modifiedZ(x, scale)) > MODIFIED_Z_LIMIT);
    }
    case 'fences': {
      const fences = quartilesOfSorted(sorted, quartiles);
      return beyond(sorted, side, (x) => fencePlace(x, fences) !== 'inside');
    }
    case 'z-score': {
      const { mean, sd } = centreAndSpread(sorted);
      return beyond(sorted, side, (x) => Math.abs(x - mean) > Z_LIMIT * sd);
    }
  }
}
