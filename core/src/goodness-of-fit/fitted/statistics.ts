import { isRefusal, type Parameters } from '../../distributions/family.js';
import { refitter, type Fitting } from '../../distributions/fit/refit.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { createSorter } from '../../numeric/sort.js';
import type { StreamState } from '../../random/stream.js';
import { FITTED_TESTS, fittedMeasure, type FittedTest } from './battery.js';

export interface FittedStatistics {
  n: number;
  test: FittedTest;
  /** What is held against the samples, found anew from each. */
  fitting: Fitting;
  /** What they are drawn from: of the same family, or of another. */
  from: { family: string; parameters: Parameters };
  /** Cells of χ². */
  cells: number;
}

/** The statistic of samples in the order drawn, greater for a greater distance; Infinity for a sample that the family cannot have produced. */
export function simulateFittedStatistics(
  { n, test, fitting, from, cells }: FittedStatistics,
  state: StreamState,
  replicates: number,
): Float64Array {
  const family = familyByName(fitting.family);
  const source = distribution(familyByName(from.family), from.parameters);
  const place = FITTED_TESTS.indexOf(test);
  const measure = fittedMeasure(
    n,
    cells,
    FITTED_TESTS.map((_, k) => k === place),
  );
  const refit = refitter(fitting);
  const values = new Float64Array(n);
  const sort = createSorter(n);
  const found = new Float64Array(FITTED_TESTS.length);
  const statistics = new Float64Array(replicates);
  for (let r = 0; r < replicates; r++) {
    source.sample(state, values);
    sort(values);
    const own = refit(values);
    // A search that failed on a sample of its own family says nothing against it.
    if (isRefusal(own) && from.family !== fitting.family) {
      statistics[r] = Infinity;
      continue;
    }
    measure(values, isRefusal(own) ? source : family.of(own), found);
    statistics[r] = found[place]!;
  }
  return statistics;
}
