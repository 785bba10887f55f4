import { z } from 'zod';
import {
  adjustedAndersonDarling,
  andersonDarling,
  andersonDarlingAsymptotic,
} from '../../goodness-of-fit/normality/anderson-darling.js';
import type { Population } from '../../goodness-of-fit/normality/anderson-darling-simulation.js';
import { roundedAndersonDarling } from '../../goodness-of-fit/normality/rounded-anderson-darling.js';
import { countSteps, populationOf, stepsOf, type RoundedNormal } from '../../goodness-of-fit/rounded-normal.js';
import {
  shareAtGreatest,
  shareBelow,
  simulatedCriticalValue,
  simulatedP,
  type SimulatedP,
} from '../../goodness-of-fit/simulated-p.js';
import { centralMoments } from '../../numeric/sums.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable, whyNot } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { orderBook } from '../../road/order-book.js';
import type { Missed, NormalityResult, NormalityTest, Outcome } from './normality-result.js';
import { normalityFinding, normalityNotes } from './normality-words.js';
import { replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { affordableReplicates, alphaSetting, columnSetting } from '../../road/settings.js';

const replicates = replicatesOf('replicates for the test');
const seed = seedOf('seed of the test');

const request = z.strictObject({
  column: columnSetting,
  alpha: alphaSetting,
  replicates: replicates.schema,
  seed: seed.schema,
});
type Request = z.infer<typeof request>;

const POWER_REPLICATES = 2_000;
/** Beyond this n the two populations are never missed, and the work is spared. */
const POWER_GREATEST_N = 1_000;

const method: SentencePart[] = [
  'Test ',
  { subject: true },
  ' for normality by Anderson–Darling, mean and sd estimated, with p from ',
  replicates.field,
  ' simulated samples, seed ',
  seed.field,
  '.',
];

/** Steps finer than this many in an sd change the statistic too little to matter. */
const COARSE = 8;

/** How the rounding is judged: nothing to judge, replicates rounded before A² is taken, or the counted steps. */
type Rounding =
  | { by: 'rounded-replicates'; population: RoundedNormal }
  | { by: 'counted-steps'; population: RoundedNormal; statistic: number };

function roundingOf(values: Float64Array, resolution: number | null, sd: number): Rounding | null {
  if (!resolution) return null;
  const inSteps = sd / resolution;
  if (inSteps >= COARSE) {
    const offset = (centralMoments(values).mean - values[0]!) / resolution;
    const population = { mean: offset - Math.floor(offset), sd: Math.sqrt(inSteps * inSteps - 1 / 12) };
    return { by: 'rounded-replicates', population };
  }
  const steps = stepsOf(values, resolution);
  // Readings within half a step of one another have no spread in steps.
  const cells = countSteps(steps);
  const population = populationOf(cells);
  return population && { by: 'counted-steps', population, statistic: roundedAndersonDarling(cells) };
}

/** The repeated work: plain replicates, replicates rounded as the instrument rounds, and two populations to be noticed. */
function ordersFor(settings: Request, n: number, rounding: Rounding | null) {
  const book = orderBook(settings.seed, chunkSizeFor(n));
  const replicates = settings.replicates!;
  const darling = (population: Population, rounded: RoundedNormal | null) =>
    ({ kernel: 'anderson-darling-replicates', input: { n, population, rounding: rounded } }) as const;
  const plain = book.add(darling('normal', null), replicates);
  // The same draws, rounded: the two p-values then differ by the rounding and not by chance.
  const roundedWork =
    rounding?.by === 'counted-steps'
      ? ({ kernel: 'rounded-anderson-darling-replicates', input: { n, population: rounding.population } } as const)
      : rounding && darling('normal', rounding.population);
  const rounded = roundedWork && book.add(roundedWork, replicates, plain);
  const populations = n <= POWER_GREATEST_N ? (['lognormal', 'two-groups'] as const) : [];
  const power = populations.map((population) => ({
    population,
    index: book.add(darling(population, null), POWER_REPLICATES),
  }));
  return { orders: book.orders, plain, rounded, power };
}

/** Evidence of the plain p that vanishes once replicates are rounded too is the instrument's doing. */
export function outcomeOf({ pValue, pResolution }: NormalityTest, alpha: number): Outcome {
  if (pValue === null) return 'open';
  if (pValue >= alpha) return 'no-evidence';
  return pResolution && pResolution.pValue >= alpha ? 'rounding' : 'evidence';
}

/** Does the column follow a normal distribution? Anderson–Darling so far (STATISTICS section 5). */
export const normalityAnalysis = defineAnalysis<Request, NormalityResult>({
  id: 'normality',
  version: 3,
  name: 'Normality test',
  title: 'does a column follow a normal distribution (Anderson–Darling)',
  request,
  method,
  resolve: (settings, sample) => ({
    ...settings,
    replicates: settings.replicates ?? affordableReplicates(sample.values.length, 20_000, 1_000),
  }),
  *run(asked, sample) {
    const reason = whyNot(sample, 3, 'the test');
    if (reason) return unavailable(sample, reason);
    const settings = this.resolve(asked, sample);
    const { missing, setAside, unit, resolution } = sample;
    const { alpha, seed } = settings;
    const sorted = Float64Array.from(sample.values).sort();
    const { n, mean, s2 } = centralMoments(sorted);
    const sd = Math.sqrt(s2 / (n - 1));
    const statistic = andersonDarling(sorted, mean, sd);
    const rounding = roundingOf(sample.values, resolution, sd);

    const assemble = (
      pSimulated: SimulatedP | null,
      pResolution: SimulatedP | null,
      missed: Missed[],
      tooCoarse = false,
    ): NormalityResult => {
      const pAsymptotic = andersonDarlingAsymptotic(statistic, n);
      const test: NormalityTest = {
        test: 'anderson-darling',
        statistic,
        adjusted: adjustedAndersonDarling(statistic, n),
        alternative: 'greater',
        pValue: pSimulated?.pValue ?? pAsymptotic,
        pMethod: pSimulated ? 'simulated' : pAsymptotic === null ? null : 'asymptotic',
        pAsymptotic,
        pSimulated,
        pResolution,
        roundedStatistic: rounding?.by === 'counted-steps' ? rounding.statistic : null,
        tooCoarse,
      };
      const outcome = outcomeOf(test, alpha);
      const notes = normalityNotes(sample, sorted, test, alpha, outcome);
      const base = { available: true, n, missing, setAside, unit, resolution, alpha, mean, sd } as const;
      return { ...base, tests: [test], missed, summary: { outcome }, notes };
    };

    const work = ordersFor(settings, n, rounding);
    const answers = yield { partial: assemble(null, null, []), orders: work.orders };
    const plain = answers[work.plain]!;
    const critical = simulatedCriticalValue(plain, alpha);
    const missed = work.power.map(({ population, index }) => ({
      population,
      share: shareBelow(answers[index]!, critical),
      replicates: POWER_REPLICATES,
    }));
    const pSimulated = simulatedP(statistic, plain, seed);
    if (work.rounded === null) return assemble(pSimulated, null, missed);
    const rounded = answers[work.rounded]!;
    const compared = rounding?.by === 'counted-steps' ? rounding.statistic : statistic;
    const tooCoarse = shareAtGreatest(rounded) >= alpha;
    return assemble(pSimulated, simulatedP(compared, rounded, seed), missed, tooCoarse);
  },
  glimpse(settings, partial, soFar) {
    const [test] = partial.tests;
    // The plain replicates are ordered first.
    const plain = soFar[0] ?? [];
    if (!test || plain.length === 0) return partial;
    // The words rest on the formula until all is known: they must not change their mind while it runs.
    return { ...partial, tests: [{ ...test, pSimulated: simulatedP(test.statistic, plain, settings.seed) }] };
  },
  finding: normalityFinding,
});
