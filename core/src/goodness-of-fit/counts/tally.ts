import type { Parameters } from '../../distributions/family.js';
import type { StreamState } from '../../random/stream.js';
import { chiSquareOf, countsInCells, pooledCells } from './cells.js';
import { dispersionOf, zerosOf } from './dispersion.js';
import { cumulativeOf, drawCounts, refitCounts, type CountModel } from './model.js';
import { greatestTie, leastTie } from '../../numeric/ties.js';

export interface CountTallies {
  n: number;
  model: CountModel;
  parameters: Parameters;
  /** What every pooled cell expects at least. */
  least: number;
  /** Of the counts themselves: null where there is no such test. */
  observed: { chiSquare: number | null; dispersion: number | null; zeros: number };
}

/** A sample that cannot be fitted, all zeros, is drawn again, so often. */
const MOST_DRAWS = 100;

/** Where whole numbers begin under a model. */
export const beginOf = ({ family }: CountModel, parameters: Parameters): number =>
  family === 'discrete-uniform' ? parameters.lower! : 0;

/** χ² of counts over cells pooled by their own fitted distribution; null where there are too few of them for two cells. */
export function pooledChiSquare(model: CountModel, parameters: Parameters, counts: Float64Array, least: number) {
  const cells = pooledCells(cumulativeOf(model, parameters), counts.length, beginOf(model, parameters), least);
  if (cells.length === 0) return null;
  const observed = countsInCells(cells, counts);
  return { cells, observed, statistic: chiSquareOf(cells, observed) };
}

/**
 * The number of samples, drawn under the fitted model and refitted, that are at least as extreme as the readings: by χ², by high dispersion, by low
 * dispersion, by the number of zeros.
 */
export function tallyCounts(
  { n, model, parameters, least, observed }: CountTallies,
  state: StreamState,
  replicates: number,
): Float64Array {
  const counts = new Float64Array(n);
  const draw = drawCounts(model, parameters, n);
  const tallies = new Float64Array(4);
  const { chiSquare, dispersion, zeros } = observed;
  // Of Poisson counts the sum stays, and with it all that is fitted.
  const fixed = model.family === 'poisson' ? pooledCells(cumulativeOf(model, parameters), n, 0, least) : null;
  for (let r = 0; r < replicates; r++) {
    let found: Parameters | null = null;
    for (let k = 0; k < MOST_DRAWS && found === null; k++) {
      draw(counts, state);
      found = fixed ? parameters : refitCounts(model, counts);
    }
    const own = found ?? parameters;
    if (chiSquare !== null) {
      const chi2 = fixed
        ? chiSquareOf(fixed, countsInCells(fixed, counts))
        : (pooledChiSquare(model, own, counts, least)?.statistic ?? 0);
      if (chi2 >= leastTie(chiSquare)) tallies[0]!++;
    }
    if (dispersion !== null) {
      const varied = dispersionOf(counts, model.trials);
      if (varied >= leastTie(dispersion)) tallies[1]!++;
      if (varied <= greatestTie(dispersion)) tallies[2]!++;
    }
    if (zerosOf(counts) >= zeros) tallies[3]!++;
  }
  return tallies;
}
