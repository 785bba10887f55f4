import { isRefusal, refuse, type Parameters, type Refusal } from '../../distributions/family.js';
import { familyByName } from '../../distributions/registry.js';
import { binomial } from '../../distributions/families/binomial.js';
import { nextOpenUnit, type StreamState } from '../../random/stream.js';

/** The families that counts may follow. */
export const COUNT_FAMILIES = ['poisson', 'binomial', 'negative-binomial', 'geometric', 'discrete-uniform'] as const;
export type CountFamily = (typeof COUNT_FAMILIES)[number];

/** The model of counts: a family, and for the binomial the number of trials of each count, in the order of the counts. */
export interface CountModel {
  family: CountFamily;
  trials: readonly number[] | null;
}

/** The share of counts at or below k, of all of them together. */
export type Cumulative = (k: number) => number;

/** Distributions of the same probability, one for each number of trials, and the places of the counts that have it. */
interface TrialGroup {
  trials: number;
  places: number[];
}

export function trialGroups(trials: readonly number[]): TrialGroup[] {
  const groups = new Map<number, number[]>();
  trials.forEach((m, i) => {
    const places = groups.get(m);
    if (places) places.push(i);
    else groups.set(m, [i]);
  });
  return [...groups].map(([m, places]) => ({ trials: m, places }));
}

const sum = (x: ArrayLike<number>): number => {
  let total = 0;
  for (let i = 0; i < x.length; i++) total += x[i]!;
  return total;
};

/** The maximum-likelihood parameters of counts; for a binomial with trials of each count, all successes over all trials. */
export function fitCounts({ family, trials }: CountModel, counts: Float64Array): Parameters | Refusal {
  const { estimation } = familyByName(family);
  if (!trials) return estimation.maximum!(counts.slice().sort(), {});
  const share = sum(counts) / sum(trials);
  if (share > 0 && share < 1) return { probability: share };
  return refuse('All trials had the same outcome, so no probability between 0 and 1 can be estimated.');
}

/** The distribution of the counts together: with unequal trials a mixture. */
export function cumulativeOf({ family, trials }: CountModel, parameters: Parameters): Cumulative {
  if (!trials) {
    const law = familyByName(family).of(parameters);
    return (k) => law.cumulative(k);
  }
  const { probability } = parameters as { probability: number };
  const laws = trialGroups(trials).map(({ trials: m, places }) => ({
    law: m > 0 ? binomial.of({ trials: m, probability }) : null,
    share: places.length / trials.length,
  }));
  return (k) => {
    let total = 0;
    for (const { law, share } of laws) total += share * (law ? law.cumulative(k) : k >= 0 ? 1 : 0);
    return Math.min(1, total);
  };
}

/** Fills counts with a sample. */
export type DrawCounts = (counts: Float64Array, state: StreamState) => void;

/** Up to this mean the events are distributed one by one. */
const DEALT = 20;

/**
 * Poisson counts given their sum, which is sufficient for the mean: every event falls on one of the n counts with equal probability. Tests made with
 * such samples are exact whatever the mean (Fisher 1950).
 */
function dealOut(total: number): DrawCounts {
  return (counts, state) => {
    const n = counts.length;
    counts.fill(0);
    if (total <= DEALT * n) {
      for (let event = 0; event < total; event++) {
        const place = Math.floor(nextOpenUnit(state) * n);
        counts[place] = counts[place]! + 1;
      }
      return;
    }
    const one = new Float64Array(1);
    let left = total;
    for (let i = 0; i < n - 1 && left > 0; i++) {
      binomial.of({ trials: left, probability: 1 / (n - i) }).sample(state, one);
      counts[i] = one[0]!;
      left -= one[0]!;
    }
    counts[n - 1] = counts[n - 1]! + left;
  };
}

/** How samples of n counts are drawn under a fitted model; of Poisson counts, with the sum of the counts themselves. */
export function drawCounts({ family, trials }: CountModel, parameters: Parameters, n: number): DrawCounts {
  if (family === 'poisson') return dealOut(Math.round(parameters.mean! * n));
  if (!trials) {
    const law = familyByName(family).of(parameters);
    return (counts, state) => law.sample(state, counts);
  }
  const { probability } = parameters as { probability: number };
  const groups = trialGroups(trials)
    .filter(({ trials: m }) => m > 0)
    .map(({ trials: m, places }) => ({
      law: binomial.of({ trials: m, probability }),
      places,
      some: new Float64Array(places.length),
    }));
  return (counts, state) => {
    counts.fill(0);
    for (const { law, places, some } of groups) {
      law.sample(state, some);
      places.forEach((place, i) => (counts[place] = some[i]!));
    }
  };
}

/**
 * Parameters estimated from a simulated sample. If counts vary no more than Poisson counts, the estimate is at the boundary of the negative binomial,
 * where it equals Poisson: the size is then set so large that the two cannot be distinguished.
 */
export function refitCounts(model: CountModel, counts: Float64Array): Parameters | null {
  const found = fitCounts(model, counts);
  if (!isRefusal(found)) return found;
  if (model.family !== 'negative-binomial') return null;
  const mean = sum(counts) / counts.length;
  return mean > 0 ? { size: ALMOST_POISSON, probability: ALMOST_POISSON / (ALMOST_POISSON + mean) } : null;
}
const ALMOST_POISSON = 1e9;
