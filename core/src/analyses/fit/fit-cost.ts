import type { Fitting } from '../../distributions/fit/refit.js';
import { familyByName } from '../../distributions/registry.js';

/** What fitting a sample anew costs beside drawing it, and how many replicates can be asked for by that without being told. */
export interface FitCost {
  times: number;
  replicates: number;
}

/** Measured at n = 50: a gamma takes 20 to 30 µs, a search half a millisecond to two, a threshold some milliseconds. */
export function fitCost({ family: name, given, estimateThreshold }: Fitting): FitCost {
  const { estimation, parameters } = familyByName(name);
  const claim = parameters.every((spec) => spec.optional || spec.name in given);
  if (claim || name === 'normal') return { times: 4, replicates: 10_000 };
  if (estimateThreshold) return { times: 2_000, replicates: 1_000 };
  return estimation.maximum ? { times: 16, replicates: 10_000 } : { times: 500, replicates: 2_000 };
}
