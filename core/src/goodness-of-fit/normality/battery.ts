import { normalCumulative } from '../../numeric/standard-normal.js';
import { fillNormals } from '../../random/normal.js';
import type { StreamState } from '../../random/stream.js';
import type { RoundedNormal } from '../rounded-normal.js';
import { andersonDarling } from './anderson-darling.js';
import { createScratch, replicateStatistic } from './anderson-darling-simulation.js';
import { cramerVonMises } from './cramer-von-mises.js';
import { kurtosisScore } from './kurtosis.js';
import { lilliefors } from './lilliefors.js';
import { jarqueBera, shapeOfScores } from './moments.js';
import { fillibenScores, plotCorrelation } from './plot-correlation.js';
import { roundDraw } from './rounded-draws.js';
import { shapiroWilk, shapiroWilkWeights } from './shapiro-wilk.js';
import { SKEWNESS_LEAST_N, skewnessScore } from './skewness.js';

/** The tests of normality, in the order of STATISTICS section 5. */
export const NORMALITY_TESTS = [
  'anderson-darling',
  'shapiro-wilk',
  'lilliefors',
  'cramer-von-mises',
  'skewness',
  'kurtosis',
  'omnibus',
  'jarque-bera',
  'plot-correlation',
] as const;
export type NormalityTestName = (typeof NORMALITY_TESTS)[number];

/** The least n that each test can be asked of. */
export const LEAST_N: Record<NormalityTestName, number> = {
  'anderson-darling': 3,
  'shapiro-wilk': 3,
  lilliefors: 3,
  'cramer-von-mises': 3,
  skewness: SKEWNESS_LEAST_N,
  kurtosis: 5,
  omnibus: SKEWNESS_LEAST_N,
  'jarque-bera': 3,
  'plot-correlation': 3,
};

const EVERY = Object.fromEntries(NORMALITY_TESTS.map((name, i) => [name, i])) as Record<NormalityTestName, number>;

/** What stays the same for all samples of n: the weights of W and the scores of the plot. */
interface Constants {
  weights: Float64Array;
  filliben: Float64Array;
  shape: Float64Array;
}
const constantsOf = (n: number): Constants => ({
  weights: shapiroWilkWeights(n),
  filliben: fillibenScores(n),
  shape: new Float64Array(2),
});

/** All statistics but A² of standard scores in rising order, with the normal curve at them; NaN where n is below the test's least. */
function measure(scores: Float64Array, cumulative: Float64Array, constants: Constants, into: Float64Array): void {
  const n = scores.length;
  const { weights, filliben, shape } = constants;
  shapeOfScores(scores, shape);
  const g1 = shape[0]!;
  const g2 = shape[1]!;
  const lean = n < LEAST_N.skewness ? NaN : skewnessScore(g1, n);
  const tails = n < LEAST_N.kurtosis ? NaN : kurtosisScore(g2, n);
  into[EVERY['shapiro-wilk']] = shapiroWilk(scores, weights);
  into[EVERY.lilliefors] = lilliefors(cumulative);
  into[EVERY['cramer-von-mises']] = cramerVonMises(cumulative);
  into[EVERY.skewness] = lean;
  into[EVERY.kurtosis] = tails;
  into[EVERY.omnibus] = lean * lean + tails * tails;
  into[EVERY['jarque-bera']] = jarqueBera(g1, g2, n);
  into[EVERY['plot-correlation']] = plotCorrelation(scores, filliben);
}

/** The nine statistics of readings in rising order with this mean and sd, in the order of NORMALITY_TESTS. */
export function normalityStatistics(sorted: Float64Array, mean: number, sd: number): Float64Array {
  const into = new Float64Array(NORMALITY_TESTS.length);
  const scores = sorted.map((x) => (x - mean) / sd);
  measure(scores, scores.map(normalCumulative), constantsOf(sorted.length), into);
  into[EVERY['anderson-darling']] = andersonDarling(sorted, mean, sd);
  return into;
}

/** How far out a statistic is, the greater the further: W and r speak against normal when they are small, the two scores on either side. */
export function extremeness(test: NormalityTestName, statistic: number): number {
  if (test === 'shapiro-wilk' || test === 'plot-correlation') return 1 - statistic;
  return test === 'skewness' || test === 'kurtosis' ? Math.abs(statistic) : statistic;
}

export interface NormalityTallies {
  n: number;
  /** A normal in steps, every draw of which is rounded to whole ones; null: not rounded. */
  rounding: RoundedNormal | null;
  /** The statistics of the readings, in the order of NORMALITY_TESTS; null where a test has none. */
  observed: readonly (number | null)[];
}

/** A tie that rounding in the last place has parted is still a tie. */
const TIE = 1e-12;

/** How many of so many replicates are at least as far out as the readings, by test: what merges by adding. */
export function tallyNormality(
  { n, rounding, observed }: NormalityTallies,
  state: StreamState,
  replicates: number,
): Float64Array {
  const scratch = createScratch(n);
  const constants = constantsOf(n);
  const found = new Float64Array(NORMALITY_TESTS.length);
  const tallies = new Float64Array(NORMALITY_TESTS.length);
  const limits = NORMALITY_TESTS.map((test, k) => {
    const statistic = observed[k];
    if (statistic === null || statistic === undefined) return Infinity;
    const far = extremeness(test, statistic);
    return far - TIE * Math.max(Math.abs(far), Math.abs(statistic));
  });
  for (let r = 0; r < replicates; r++) {
    if (rounding) roundDraw(rounding, state, scratch.values);
    else fillNormals(state, scratch.values);
    found[0] = replicateStatistic(scratch);
    measure(scratch.values, scratch.lower, constants, found);
    for (let k = 0; k < NORMALITY_TESTS.length; k++) {
      if (extremeness(NORMALITY_TESTS[k]!, found[k]!) >= limits[k]!) tallies[k] = tallies[k]! + 1;
    }
  }
  return tallies;
}
