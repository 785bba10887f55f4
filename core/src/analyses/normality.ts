import { z } from 'zod';
import {
  adjustedAndersonDarling,
  andersonDarling,
  andersonDarlingAsymptotic,
} from '../goodness-of-fit/normality/anderson-darling.js';
import type { Population } from '../goodness-of-fit/normality/anderson-darling-simulation.js';
import { shareBelow, simulatedCriticalValue, simulatedP, type SimulatedP } from '../goodness-of-fit/simulated-p.js';
import { centralMoments } from '../numeric/sums.js';
import { GREATEST_SEED } from '../random/stream.js';
import type { Sample } from '../readings/sample.js';
import { defineAnalysis, type Note, type SentencePart } from './analysis.js';
import { unavailable, whyNot } from './cautions.js';
import { chunkSizeFor, type KernelOrder } from './kernels.js';
import { normalityFinding, normalityNotes, type Outcome } from './normality-words.js';
import {
  affordableReplicates,
  alphaSetting,
  columnSetting,
  LEAST_REPLICATES,
  MOST_REPLICATES,
  replicatesSetting,
  seedSetting,
} from './settings.js';

const request = z.strictObject({
  column: columnSetting,
  alpha: alphaSetting,
  replicates: replicatesSetting,
  seed: seedSetting,
});
type Request = z.infer<typeof request>;

export interface NormalityTest {
  test: 'anderson-darling';
  statistic: number;
  /** A²(1 + 0.75/n + 2.25/n²), which the asymptotic formula takes. */
  adjusted: number;
  alternative: 'greater';
  pValue: number | null;
  pMethod: 'simulated' | 'asymptotic' | null;
  pAsymptotic: number | null;
  pSimulated: SimulatedP | null;
  /** Every replicate rounded to the resolution before the statistic is taken; null without a resolution. */
  pResolution: SimulatedP | null;
}

/** How often a sample of this size from another population would have passed at the level. */
export interface Missed {
  population: Exclude<Population, 'normal'>;
  share: number;
  replicates: number;
}

export interface NormalityResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  mean: number;
  sd: number;
  tests: NormalityTest[];
  missed: Missed[];
  summary: { outcome: Outcome };
  notes: Note[];
}

const POWER_REPLICATES = 2_000;
/** Beyond this n the two populations are never missed, and the work is spared. */
const POWER_GREATEST_N = 1_000;

const method: SentencePart[] = [
  'Test ',
  { subject: true },
  ' for normality by Anderson–Darling, mean and sd estimated, with p from ',
  { field: 'replicates', label: 'replicates for the test', type: 'whole', min: LEAST_REPLICATES, max: MOST_REPLICATES },
  ' simulated samples, seed ',
  { field: 'seed', label: 'seed of the test', type: 'whole', min: 0, max: GREATEST_SEED },
  '.',
];

/** The repeated work: plain replicates, replicates rounded as the instrument rounds, and two populations to be noticed. */
function ordersFor(settings: Request, sample: Sample, mean: number, sd: number) {
  const n = sample.values.length;
  const orders: KernelOrder[] = [];
  let firstStream = 0;
  const order = (population: Population, replicates: number, rounded: boolean, stream: number) => {
    const steps = sample.resolution;
    const rounding =
      rounded && steps ? { sdInSteps: sd / steps, offset: mean / steps - Math.floor(mean / steps) } : null;
    const chunkSize = chunkSizeFor(n);
    const input = { n, population, rounding };
    orders.push({
      kernel: 'anderson-darling-replicates',
      input,
      seed: settings.seed,
      firstStream: stream,
      replicates,
      chunkSize,
    });
    firstStream = stream + Math.ceil(replicates / chunkSize);
    return orders.length - 1;
  };
  const plain = order('normal', settings.replicates!, false, 0);
  const after = firstStream;
  // The same draws, rounded: the two p-values then differ by the rounding and not by chance.
  const rounded = sample.resolution ? order('normal', settings.replicates!, true, 0) : null;
  firstStream = after;
  const power: { population: Missed['population']; index: number }[] = [];
  if (n <= POWER_GREATEST_N) {
    for (const population of ['lognormal', 'two-groups'] as const) {
      power.push({ population, index: order(population, POWER_REPLICATES, false, firstStream) });
    }
  }
  return { orders, plain, rounded, power };
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
  version: 2,
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

    const assemble = (
      pSimulated: SimulatedP | null,
      pResolution: SimulatedP | null,
      missed: Missed[],
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
      };
      const outcome = outcomeOf(test, alpha);
      const notes = normalityNotes(sample, sorted, test, alpha, outcome);
      const base = { available: true, n, missing, setAside, unit, resolution, alpha, mean, sd } as const;
      return { ...base, tests: [test], missed, summary: { outcome }, notes };
    };

    const work = ordersFor(settings, sample, mean, sd);
    const answers = yield { partial: assemble(null, null, []), orders: work.orders };
    const plain = answers[work.plain]!;
    const critical = simulatedCriticalValue(plain, alpha);
    const missed = work.power.map(({ population, index }) => ({
      population,
      share: shareBelow(answers[index]!, critical),
      replicates: POWER_REPLICATES,
    }));
    const pResolution = work.rounded === null ? null : simulatedP(statistic, answers[work.rounded]!, seed);
    return assemble(simulatedP(statistic, plain, seed), pResolution, missed);
  },
  finding: normalityFinding,
});
