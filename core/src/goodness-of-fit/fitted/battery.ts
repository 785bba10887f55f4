import { isRefusal, type Distribution, type Family, type Parameters } from '../../distributions/family.js';
import { refitter, type Fitting } from '../../distributions/fit/refit.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { createSorter } from '../../numeric/sort.js';
import type { StreamState } from '../../random/stream.js';
import { andersonDarlingDistance, cramerVonMises, equalCellsChiSquare, kolmogorovSmirnov } from '../distances.js';

/** The tests of any family, in the order of STATISTICS section 5. */
export const FITTED_TESTS = ['anderson-darling', 'cramer-von-mises', 'kolmogorov-smirnov', 'chi-square'] as const;
export type FittedTest = (typeof FITTED_TESTS)[number];

/** Both tails lose nothing that matters between these shares when one is taken from the other. */
const FAR = 1e-4;

/** The statistics of readings in rising order under a distribution, in the order of FITTED_TESTS; χ² over so many cells. Those of no interest are NaN. */
export interface FittedBattery {
  values: Float64Array;
  measure(law: Distribution, into: Float64Array): void;
}

export function createFittedBattery(
  n: number,
  cells: number,
  wanted: readonly boolean[] = FITTED_TESTS.map(() => true),
): FittedBattery {
  const [a2, w2, d, chi2] = wanted;
  const values = new Float64Array(n);
  const cumulative = new Float64Array(n);
  const survival = new Float64Array(n);
  const counts = new Int32Array(Math.max(1, cells));
  return {
    values,
    measure(law, into) {
      for (let i = 0; i < n; i++) {
        const p = law.cumulative(values[i]!);
        cumulative[i] = p;
        survival[i] = 1 - p > FAR ? 1 - p : law.survival(values[i]!);
      }
      into[0] = a2 ? andersonDarlingDistance(cumulative, survival) : NaN;
      into[1] = w2 ? cramerVonMises(cumulative) : NaN;
      into[2] = d ? kolmogorovSmirnov(cumulative) : NaN;
      into[3] = chi2 && cells > 1 ? equalCellsChiSquare(cumulative, cells, counts) : NaN;
    },
  };
}

export interface FittedTallies {
  n: number;
  fitting: Fitting;
  /** Of the distribution that is drawn from. */
  parameters: Parameters;
  /** Cells of χ²; 0 where there are too few readings for it. */
  cells: number;
  /** The step to which every draw is rounded before it is fitted; null: not rounded. */
  step: number | null;
  /** The statistics of the readings, in the order of FITTED_TESTS; null where a test has none. */
  observed: readonly (number | null)[];
}

/** A tie that rounding in the last place has parted is still a tie. */
const TIE = 1e-12;
/** A replicate that cannot be fitted is drawn again, so often. */
const MOST_DRAWS = 8;

/** A sample of the law in rising order, fitted anew; the law itself where so many samples in a row cannot be fitted. */
function drawFitted(
  { values }: FittedBattery,
  { law, family, refit, sort, step }: Drawing,
  state: StreamState,
): Distribution {
  for (let draw = 0; draw < MOST_DRAWS; draw++) {
    law.sample(state, values);
    if (step !== null) for (let i = 0; i < values.length; i++) values[i] = Math.round(values[i]! / step) * step;
    sort(values);
    if (step !== null && values[0] === values[values.length - 1]) continue;
    const found = refit(values);
    if (!isRefusal(found)) return family.of(found);
  }
  return law;
}

interface Drawing {
  law: Distribution;
  family: Family;
  refit: ReturnType<typeof refitter>;
  sort: (values: Float64Array) => void;
  step: number | null;
}

/** How many of so many replicates, each drawn from the fitted distribution and fitted anew, are at least as far off as the readings, by test. */
export function tallyFitted(input: FittedTallies, state: StreamState, replicates: number): Float64Array {
  const { n, fitting, parameters, cells, step, observed } = input;
  const family = familyByName(fitting.family);
  const wanted = FITTED_TESTS.map((_, k) => typeof observed[k] === 'number');
  const battery = createFittedBattery(n, cells, wanted);
  const drawing = {
    law: distribution(family, parameters),
    family,
    refit: refitter(family, fitting),
    sort: createSorter(n),
    step,
  };
  const found = new Float64Array(FITTED_TESTS.length);
  const tallies = new Float64Array(FITTED_TESTS.length);
  const limits = FITTED_TESTS.map((_, k) => {
    const statistic = observed[k];
    return statistic === null || statistic === undefined ? Infinity : statistic - TIE * Math.abs(statistic);
  });
  for (let r = 0; r < replicates; r++) {
    battery.measure(drawFitted(battery, drawing, state), found);
    for (let k = 0; k < FITTED_TESTS.length; k++) if (found[k]! >= limits[k]!) tallies[k] = tallies[k]! + 1;
  }
  return tallies;
}
