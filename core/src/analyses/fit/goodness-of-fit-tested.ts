import { fittedLaw, type FittedLaw } from '../../distributions/fit/fitted-law.js';
import { dearest } from '../../distributions/fit/fit-cost.js';
import { estimatedOf } from '../../distributions/fit/refit.js';
import { isRefusal, type Distribution } from '../../distributions/family.js';
import { fittingKind, type Fitting } from '../../distributions/fit/refit.js';
import { normalScore } from '../../distributions/normal-score.js';
import { distribution, familyByName } from '../../distributions/registry.js';
import { FITTED_TESTS, fittedStatistics, type FittedTest } from '../../goodness-of-fit/fitted/battery.js';
import { andersonDarlingKnown, kolmogorovSmirnovKnown } from '../../goodness-of-fit/fitted/known-parameters.js';
import { pOfTally, type SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import { gammaLower, gammaUpper } from '../../numeric/gamma-tails.js';
import { normalSurvival } from '../../numeric/standard-normal.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import type { Answers, Step, Unavailable } from '../../road/analysis.js';
import { unavailable, whyNot, whyNotEven } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { fittingOf } from './family-settings.js';
import type { FitTestRequest as Request } from './goodness-of-fit-settings.js';
import { fitNotes } from './goodness-of-fit-words.js';
import type { Differs, FitOutcome, GoodnessOfFitResult, GoodnessOfFitTest } from './goodness-of-fit-result.js';

/** χ² wants about five readings in each cell, and no more cells than show a smooth departure best (Mann & Wald 1942, halved). */
const LEAST_IN_A_CELL = 5;
function cellsFor(n: number, estimated: number): number {
  const cells = Math.min(Math.floor(n / LEAST_IN_A_CELL), Math.ceil(2 * n ** 0.4));
  return cells - 1 - estimated >= 1 ? cells : 0;
}

/** Steps finer than this many in an sd change the statistics too little to matter. */
const COARSE = 8;

interface Context {
  sample: Sample;
  settings: Request;
  fitting: Fitting;
  law: FittedLaw;
  cells: number;
  statistics: (number | null)[];
}

const NOT_SIMULATED: readonly null[] = FITTED_TESTS.map(() => null);

/** Tallies of every chunk together, as p-values by test. */
function pOf(chunks: readonly Float64Array[] | undefined, statistics: Context['statistics'], settings: Request) {
  if (!chunks) return NOT_SIMULATED;
  return FITTED_TESTS.map((_, k) => {
    if (statistics[k] === null) return null;
    const far = chunks.reduce((sum, tallies) => sum + tallies[k]!, 0);
    return pOfTally(far, settings.replicates!, settings.seed);
  });
}

function exactP(name: FittedTest, statistic: number, n: number): number | null {
  if (name === 'anderson-darling') return andersonDarlingKnown(statistic, n);
  return name === 'kolmogorov-smirnov' ? kolmogorovSmirnovKnown(statistic, n) : null;
}

function testsOf(
  { sample, law, cells, statistics }: Context,
  plain: readonly (SimulatedP | null)[],
  rounded: readonly (SimulatedP | null)[],
): GoodnessOfFitTest[] {
  const n = sample.values.length;
  const claim = law.estimated.length === 0;
  return FITTED_TESTS.map((name, k) => {
    const statistic = statistics[k]!;
    const pSimulated = plain[k]!;
    const pExact = claim && statistic !== null ? exactP(name, statistic, n) : null;
    const df = name === 'chi-square' && cells > 0 ? cells - 1 - law.estimated.length : null;
    const pAsymptotic = df !== null && statistic !== null ? gammaUpper(df / 2, statistic / 2) : null;
    const known = { exact: pExact, simulated: pSimulated?.pValue ?? null, asymptotic: pAsymptotic };
    const pMethod = (Object.keys(known) as (keyof typeof known)[]).find((by) => known[by] !== null) ?? null;
    const pValue = pMethod && known[pMethod];
    return { test: name, statistic, pValue, pMethod, pExact, pAsymptotic, df, pSimulated, pResolution: rounded[k]! };
  });
}

function outcomeOf({ pValue, pSimulated, pExact, pResolution }: GoodnessOfFitTest, alpha: number): FitOutcome {
  if (pValue === null || (pSimulated === null && pExact === null)) return 'open';
  if (pValue >= alpha) return 'no-evidence';
  return pResolution && pResolution.pValue >= alpha ? 'rounding' : 'evidence';
}

/**
 * In what readings differ from a wholly claimed distribution: their shares under it as normal scores, standard normal if the claim is true, whose mean
 * tells the centre and whose spread tells the spread, whatever the family.
 */
function differsFrom(law: Distribution, values: Float64Array): Omit<Differs, 'shape'> {
  const scores = values.map((x) => normalScore(law, x));
  const { n, mean, s2 } = centralMoments(scores);
  const centre = Math.sqrt(n) * mean;
  const half = (n - 1) / 2;
  const tail = Math.min(gammaLower(half, s2 / 2), gammaUpper(half, s2 / 2));
  return {
    centre: { statistic: centre, pValue: Math.min(1, 2 * normalSurvival(Math.abs(centre))) },
    spread: { statistic: s2, ratio: Math.sqrt(s2 / (n - 1)), pValue: Math.min(1, 2 * tail) },
  };
}

/** A² of the same family with its parameters estimated: what is left of the difference once centre and spread are its own. */
function shapeContext(context: Context): Context | null {
  const { sample, settings } = context;
  const fitting = estimatedOf(settings);
  const law = fittedLaw(sample.values, fitting);
  if (isRefusal(law) || law.estimated.length === 0) return null;
  return { ...context, fitting, law, cells: 0, statistics: statisticsOf(sample, law, 0) };
}

const statisticsOf = (sample: Sample, { family, parameters }: FittedLaw, cells: number) =>
  fittedStatistics(Float64Array.from(sample.values).sort(), distribution(familyByName(family), parameters), cells);

function assemble(
  context: Context,
  plain: readonly (SimulatedP | null)[],
  rounded: readonly (SimulatedP | null)[],
  differs: Differs | null,
): GoodnessOfFitResult {
  const { sample, settings, law, cells } = context;
  const { missing, setAside, unit, resolution, values } = sample;
  const { alpha, test: main } = settings;
  const tests = testsOf(context, plain, rounded);
  const own = tests.find(({ test: name }) => name === main)!;
  const { notes: ofFit, ...told } = law;
  const claim = law.estimated.length === 0;
  const base = {
    available: true,
    n: values.length,
    missing,
    setAside,
    unit,
    resolution,
    alpha,
    law: told,
    claim,
  } as const;
  const notes = [...ofFit, ...fitNotes(sample, own, alpha, claim)];
  return { ...base, main, tests, cells, outcome: outcomeOf(own, alpha), differs, notes };
}

/** A claim is held against its own family estimated as well: that is what takes long. */
export const costOf = (settings: Request) => dearest([fittingOf(settings), estimatedOf(settings)]);

/** Every order of the work, and where its answers will stand. */
function ordersFor(context: Context, shape: Context | null) {
  const { sample, settings } = context;
  const n = sample.values.length;
  const book = orderBook(settings.seed, chunkSizeFor(n * costOf(settings).times));
  const order = (of: Context, step: number | null, like?: number) => {
    const { fitting, law, cells, statistics: observed } = of;
    const input = { n, fitting, parameters: law.parameters, cells, step, observed };
    return book.add({ kernel: 'fitted-tallies', input }, settings.replicates!, like);
  };
  const plain = order(context, null);
  const { resolution } = sample;
  const { s2 } = centralMoments(sample.values);
  const coarse = resolution !== null && Math.sqrt(s2 / (n - 1)) < COARSE * resolution;
  return {
    orders: book.orders,
    plain,
    rounded: coarse ? order(context, resolution, plain) : null,
    shape: shape ? order(shape, null) : null,
  };
}

/** The tests of one column or part. */
export function* testedForFit(
  settings: Request,
  sample: Sample,
): Generator<Step<GoodnessOfFitResult | Unavailable>, GoodnessOfFitResult | Unavailable, Answers> {
  const fitting = fittingOf(settings);
  // Nothing can be estimated from equal readings, but a claim can be held against them.
  const claimed = fittingKind(fitting) === 'claimed';
  const short = claimed ? whyNotEven(sample, 3, 'the test') : whyNot(sample, 3, 'the test');
  const reason = short ?? whyCensored(sample, 'a test of fit');
  if (reason) return unavailable(sample, reason);
  const law = fittedLaw(sample.values, fitting);
  if (isRefusal(law)) return unavailable(sample, law.refused);
  const n = sample.values.length;
  if (n <= law.estimated.length) {
    return unavailable(
      sample,
      `${n} readings are too few to test a distribution whose ${law.estimated.length} parameters were estimated from them.`,
    );
  }
  const cells = cellsFor(n, law.estimated.length);
  const statistics = statisticsOf(sample, law, cells);
  if (settings.test === 'chi-square' && cells === 0) {
    return unavailable(
      sample,
      `${n} readings are too few for χ²: with ${law.estimated.length} estimated parameters it needs at least ${LEAST_IN_A_CELL * (law.estimated.length + 2)}.`,
    );
  }
  const context: Context = { sample, settings, fitting, law, cells, statistics };
  const claim = law.estimated.length === 0;
  const shape = claim ? shapeContext(context) : null;
  const own = claim ? differsFrom(distribution(familyByName(law.family), law.parameters), sample.values) : null;
  const work = ordersFor(context, shape);
  const partial = assemble(context, NOT_SIMULATED, NOT_SIMULATED, own && { ...own, shape: null });
  const answers = yield { partial, orders: work.orders };
  const plain = pOf(answers[work.plain], statistics, settings);
  const rounded = work.rounded === null ? NOT_SIMULATED : pOf(answers[work.rounded], statistics, settings);
  const ofShape = work.shape === null ? null : pOf(answers[work.shape], shape!.statistics, settings)[0]!;
  const differs = own && {
    ...own,
    shape: ofShape && { statistic: shape!.statistics[0]!, pValue: ofShape.pValue },
  };
  return assemble(context, plain, rounded, differs);
}
