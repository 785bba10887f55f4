import type { Distribution } from '../distributions/family.js';
import { deltaError, reachOf, type Estimated } from '../distributions/fit/delta.js';
import { createRedraw, type Redrawn } from '../distributions/fit/redraw.js';
import { heldShare } from '../distributions/normal-score.js';
import { familyByName } from '../distributions/registry.js';
import { betaLowerQuantile, betaUpperQuantile, type Share } from '../numeric/beta-quantile.js';
import { normalCumulative, normalQuantile } from '../numeric/standard-normal.js';
import type { StreamState } from '../random/stream.js';
import { familyScale } from './family-scale.js';

export interface FittedShares extends Redrawn {
  ranks: number[];
}

/**
 * Ordered samples of a distribution, each as cumulative probabilities under the distribution refitted to it, at the given ranks, one replicate after
 * another; if all parameters are given, under the distribution itself.
 */
export function simulateOrderedShares(
  { ranks, ...redrawn }: FittedShares,
  state: StreamState,
  replicates: number,
): Float64Array {
  const { values, next } = createRedraw(redrawn);
  const out = new Float64Array(replicates * ranks.length);
  for (let r = 0; r < replicates; r++) {
    const own = next(state);
    for (let j = 0; j < ranks.length; j++) out[r * ranks.length + j] = own.cumulative(values[ranks[j]!]!);
  }
  return out;
}

/** The reading at a cumulative probability of the distribution. */
export function readingOfShare(law: Distribution, u: number): number {
  const p = heldShare(u);
  return p < 0.5 ? law.quantile(p) : law.survivalQuantile(1 - p);
}

const ofShare = (law: Distribution, { x, y }: Share) => (x < 0.5 ? law.quantile(x) : law.survivalQuantile(y));

/**
 * Pointwise limits for each rank with this confidence: the quantiles of Beta(i, n + 1 − i) as readings of the fitted distribution. A proportion of
 * about 1 − confidence of the n readings is outside by chance.
 */
export function pointwiseBand(law: Distribution, n: number, ranks: readonly number[], confidence: number) {
  const tail = (1 - confidence) / 2;
  return {
    lower: ranks.map((rank) => ofShare(law, betaLowerQuantile(rank + 1, n - rank, tail))),
    upper: ranks.map((rank) => ofShare(law, betaUpperQuantile(rank + 1, n - rank, tail))),
  };
}

/** The interval of a fitted quantile by the delta method on the family's own scale, where quantiles are nearest to normal; null without a covariance. */
export function quantileInterval(
  familyName: string,
  fit: Estimated,
  p: number,
  confidence: number,
): { lower: number; upper: number } | null {
  const family = familyByName(familyName);
  const { placeOf, readingAt } = familyScale(family, fit.parameters);
  const quantile = (law: Distribution) => readingOfShare(law, p);
  const value = quantile(family.of(fit.parameters));
  const place = placeOf(value);
  // On a scale of logarithms the threshold moves with the other parameters: the error is taken in the unit, then divided by the slope.
  const error = deltaError(family, fit, quantile);
  if (error === null) return null;
  const onPaper = place === value ? error : error / (value - (fit.parameters.threshold ?? 0));
  const reach = reachOf(confidence) * onPaper;
  return { lower: readingAt(place - reach), upper: readingAt(place + reach) };
}

/** The interval of the share below a value by the delta method on its normal score; null without a covariance. */
export function shareInterval(
  familyName: string,
  fit: Estimated,
  share: (law: Distribution) => number,
  confidence: number,
): { lower: number; upper: number } | null {
  const family = familyByName(familyName);
  const scoreOf = (law: Distribution) => normalQuantile(heldShare(share(law)));
  const error = deltaError(family, fit, scoreOf);
  if (error === null) return null;
  const score = scoreOf(family.of(fit.parameters));
  const reach = reachOf(confidence) * error;
  return { lower: normalCumulative(score - reach), upper: normalCumulative(score + reach) };
}
