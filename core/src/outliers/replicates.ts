import type { Parameters } from '../distributions/family.js';
import { createRedraw } from '../distributions/fit/redraw.js';
import type { Fitting } from '../distributions/fit/refit.js';
import { normalScore } from '../distributions/normal-score.js';
import { drawOf } from '../goodness-of-fit/normality/anderson-darling-simulation.js';
import type { RoundedNormal } from '../goodness-of-fit/rounded-normal.js';
import { createSorter } from '../numeric/sort.js';
import type { StreamState } from '../random/stream.js';
import { createDistances, needsOrder, scoreExtremes, type OutlierStatistic, type RuleSettings } from './distances.js';

export interface OutlierReplicates extends RuleSettings {
  n: number;
  which: readonly OutlierStatistic[];
  /** The number of most extreme readings that are scored, each without the more extreme ones; their scores follow the statistics. */
  extremes: number;
  /** A distribution other than normal, refitted in every replicate; its readings are converted to normal scores. Null: normal. */
  law: { fitting: Fitting; parameters: Parameters; step: number | null } | null;
  /** A normal in steps of the resolution, every draw rounded to whole steps. Null: not rounded. */
  rounding: RoundedNormal | null;
}

/** Draws samples into `values`, in rising order where that is needed. */
function sampler({ n, law, rounding, which, extremes }: OutlierReplicates) {
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
  const sorts = extremes > 0 || needsOrder(which);
  return {
    values,
    draw(state: StreamState) {
      fill(values, state);
      if (sorts) sort(values);
    },
  };
}

/** The requested statistics of clean samples, one sample after another. */
export function simulateOutliers(input: OutlierReplicates, state: StreamState, replicates: number): Float64Array {
  const { which, n, extremes, side } = input;
  const each = which.length + extremes;
  const { values, draw } = sampler(input);
  const measure = createDistances(n, which, input);
  const out = new Float64Array(replicates * each);
  for (let r = 0; r < replicates; r++) {
    draw(state);
    measure(values, out, r * each);
    if (extremes > 0) scoreExtremes(values, side, extremes, out, r * each + which.length);
  }
  return out;
}
