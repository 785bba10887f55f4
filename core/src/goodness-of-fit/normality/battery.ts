import { cramerVonMises, kolmogorovSmirnov } from '../distances.js';
import { normalCumulative } from '../../numeric/standard-normal.js';
import { andersonDarling } from './anderson-darling.js';
import { createScratch, replicateStatistic } from './anderson-darling-simulation.js';
import { kurtosisScore } from './kurtosis.js';
import { jarqueBera, shapeOfScores } from './moments.js';
import { fillibenScores, plotCorrelation } from './plot-correlation.js';
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
  into[EVERY.lilliefors] = kolmogorovSmirnov(cumulative);
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

/** The statistic on a scale where greater values speak against normality: W and r are reversed, the two scores are taken without sign. */
export function extremeness(test: NormalityTestName, statistic: number): number {
  if (test === 'shapiro-wilk' || test === 'plot-correlation') return 1 - statistic;
  return test === 'skewness' || test === 'kurtosis' ? Math.abs(statistic) : statistic;
}

/** The memory and the constants for replicates of n: `values` are drawn into, `measure` puts their nine statistics into place. */
export interface Battery {
  values: Float64Array;
  measure(into: Float64Array): void;
}

export function createBattery(n: number): Battery {
  const scratch = createScratch(n);
  const constants = constantsOf(n);
  return {
    values: scratch.values,
    measure(into) {
      into[0] = replicateStatistic(scratch);
      measure(scratch.values, scratch.lower, constants, into);
    },
  };
}
