import type { Distribution } from '../../distributions/family.js';
import { createRedraw, type Redrawn } from '../../distributions/fit/redraw.js';
import type { StreamState } from '../../random/stream.js';
import { andersonDarlingDistance, cramerVonMises, equalCellsChiSquare, kolmogorovSmirnov } from '../distances.js';
import { leastTie } from '../../numeric/ties.js';

/** The tests of any family, in the order of STATISTICS section 5. */
export const FITTED_TESTS = ['anderson-darling', 'cramer-von-mises', 'kolmogorov-smirnov', 'chi-square'] as const;
export type FittedTest = (typeof FITTED_TESTS)[number];

/** Between these probabilities either tail may be computed as 1 minus the other without a relevant loss of digits. */
const FAR = 1e-4;

/** Puts the statistics of readings in rising order under a distribution into place. */
type Measure = (sorted: Float64Array, law: Distribution, into: Float64Array) => void;

/** The statistics in the order of FITTED_TESTS, χ² over the given number of cells; NaN for those that are not needed. */
export function fittedMeasure(n: number, cells: number, wanted: readonly boolean[]): Measure {
  const [a2, w2, d, chi2] = wanted;
  const cumulative = new Float64Array(n);
  const survival = new Float64Array(n);
  const counts = new Int32Array(Math.max(1, cells));
  return (sorted, law, into) => {
    for (let i = 0; i < n; i++) {
      const p = law.cumulative(sorted[i]!);
      cumulative[i] = p;
      survival[i] = 1 - p > FAR ? 1 - p : law.survival(sorted[i]!);
    }
    into[0] = a2 ? andersonDarlingDistance(cumulative, survival) : NaN;
    into[1] = w2 ? cramerVonMises(cumulative) : NaN;
    into[2] = d ? kolmogorovSmirnov(cumulative) : NaN;
    into[3] = chi2 && cells > 1 ? equalCellsChiSquare(cumulative, cells, counts) : NaN;
  };
}

/** The statistics of readings in rising order; χ² is null where there are no cells for it. */
export function fittedStatistics(sorted: Float64Array, law: Distribution, cells: number): (number | null)[] {
  const found = new Float64Array(FITTED_TESTS.length);
  fittedMeasure(
    sorted.length,
    cells,
    FITTED_TESTS.map(() => true),
  )(sorted, law, found);
  return Array.from(found, (value) => (Number.isFinite(value) ? value : null));
}

export interface FittedTallies extends Redrawn {
  /** Cells of χ²; 0 where there are too few readings for it. */
  cells: number;
  /** The statistics of the readings, in the order of FITTED_TESTS; null where a test has none. */
  observed: readonly (number | null)[];
}

/** The number of replicates, each drawn from the fitted distribution and refitted, that are at least as far from it as the readings, by test. */
export function tallyFitted(input: FittedTallies, state: StreamState, replicates: number): Float64Array {
  const { n, cells, observed } = input;
  const wanted = FITTED_TESTS.map((_, k) => typeof observed[k] === 'number');
  const { values, next } = createRedraw(input);
  const measure = fittedMeasure(n, cells, wanted);
  const found = new Float64Array(FITTED_TESTS.length);
  const tallies = new Float64Array(FITTED_TESTS.length);
  const limits = FITTED_TESTS.map((_, k) => {
    const statistic = observed[k];
    return statistic === null || statistic === undefined ? Infinity : leastTie(statistic);
  });
  for (let r = 0; r < replicates; r++) {
    measure(values, next(state), found);
    for (let k = 0; k < FITTED_TESTS.length; k++) if (found[k]! >= limits[k]!) tallies[k] = tallies[k]! + 1;
  }
  return tallies;
}
