import { fittingKind, type Fitting, type FittingKind } from './refit.js';

/** The cost of refitting a sample relative to drawing it, and the default number of replicates. */
export interface FitCost {
  times: number;
  replicates: number;
}

/** Measured at n = 50: a gamma takes 20 to 30 µs, a search 0.3 to 3 ms, the careful search some milliseconds. */
const COSTS: Record<FittingKind, FitCost> = {
  claimed: { times: 4, replicates: 10_000 },
  closed: { times: 16, replicates: 10_000 },
  searched: { times: 500, replicates: 2_000 },
  careful: { times: 2_000, replicates: 1_000 },
};

export const fitCost = (fitting: Fitting): FitCost => COSTS[fittingKind(fitting)];

/** The most costly of several. */
export const dearest = (fittings: readonly Fitting[]): FitCost =>
  fittings.map(fitCost).reduce((most, cost) => (cost.times > most.times ? cost : most));
