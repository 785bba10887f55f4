import { chiSquare } from '../../distributions/families/chi-square.js';
import type { Parameters } from '../../distributions/family.js';
import { meanMargin } from '../../describe/intervals.js';
import { countsInCells, shownCells, type CountCell } from '../../goodness-of-fit/counts/cells.js';
import { dispersionOf, zerosOf } from '../../goodness-of-fit/counts/dispersion.js';
import { cumulativeOf, type CountModel } from '../../goodness-of-fit/counts/model.js';
import { beginOf, pooledChiSquare } from '../../goodness-of-fit/counts/tally.js';
import { pOfTally, type SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { gammaLowerQuantile, gammaUpperQuantile } from '../../numeric/gamma-quantile.js';
import { formatPercent } from '../../numeric/format.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Answers } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { unavailable, whyNotEven } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { affordableReplicates } from '../../road/settings.js';
import { comparedCounts, estimatedCount, fittedCounts } from './count-families.js';
import type { CountReadings } from '../../road/counted.js';
import { countReadings } from './count-readings.js';
import type { CountFitResult, CountTest, ObservedCell } from './count-fit-result.js';
import {
  countFitRequest,
  countFitSentence,
  countSubject,
  leastExpected,
  type CountFitRequest as Request,
} from './count-fit-settings.js';
import { countFinding, countNotes } from './count-fit-words.js';

/** Fewer counts than these show nothing. */
const LEAST_N = 5;

/** The exact interval of a Poisson mean from the sum of n counts (Garwood 1936). */
export function poissonInterval(total: number, n: number, confidence: number) {
  const tail = (1 - confidence) / 2;
  return {
    lower: total === 0 ? 0 : gammaLowerQuantile(total, tail) / n,
    upper: gammaUpperQuantile(total + 1, tail) / n,
  };
}

const withObserved = (cells: readonly CountCell[], observed: readonly number[]): ObservedCell[] =>
  cells.map((cell, i) => ({ ...cell, observed: observed[i]! }));

/** Cochran (1954): the χ² curve holds where hardly any cell expects less than five, and none less than one. */
const enough = (cells: readonly CountCell[]) =>
  cells.every(({ expected }) => expected >= 1 - 1e-9) &&
  cells.filter(({ expected }) => expected < 5 - 1e-9).length <= 0.2 * cells.length;

const aboveChi = (statistic: number, df: number) => (df < 1 ? null : chiSquare.of({ df }).survival(statistic));

/** Pearson’s χ² over pooled cells, with as many degrees of freedom as cells less one and less the parameters found. */
function chiSquareTest(model: CountModel, parameters: Parameters, counts: Float64Array, least: number) {
  const found = pooledChiSquare(model, parameters, counts, least);
  if (!found) return { pooled: [], test: null };
  const { cells, observed, statistic } = found;
  const df = cells.length - 1 - estimatedCount(parameters, model.family);
  const pAsymptotic = enough(cells) ? aboveChi(statistic, df) : null;
  const test: CountTest = { statistic, df, alternative: 'greater', pAsymptotic, pSimulated: null };
  return { pooled: withObserved(cells, observed), test };
}

/** The dispersion test of Poisson and binomial counts; its curve holds where every count expects five. */
function dispersionTest(
  { family, trials }: CountModel,
  parameters: Parameters,
  counts: Float64Array,
): CountTest | null {
  if (family !== 'poisson' && family !== 'binomial') return null;
  const statistic = dispersionOf(counts, trials);
  const df = counts.length - 1;
  const least = trials
    ? Math.min(...trials.map((m) => m * Math.min(parameters.probability!, 1 - parameters.probability!)))
    : parameters.mean!;
  const above = aboveChi(statistic, df)!;
  const pAsymptotic = least >= 5 ? Math.min(1, 2 * Math.min(above, 1 - above)) : null;
  return { statistic, df, alternative: 'two-sided', pAsymptotic, pSimulated: null };
}

/** All that is known before anything is simulated; why there is nothing. */
function worked(settings: Request, sample: Sample, { counts, trials, notes }: CountReadings): CountFitResult | string {
  const { family, alpha, confidence, test } = settings;
  const model: CountModel = { family, trials };
  const fitted = fittedCounts(model, counts);
  if (typeof fitted === 'string') return fitted;
  const { parameters, standardErrors } = fitted;
  const { n, mean, s2 } = centralMoments(counts);
  const total = Math.round(mean * n);
  const variance = s2 / (n - 1);
  const margin = meanMargin(n, Math.sqrt(variance), confidence);
  const cumulative = cumulativeOf(model, parameters);
  const [least, greatest] = [counts.reduce((a, b) => Math.min(a, b)), counts.reduce((a, b) => Math.max(a, b))];
  const cells = shownCells(cumulative, n, least, greatest);
  const { pooled, test: chi } = chiSquareTest(model, parameters, counts, leastExpected(settings));
  const allTrials = trials?.reduce((a, b) => a + b, 0) ?? 0;
  const begin = beginOf(model, parameters);
  const result: CountFitResult = {
    ...{ available: true, n, missing: sample.missing, setAside: sample.setAside, unit: sample.unit },
    ...{ alpha, confidence, family, parameters, standardErrors },
    trials: trials && { each: trials.every((m) => m === trials[0]) ? trials[0]! : null, total: allTrials },
    ...{ total, mean, variance, varianceRatio: variance / mean },
    meanIntervals: {
      exact: family === 'poisson' ? poissonInterval(total, n, confidence) : null,
      t: { lower: Math.max(0, mean - margin), upper: mean + margin },
    },
    rate: trials && rateOf(total, allTrials, confidence),
    cells: withObserved(cells, countsInCells(cells, counts)),
    pooled,
    main: test,
    chiSquare: chi,
    dispersion: dispersionTest(model, parameters, counts),
    zeros: { observed: zerosOf(counts), expected: begin > 0 ? 0 : n * cumulative(0), pSimulated: null },
    ...comparedCounts(counts, trials),
    notes,
  };
  return { ...result, notes: [...notes, ...countNotes(result)] };
}

function rateOf(successes: number, trials: number, confidence: number): CountFitResult['rate'] {
  const [lower, upper] = clopperPearson(successes, trials, confidence);
  return { value: successes / trials, interval: { lower, upper } };
}

/** Twice the smaller tail (Cox & Hinkley 1974, section 3.4). */
function twoSided(above: number, below: number, replicates: number, seed: number): SimulatedP {
  const one = pOfTally(Math.min(above, below), replicates, seed);
  const [low, high] = one.pInterval;
  return { ...one, pValue: Math.min(1, 2 * one.pValue), pInterval: [Math.min(1, 2 * low), Math.min(1, 2 * high)] };
}

/** With what the samples say. */
function withP(
  result: CountFitResult,
  readings: CountReadings,
  { replicates, seed }: Request,
  answers: Answers,
): CountFitResult {
  const chunks = answers[0] ?? [];
  const tally = (k: number) => chunks.reduce((sum, chunk) => sum + chunk[k]!, 0);
  const { chiSquare: chi, dispersion, zeros } = result;
  const found = {
    ...result,
    chiSquare: chi && { ...chi, pSimulated: pOfTally(tally(0), replicates!, seed) },
    dispersion: dispersion && { ...dispersion, pSimulated: twoSided(tally(1), tally(2), replicates!, seed) },
    zeros: { ...zeros, pSimulated: pOfTally(tally(3), replicates!, seed) },
  };
  return { ...found, notes: [...readings.notes, ...countNotes(found)] };
}

/** Do counts follow Poisson or another family of counts (STATISTICS section 5)? */
export const countFitAnalysis = defineAnalysis<Request, CountFitResult>({
  id: 'count-fit',
  version: 2,
  name: 'Count distribution',
  title: 'test of a Poisson, binomial, negative binomial, geometric or discrete uniform distribution',
  request: countFitRequest,
  method: countFitSentence,
  subject: countSubject,
  resolve: (settings, sample) => ({
    ...settings,
    replicates: settings.replicates ?? affordableReplicates(sample.values.length, 10_000, 1_000),
  }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const own = settings.beside && sample.groups ? sample.groups.samples[0]! : sample;
    const reason = whyNotEven(own, LEAST_N, 'a fit of counts') ?? whyCensored(own, 'a fit of counts');
    if (reason) return unavailable(own, reason);
    const readings = countReadings(sample, settings);
    if (typeof readings === 'string') return unavailable(own, readings);
    const { counts, trials } = readings;
    const n = counts.length;
    if (n < LEAST_N)
      return unavailable(own, `The number of trials is known for only ${n} counts; a fit needs at least ${LEAST_N}.`);
    if (settings.family !== 'binomial' && counts.every((x) => x === 0)) {
      const { upper } = poissonInterval(0, n, 2 * settings.confidence - 1);
      return unavailable(
        own,
        `All ${n} counts of ${own.name} are 0: no distribution can be fitted. With ${formatPercent(settings.confidence)} confidence the mean of Poisson counts is below ${Number(upper.toPrecision(3))}.`,
      );
    }
    const result = worked(settings, own, readings);
    if (typeof result === 'string') return unavailable(own, result);
    const { family, parameters, chiSquare: chi, dispersion, zeros } = result;
    const book = orderBook(settings.seed, chunkSizeFor(4 * n));
    const observed = {
      chiSquare: chi?.statistic ?? null,
      dispersion: dispersion?.statistic ?? null,
      zeros: zeros.observed,
    };
    const input = { n, model: { family, trials }, parameters, least: leastExpected(settings), observed };
    book.add({ kernel: 'count-tallies', input }, settings.replicates!);
    const answers = yield { partial: result, orders: book.orders };
    return withP(result, readings, settings, answers);
  },
  finding: countFinding,
});
