import { type Rounding, roundingOf } from '../../goodness-of-fit/rounding.js';
import { adjustedAndersonDarling } from '../../goodness-of-fit/normality/anderson-darling.js';
import type { Population } from '../../goodness-of-fit/normality/anderson-darling-simulation.js';
import {
  extremeness,
  LEAST_N,
  NORMALITY_TESTS,
  normalityStatistics,
  type NormalityTestName,
} from '../../goodness-of-fit/normality/battery.js';
import { pAtMost, pByFormula } from '../../goodness-of-fit/normality/by-formula.js';
import type { RoundedNormal } from '../../goodness-of-fit/rounded-normal.js';
import {
  pOfTally,
  shareAtGreatest,
  shareBelow,
  simulatedCriticalValue,
  simulatedP,
  type SimulatedP,
} from '../../goodness-of-fit/simulated-p.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import type { Answers, Step, Unavailable } from '../../road/analysis.js';
import { unavailable, whyNot } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { type Missed, type NormalityResult, type NormalityTest, type Outcome } from './normality-result.js';
import type { NormalityRequest as Request } from './normality-settings.js';
import { normalityNotes } from './normality-words.js';

/** A departure so clear by its formula needs no more samples than these, if none of them is as extreme (STATISTICS section 10). */
const CLEAR_P = 1e-6;
const CLEAR_REPLICATES = 4_000;

const POWER_REPLICATES = 2_000;
/** Beyond this n the two populations are never missed, and the work is spared. */
const POWER_GREATEST_N = 1_000;

/** Replicates of a test that are rounded as the readings are: of coarse steps A² counts them. */
export const roundedWork = (test: NormalityTestName, n: number, rounding: Rounding, from: Population = 'normal') =>
  rounding.by === 'counted-steps' && test === 'anderson-darling'
    ? ({
        kernel: 'rounded-anderson-darling-replicates',
        input: { n, population: rounding.population, ...(from === 'normal' ? {} : { from }) },
      } as const)
    : ({
        kernel: 'normality-replicates',
        input: { test, n, population: from, rounding: rounding.population },
      } as const);

/** The same, or plain replicates where no rounding is known. */
export const workOf = (test: NormalityTestName, n: number, from: Population, rounding: Rounding | null) =>
  rounding
    ? roundedWork(test, n, rounding, from)
    : ({ kernel: 'normality-replicates', input: { test, n, population: from, rounding: null } } as const);

/** The repeated work: replicates of the main test, plain, rounded as the instrument rounds, and of two populations to be noticed; tallies of the other tests. */
function ordersFor(settings: Request, n: number, rounding: Rounding | null, statistics: Float64Array) {
  const book = orderBook(settings.seed, chunkSizeFor(n));
  const replicates = settings.replicates!;
  const main = (population: Population, rounded: RoundedNormal | null) =>
    ({ kernel: 'normality-replicates', input: { test: settings.test, n, population, rounding: rounded } }) as const;
  const plain = book.add(main('normal', null), replicates);
  // The same draws, rounded: the two p-values then differ by the rounding and not by chance.
  const rounded = rounding && book.add(roundedWork(settings.test, n, rounding), replicates, plain);
  const populations = n <= POWER_GREATEST_N ? (['lognormal', 'two-groups'] as const) : [];
  const power = populations.map((population) => ({
    population,
    index: book.add(workOf(settings.test, n, population, rounding), POWER_REPLICATES),
  }));
  const observed = NORMALITY_TESTS.map((name, k) =>
    name === settings.test || n < LEAST_N[name] ? null : statistics[k]!,
  );
  const tally = (of: RoundedNormal | null) =>
    ({ kernel: 'normality-tallies', input: { n, rounding: of, observed } }) as const;
  const others = book.add(tally(null), replicates, plain);
  const othersRounded = rounding && book.add(tally(rounding.population), replicates, plain);
  return { orders: book.orders, plain, rounded, power, others, othersRounded };
}

/** What is known of a test by simulation: plainly, and with the rounding. */
interface Simulated {
  plain: SimulatedP | null;
  resolution: SimulatedP | null;
  tooCoarse?: boolean;
}

const NOTHING_SIMULATED: Simulated = { plain: null, resolution: null };

function testOf(name: NormalityTestName, statistic: number, n: number, simulated: Simulated): NormalityTest {
  const known = n >= LEAST_N[name];
  const { plain, resolution, tooCoarse = false } = known ? simulated : NOTHING_SIMULATED;
  const pAsymptotic = known ? pByFormula(name, statistic, n) : null;
  // That formula is for very large n: until its samples are drawn nothing is said.
  const meanwhile = name === 'jarque-bera' ? null : known ? pAtMost(name, statistic, n) : null;
  const sides: Partial<Record<NormalityTestName, NormalityTest['alternative']>> = {
    ...{ 'shapiro-wilk': 'less', 'plot-correlation': 'less', skewness: 'two-sided', kurtosis: 'two-sided' },
  };
  return {
    test: name,
    statistic: known ? statistic : null,
    ...(name === 'anderson-darling' ? { adjusted: adjustedAndersonDarling(statistic, n) } : {}),
    alternative: sides[name] ?? 'greater',
    pValue: plain?.pValue ?? meanwhile,
    pMethod: plain ? 'simulated' : meanwhile === null ? null : 'asymptotic',
    pAsymptotic,
    pSimulated: plain,
    pResolution: resolution,
    roundedStatistic: null,
    tooCoarse,
  };
}

/** The simulated p of every other test, from its tallies. */
const pOfOthers = (chunks: readonly Float64Array[] | undefined, { replicates, seed }: Request) =>
  NORMALITY_TESTS.map((_, k) =>
    chunks
      ? pOfTally(
          chunks.reduce((sum, tallies) => sum + tallies[k]!, 0),
          replicates!,
          seed,
        )
      : null,
  );

/** Evidence of the plain p that vanishes once replicates are rounded too is the instrument's doing. */
export function outcomeOf({ pValue, pResolution }: NormalityTest, alpha: number): Outcome {
  if (pValue === null) return 'open';
  if (pValue >= alpha) return 'no-evidence';
  return pResolution && pResolution.pValue >= alpha ? 'rounding' : 'evidence';
}

/** What is known before anything is simulated. */
interface Worked {
  sample: Sample;
  sorted: Float64Array;
  settings: Request;
  mean: number;
  sd: number;
  statistics: Float64Array;
  /** A² of the counted steps, where the main test is A² and the readings step coarsely. */
  coarse: number | null;
}

/** Makes the result of what is simulated so far. */
const assembler =
  ({ sample, sorted, settings, mean, sd, statistics, coarse }: Worked) =>
  (of: (k: number, name: NormalityTestName) => Simulated, missed: Missed[]): NormalityResult => {
    const { alpha, test: main } = settings;
    const { missing, setAside, unit, resolution } = sample;
    const n = sorted.length;
    const tests = NORMALITY_TESTS.map((name, k) => {
      const found = testOf(name, statistics[k]!, n, of(k, name));
      return name === main ? { ...found, roundedStatistic: coarse } : found;
    });
    const own = tests.find((one) => one.test === main)!;
    const outcome = outcomeOf(own, alpha);
    const known = tests.filter(({ pValue }) => pValue !== null);
    const namesOf = (some: readonly NormalityTest[]) => some.map((one) => one.test);
    const summary = {
      outcome,
      // By the same p as the finding: coarse rounding alone is no evidence.
      against: namesOf(known.filter((one) => outcomeOf(one, alpha) === 'evidence')),
      without: namesOf(known.filter((one) => outcomeOf(one, alpha) !== 'evidence')),
    };
    const notes = normalityNotes(sample, sorted, own, alpha, outcome);
    const base = { available: true, n, missing, setAside, unit, resolution, alpha, mean, sd, main } as const;
    return { ...base, tests, missed, summary, notes };
  };

/** The nine tests of one column or part. */
export function* testedForNormality(
  settings: Request,
  sample: Sample,
): Generator<Step<NormalityResult | Unavailable>, NormalityResult | Unavailable, Answers> {
  const reason = whyNot(sample, LEAST_N[settings.test], 'the test') ?? whyCensored(sample, 'a test of normality');
  if (reason) return unavailable(sample, reason);
  const { alpha, seed, test: main } = settings;
  const sorted = Float64Array.from(sample.values).sort();
  const { n, mean, s2 } = centralMoments(sorted);
  const sd = Math.sqrt(s2 / (n - 1));
  const statistics = normalityStatistics(sorted, mean, sd);
  const rounding = roundingOf(sample.values, sample.resolution, sd);
  const coarse = rounding?.by === 'counted-steps' && main === 'anderson-darling' ? rounding.statistic : null;

  const assemble = assembler({ sample, sorted, settings, mean, sd, statistics, coarse });

  const far = extremeness(main, statistics[NORMALITY_TESTS.indexOf(main)]!);
  const atMost = pAtMost(main, statistics[NORMALITY_TESTS.indexOf(main)]!, n);
  const chunk = chunkSizeFor(n);
  const first = Math.ceil(CLEAR_REPLICATES / chunk) * chunk;
  const all = settings.replicates!;
  const isClear = atMost !== null && atMost < CLEAR_P && main !== 'jarque-bera' && first < all;
  const partial = assemble(() => NOTHING_SIMULATED, []);
  let ran = isClear ? first : all;
  let work = ordersFor({ ...settings, replicates: ran }, n, rounding, statistics);
  let answers = yield { partial, orders: work.orders };
  // Hardly ever: a sample was as extreme after all.
  if (ran < all && simulatedP(far, answers[work.plain]!, seed).atLeastAsExtreme > 0) {
    ran = all;
    work = ordersFor(settings, n, rounding, statistics);
    answers = yield { partial, orders: work.orders };
  }
  const stopped = <P extends SimulatedP | null>(p: P): P => (p && ran < all ? { ...p, most: all } : p);
  const plain = answers[work.plain]!;
  const rounded = work.rounded === null ? null : answers[work.rounded]!;
  // What is missed is missed by the p that decides: the one that knows the rounding.
  const critical = simulatedCriticalValue(rounded ?? plain, alpha);
  const missed = work.power.map(({ population, index }) => ({
    population,
    share: shareBelow(answers[index]!, critical),
    replicates: POWER_REPLICATES,
  }));
  const ofMain: Simulated = {
    plain: stopped(simulatedP(far, plain, seed)),
    resolution: rounded && stopped(simulatedP(coarse ?? far, rounded, seed)),
    tooCoarse: rounded !== null && shareAtGreatest(rounded) >= alpha,
  };
  const own = { ...settings, replicates: ran };
  const others = pOfOthers(answers[work.others], own);
  const roundedOthers = pOfOthers(work.othersRounded === null ? undefined : answers[work.othersRounded], own);
  return assemble((k, name) => (name === main ? ofMain : { plain: others[k]!, resolution: roundedOthers[k]! }), missed);
}
