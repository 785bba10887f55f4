import { quartilesOfSorted, type QuantileType } from '../describe/quantiles.js';
import type { Parameters } from '../distributions/family.js';
import { createRedraw } from '../distributions/fit/redraw.js';
import type { Fitting } from '../distributions/fit/refit.js';
import { normalScore } from '../distributions/normal-score.js';
import { drawOf } from '../goodness-of-fit/normality/anderson-darling-simulation.js';
import type { RoundedNormal } from '../goodness-of-fit/rounded-normal.js';
import { createSorter } from '../numeric/sort.js';
import type { StreamState } from '../random/stream.js';
import { dixon, dixonRatioFor } from './dixon.js';
import { generalizedEsd } from './generalized-esd.js';
import { centreAndSpread, farthest, type Side } from './grubbs.js';
import { pairStatistic } from './pairs.js';
import { modifiedZ, robustScale } from './screens.js';

/** What is taken of a replicate: how far its farthest readings lie out by each rule, the greater the further but for the ratios of pairs. */
export const OUTLIER_STATISTICS = [
  'grubbs',
  'pair-upper',
  'pair-lower',
  'pair-both',
  'dixon',
  'generalized-esd',
  'modified-z',
  'fences',
] as const;
export type OutlierStatistic = (typeof OUTLIER_STATISTICS)[number];

export interface OutlierReplicates {
  n: number;
  side: Side;
  which: readonly OutlierStatistic[];
  /** A distribution that is not normal, fitted anew in every replicate; its readings are taken as their normal scores. Null: normal. */
  law: { fitting: Fitting; parameters: Parameters; step: number | null } | null;
  /** A normal in steps, every draw of which is rounded to whole ones. Null: not rounded. */
  rounding: RoundedNormal | null;
  /** Of the generalised ESD: the most that may be named, and its level. What is taken is how many it names. */
  most: number;
  alpha: number;
  /** How the fences define quartiles. */
  quartiles: QuantileType;
}

/** The greatest distance of the two ends on a side, each already signed outwards. */
const greater = (upper: number, lower: number, side: Side) =>
  side === 'upper' ? upper : side === 'lower' ? lower : Math.max(upper, lower);

/** One statistic of a sample in rising order with some spread. */
export function outlierStatistic(
  sorted: Float64Array,
  which: OutlierStatistic,
  { side, most, alpha, quartiles }: Pick<OutlierReplicates, 'side' | 'most' | 'alpha' | 'quartiles'>,
): number {
  const n = sorted.length;
  const [least, greatest] = [sorted[0]!, sorted[n - 1]!];
  switch (which) {
    case 'grubbs': {
      const { mean, sd } = centreAndSpread(sorted);
      return farthest(sorted, mean, sd, side).statistic;
    }
    case 'pair-upper':
    case 'pair-lower':
    case 'pair-both':
      return pairStatistic(sorted, which === 'pair-both' ? 'both' : which === 'pair-upper' ? 'upper' : 'lower');
    case 'dixon':
      return dixon(sorted, dixonRatioFor(n)!, side).statistic;
    case 'generalized-esd':
      return generalizedEsd(sorted, most, alpha, side).count;
    case 'modified-z': {
      const scale = robustScale(sorted);
      return greater(modifiedZ(greatest, scale), -modifiedZ(least, scale), side);
    }
    case 'fences': {
      const [q1, q3] = quartilesOfSorted(sorted, quartiles);
      // Without a quartile range any other reading lies infinitely many of them out.
      const out = (distance: number) => (distance > 0 ? distance / (q3 - q1) : 0);
      return greater(out(greatest - q3), out(q1 - least), side);
    }
  }
}

/** Draws samples in rising order into `values`. */
function sampler({ n, law, rounding }: OutlierReplicates) {
  if (law) {
    const { values, next } = createRedraw({ n, ...law });
    const scores = new Float64Array(n);
    return {
      values: scores,
      draw(state: StreamState) {
        const own = next(state);
        for (let i = 0; i < n; i++) scores[i] = normalScore(own, values[i]!);
      },
    };
  }
  const values = new Float64Array(n);
  const sort = createSorter(n);
  const fill = drawOf('normal', rounding);
  return {
    values,
    draw(state: StreamState) {
      fill(values, state);
      sort(values);
    },
  };
}

/** The statistics asked for of so many samples with nothing to find, one sample after another. A sample that rounding has left without any spread has nothing far out: 0, of pairs 1. */
export function simulateOutliers(input: OutlierReplicates, state: StreamState, replicates: number): Float64Array {
  const { which, n } = input;
  const { values, draw } = sampler(input);
  const out = new Float64Array(replicates * which.length);
  for (let r = 0; r < replicates; r++) {
    draw(state);
    const flat = !(values[n - 1]! > values[0]!);
    for (let k = 0; k < which.length; k++) {
      const one = which[k]!;
      const nothing = one === 'pair-upper' || one === 'pair-lower' ? 1 : 0;
      out[r * which.length + k] = flat ? nothing : outlierStatistic(values, one, input);
    }
  }
  return out;
}
