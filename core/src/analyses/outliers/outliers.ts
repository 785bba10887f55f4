import { fitCost } from '../../distributions/fit/fit-cost.js';
import { estimatedOf } from '../../distributions/fit/refit.js';
import { medianOfSorted, quartilesOfSorted } from '../../describe/quantiles.js';
import { ordered } from '../../numeric/ordered.js';
import { centreAndSpread } from '../../outliers/grubbs.js';
import { influenceOf } from '../../outliers/influence.js';
import { FENCE } from '../../outliers/screens.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { leftOutNotes, unavailable, whyNot } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { affordableReplicates } from '../../road/settings.js';
import { familyByName } from '../../distributions/registry.js';
import { extremesOf, extremesShown, withProbabilities } from './extremes.js';
import { cleanSamples, cleanWork, judgedByFormula, statisticsFor, type Judged } from './outlier-judging.js';
import { judgedBySamples } from './outlier-simulated.js';
import { scaleOf, type Scale } from './outlier-scale.js';
import { OUTLIERS_LEAST_N, studyTest, type OutliersResult, type OutlierTest } from './outliers-result.js';
import {
  outliersRequest,
  outliersSentence,
  stepsAtMost,
  usualMost,
  type OutliersRequest,
} from './outliers-settings.js';
import { outliersFinding, outliersNotes } from './outliers-words.js';
import { linesOf, workOfOneMore } from './rule-lines.js';
import { normalityOrders, withNormality, withoutNamed } from './without.js';

type Request = OutliersRequest & { most: number };

const judged = (sample: Sample, sorted: Float64Array, scale: Scale): Judged => ({
  ...{ sample, sorted, scale, clean: cleanSamples(sample, scale) },
});

const withNotes = (result: OutliersResult, sample: Sample): OutliersResult => ({
  ...result,
  notes: [...leftOutNotes(sample), ...outliersNotes(result)],
});

/** What changes without the readings that the rule of the study names, once these are known. */
function withWithout(result: OutliersResult, settings: Request, sample: Sample): OutliersResult {
  const { rows } = studyTest(result);
  return { ...result, without: rows && withoutNamed(sample, rows, settings) };
}

/** The tests with what one further reading would have to be; of the study's rule also where that takes the clean samples of one reading more. */
const withLines = (
  tests: readonly OutlierTest[],
  own: Judged,
  settings: Request,
  chunks: readonly Float64Array[] | null = null,
): OutlierTest[] =>
  tests.map((test) =>
    test.reason !== null
      ? test
      : { ...test, lines: linesOf(test.rule, own, settings, test.rule === settings.rule ? chunks : null) },
  );

/** All that asks for no simulation. */
function worked(settings: Request, own: Judged): OutliersResult {
  const { sample, sorted, scale, clean } = own;
  const { missing, setAside, unit, resolution, values, rows } = sample;
  const { alpha, rule, side, most, confidence, quantileType } = settings;
  const { mean, sd } = centreAndSpread(sorted);
  const [q1, q3] = quartilesOfSorted(sorted, quantileType);
  const result: OutliersResult = {
    ...{ available: true, n: values.length, missing, setAside, unit, resolution, alpha, confidence, rule, side, most },
    ...{ family: scale.family, parameters: scale.parameters, replicates: settings.replicates!, mean, sd },
    rounded: clean.rounding !== null || (clean.law !== null && clean.law.step !== null),
    median: medianOfSorted(sorted),
    fences: [q1 - FENCE * (q3 - q1), q3 + FENCE * (q3 - q1)],
    extremes: extremesOf(sample, sorted, scale, settings),
    tests: withLines(judgedByFormula(own, settings), own, settings),
    forNormal: scale.family === 'normal' ? null : { rows: null },
    without: null,
    influence: influenceOf(values),
    ...{ rows, readings: values, notes: [] },
  };
  return withWithout(result, settings, sample);
}

/**
 * Clean samples of the family; of a normal beside it, where another is asked about; and of one reading more, where the rule of the study needs them: drawn as an analysis
 * of those n + 1 readings would draw them.
 */
function cleanOrders(settings: Request, own: Judged, normal: Judged | null, extremes: number) {
  const n = own.sorted.length;
  const which = statisticsFor(n, settings);
  const order = (work: ReturnType<typeof cleanWork>, seed: number) => {
    const book = orderBook(seed, chunkSizeFor(work.input.n));
    book.add(work, settings.replicates!);
    return book.orders;
  };
  const ofMore = workOfOneMore(settings.rule, own, settings);
  const orders = [
    ...order(cleanWork(own.clean, settings, which, extremes), settings.seed),
    ...(normal ? order(cleanWork(normal.clean, settings, which), anotherSeed(settings.seed, 1)) : []),
    ...(ofMore ? order(ofMore, settings.seed) : []),
  ];
  return { which, orders, placeOfMore: ofMore ? orders.length - 1 : null };
}

/** A family whose fit is searched for is fitted in every sample: fewer of them have to do. */
function usualReplicates(family: string, n: number): number {
  const wanted = family === 'normal' ? 10_000 : Math.min(10_000, fitCost(estimatedOf(familyByName(family))).replicates);
  return affordableReplicates(n, wanted, n > 20_000 ? 199 : 1_000);
}

/** Which readings lie too far out, by every rule, and what changes without them. */
export const outliersAnalysis = defineAnalysis<OutliersRequest, OutliersResult>({
  id: 'outliers',
  version: 2,
  name: 'Outliers',
  title: 'outlier tests side by side, and the results with and without the outliers',
  request: outliersRequest,
  method: outliersSentence,
  resolve: (settings, { values }) => ({
    ...settings,
    most: settings.most ?? usualMost(values.length),
    replicates: settings.replicates ?? usualReplicates(settings.family, values.length),
  }),
  *run(asked, sample) {
    const resolved = this.resolve(asked, sample);
    const settings: Request = { ...resolved, most: stepsAtMost(resolved.most!, sample.values.length) };
    const reason = whyNot(sample, OUTLIERS_LEAST_N, 'an outlier test') ?? whyCensored(sample, 'an outlier test');
    if (reason) return unavailable(sample, reason);
    const { sorted } = ordered(sample.values);
    const scale = scaleOf(settings.family, sorted);
    if (typeof scale === 'string') return unavailable(sample, scale);
    const own = judged(sample, sorted, scale);
    const beside = scale.family === 'normal' ? null : scaleOf('normal', sorted);
    const normal = beside === null || typeof beside === 'string' ? null : judged(sample, sorted, beside);
    const partial = worked(settings, own);
    const shown = extremesShown(sorted.length, settings.most);
    const { which, orders, placeOfMore } = cleanOrders(settings, own, normal, shown);
    const answers = yield { partial: withNotes(partial, sample), orders };

    const ofMore = placeOfMore === null ? null : answers[placeOfMore]!;
    const judgedTests = judgedBySamples(own, settings, partial.tests, which, answers[0]!, shown);
    const tests = withLines(judgedTests, own, settings, ofMore);
    const extremes = withProbabilities(partial.extremes, settings.side, answers[0]!, {
      before: which.length,
      shown,
    });
    const normally = normal && judgedBySamples(normal, settings, judgedByFormula(normal, settings), which, answers[1]!);
    const forNormal = normally && { rows: studyTest({ tests: normally, rule: settings.rule }).rows };
    const told = withWithout({ ...partial, tests, extremes, forNormal }, settings, sample);
    const { sizes, orders: more } = told.without ? normalityOrders(settings, told.without) : { sizes: [], orders: [] };
    if (more.length === 0) return withNotes(told, sample);
    const found = yield { partial: withNotes(told, sample), orders: more };
    return withNotes({ ...told, without: withNormality(told.without!, sizes, found, settings.seed) }, sample);
  },
  finding: outliersFinding,
});
