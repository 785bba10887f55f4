import { z } from 'zod';
import { quantileOfSorted } from '../../describe/quantiles.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { centralMoments } from '../../numeric/sums.js';
import { distributionOf, frameOf, statisticsOf, type Frame, type Replicates } from '../../resampling/distribution.js';
import { TABLE_SAMPLES } from '../../simulation/null-table.js';
import { simulatedTest } from '../../simulation/simulated-tests/registry.js';
import { theoryCumulative } from '../../simulation/theory.js';
import { defineAnalysis, type Answers } from '../../road/analysis.js';
import { wholeSentence, type NamedParts } from '../../road/method-sentence.js';
import { chunkSizeFor, resampledChunkSize, type KernelOrder } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { dotsOf, MOST_DOTS, withoutNumbers } from '../../road/piled.js';
import { READABLE, readable, type StatisticAsked } from '../../road/statistic-settings.js';
import {
  ASKS_ONE,
  asksOne,
  MOVES_ONCE,
  movesOnce,
  REPEATED,
  repeatedShape,
  RUN_PARTS,
  runShape,
  samplesShape,
  settled,
  SHIFT_PARTS,
  SIZE_PARTS,
} from './asked-settings.js';
import {
  hasItsColumn,
  ITS_COLUMN,
  POPULATION,
  populationShape,
  withLawsRead,
  type PopulationAsked,
} from './population-settings.js';
import type { CountedShare, DrawnInterval, SimulateResult } from './simulate-result.js';
import { drawnAtOnce, effectWords } from './simulated-source.js';
import { samplesOf, simulated } from './simulated.js';
import type { Simulated } from './simulated-parts.js';
import { simulateFinding, simulateNotes, symmetryNotes } from './simulate-words.js';
import { TIE } from '../../numeric/ties.js';

/** What a simulation is asked with: also one of its samples, drawn again. */
export const simulationShape = { ...populationShape, ...samplesShape, ...repeatedShape, ...runShape };

const readableFigure = (asked: { statistic?: StatisticAsked['statistic'] | undefined; formula?: string | undefined }) =>
  readable({ statistic: asked.statistic ?? 'mean', formula: asked.formula });

/** Checks and reads a request of this shape. */
export const asSimulation = <Shape extends typeof simulationShape>(shape: Shape) =>
  z
    .strictObject(shape)
    .refine((asked) => hasItsColumn(asked as never), ITS_COLUMN)
    .refine((asked) => asksOne(asked as never), ASKS_ONE)
    .refine((asked) => movesOnce(asked as never), MOVES_ONCE)
    .refine((asked) => readableFigure(asked as never), READABLE)
    .transform((asked, context) => withLawsRead(asked as never, context) as typeof asked & PopulationAsked);

const request = asSimulation(simulationShape);
export type SimulateRequest = z.infer<typeof request>;

/** The question: from where, and what is looked at. */
export const SIMULATE = {
  ask: ['Population: ', ...wholeSentence(POPULATION), '. ', ...wholeSentence(REPEATED), '. '],
  how: ['Each sample has ', ...SIZE_PARTS, ...SHIFT_PARTS, '. ', ...RUN_PARTS],
} as const satisfies NamedParts;

/** Chunks of a simulation: the same wherever one of its samples is drawn again. */
export const chunkSizeOf = ({ groups, cost }: Simulated): number => resampledChunkSize(drawnAtOnce(groups) * cost);

const PILOT = 200;
const SHARES = [0.01, 0.05, 0.25, 0.5, 0.75, 0.95, 0.99];
const MOST_LINES = 100;
/** Where tails are so heavy that the outermost would hide the rest, as many bins are in view on either side. */
const REACH = 40;

const countedShare = (count: number, of: number): CountedShare => {
  const [lower, upper] = clopperPearson(count, of);
  return { count, of, share: count / of, lower, upper };
};

function emptyResult(asked: SimulateRequest, made: Simulated): SimulateResult {
  const { source, groups, told, what, repeated, truth, holds, claim } = made;
  const { law, words, size, head } = source;
  const finite = (x: number) => (Number.isFinite(x) ? x : null);
  return {
    available: true,
    ...told,
    ...{ missing: head.missing, setAside: head.setAside, notes: head.notes },
    population: { words, size, mean: finite(law.mean), sd: source.sd, median: law.quantile(0.5) },
    effect: effectWords(asked, head.unit),
    ...{ sizes: groups.map(({ n }) => n), repeated: repeated.what, what, truth, holds, claim },
    ...{ replicates: 0, wanted: asked.replicates, seed: asked.seed, alpha: asked.alpha, confidence: asked.confidence },
    distribution: { values: null, edges: [], counts: [], examples: [], below: 0, above: 0 },
    ...{ frame: null, dots: [], undefined: 0, mean: null, sd: null, quantiles: [] },
    ...{
      theory: made.theory && { ...made.theory, expected: [] },
      table: null,
      belowAlpha: null,
      coverage: null,
      firsts: [],
    },
  };
}

/** p lies in 0 … 1; the level is the edge of a bin unless it is very small. Kept results hold the tolerance of their frame, so it stays as it was. */
function frameOfP(alpha: number): Frame {
  const width = alpha < 0.01 ? 0.05 : alpha / Math.max(1, Math.round(alpha / 0.05));
  return { centre: 0, width, tie: 1e-12, greatest: 1, binned: true };
}

/** How results are piled up, by those of a pilot. What lies far outside their middle half does not make the bins wide. */
function frameFor(asked: SimulateRequest, made: Simulated, pilot: Float64Array): Frame {
  if (made.repeated.what === 'test') return frameOfP(asked.alpha);
  const sorted = pilot.slice().sort();
  const { truth, theory } = made;
  const centre = theory?.mean ?? truth ?? (sorted.length ? quantileOfSorted(sorted, 0.5) : 0);
  const [q1, q3] = sorted.length ? [quantileOfSorted(sorted, 0.25), quantileOfSorted(sorted, 0.75)] : [0, 0];
  const reach = 4 * (q3 - q1);
  const seen = reach > 0 ? sorted.filter((x) => x >= q1 - reach && x <= q3 + reach) : sorted;
  const tie = TIE * Math.max(Math.abs(q3 - q1), 1e-6 * Math.abs(centre), Number.MIN_VALUE);
  const frame = frameOf(Array.from(seen), { centre, tie });
  // A smooth law is held against bins, however few values there are.
  const smooth = theory !== null && theory.of !== 'count' ? { binned: true as const } : {};
  return { ...frame, ...smooth, ...(made.source.sd === null ? { reach: REACH } : {}) };
}

/** What theory expects of each value or bin. */
function withExpected({ theory, distribution: { values, edges }, frame }: SimulateResult, total: number) {
  if (!theory) return null;
  const cumulative = theoryCumulative(theory);
  // Shares of n lie 1/n apart.
  const slack = theory.of === 'count' ? 0.5 / theory.times : 2 * frame!.tie;
  const expected = values
    ? values.map((x) => total * (cumulative(x + slack) - cumulative(x - slack)))
    : edges.slice(1).map((edge, i) => total * (cumulative(edge) - cumulative(edges[i]!)));
  return { ...theory, expected };
}

/** Results as they grow. */
function growing(partial: SimulateResult, chunks: readonly Float64Array[]): SimulateResult {
  const drawn: Replicates = { chunks, stride: partial.repeated === 'interval' ? 2 : 1 };
  const replicates = chunks.reduce((sum, { length }) => sum + length / drawn.stride, 0);
  if (partial.repeated === 'interval') return covering({ ...partial, replicates }, chunks);
  const found = statisticsOf(drawn);
  const base = {
    ...partial,
    ...{ replicates, undefined: replicates - found.length, distribution: distributionOf(drawn, partial.frame!) },
    dots: replicates <= MOST_DOTS ? dotsOf(drawn) : [],
  };
  if (partial.repeated === 'test') {
    let below = 0;
    for (let i = 0; i < found.length; i++) if (found[i]! < partial.alpha) below++;
    return { ...base, belowAlpha: replicates > 0 ? countedShare(below, replicates) : null };
  }
  const theory = withExpected(base, found.length);
  if (found.length === 0) return { ...base, theory };
  const { n, mean, s2 } = centralMoments(found);
  return { ...base, theory, mean, sd: n > 1 ? Math.sqrt(s2 / (n - 1)) : null };
}

function covering(partial: SimulateResult, chunks: readonly Float64Array[]): SimulateResult {
  const truth = partial.truth!;
  const firsts: DrawnInterval[] = [];
  let [covered, tooLow, tooHigh, none, width] = [0, 0, 0, 0, 0];
  for (const chunk of chunks)
    for (let i = 0; i < chunk.length; i += 2) {
      const [lower, upper] = [chunk[i]!, chunk[i + 1]!];
      if (Number.isNaN(lower) || Number.isNaN(upper)) {
        none++;
        continue;
      }
      const covers = lower <= truth && upper >= truth;
      if (covers) covered++;
      else if (upper < truth) tooLow++;
      else tooHigh++;
      width += upper - lower;
      if (firsts.length < MOST_LINES) firsts.push({ lower, upper, covers });
    }
  const known = covered + tooLow + tooHigh;
  const coverage = known > 0 ? { ...countedShare(covered, known), tooLow, tooHigh, width: width / known } : null;
  return { ...partial, undefined: none, firsts, coverage };
}

/** The result of all that has been drawn: quantiles need them all in order. */
function resultOf(asked: SimulateRequest, partial: SimulateResult, chunks: readonly Float64Array[]): SimulateResult {
  const grown = growing(partial, chunks);
  const sorted = grown.repeated === 'interval' ? null : statisticsOf({ chunks, stride: 1 }).sort();
  const quantiles =
    sorted && sorted.length > 1 ? SHARES.map((share) => ({ share, value: quantileOfSorted(sorted, share) })) : [];
  const found = { ...grown, quantiles };
  return { ...found, notes: [...found.notes, ...simulateNotes(found, asked)] };
}

/** The orders of the table that p is read from, for tests that have no formula; none for the others. */
export function tableOrders(
  asked: Pick<SimulateRequest, 'alternative' | 'seed'>,
  made: Simulated,
  id: string | undefined,
): KernelOrder[] {
  const test = id === undefined ? null : simulatedTest(id);
  if (!test?.table) return [];
  const { n } = made.groups[0]!;
  const book = orderBook(anotherSeed(asked.seed, 2), chunkSizeFor(n));
  book.add(test.table(n, asked.alternative), TABLE_SAMPLES);
  return book.orders;
}

/** The statistics of the table in rising order; null where there is none. */
export const tableOf = ([chunks]: Answers): Float64Array | null =>
  chunks ? statisticsOf({ chunks, stride: 1 }).slice().sort() : null;

/** Draw again and again, and look: a Monte Carlo study of a figure, a test or an interval. */
export const simulateAnalysis = defineAnalysis<SimulateRequest, SimulateResult>({
  id: 'simulate',
  version: 2,
  name: 'Simulated samples',
  title:
    'repeated samples from a population: distribution of a statistic, p-values of a test, or coverage of an interval',
  needsReadings: false,
  request,
  method: wholeSentence(SIMULATE),
  subject: ({ column }) => column ?? 'a distribution',
  resolve: (asked) => settled(asked),
  *run(given, sample) {
    const asked = this.resolve(given, sample);
    const made = simulated(asked, sample);
    if ('available' in made) return made;
    const plain = emptyResult(asked, made);
    const { law } = made.source;
    const empty = {
      ...plain,
      notes: [...plain.notes, ...symmetryNotes(asked.test === undefined ? [] : [asked.test], law)],
    };
    const orders = tableOrders(asked, made, asked.test);
    const table = orders.length > 0 ? tableOf(yield { partial: empty, orders }) : null;
    const read = { ...empty, table: table && table.length };
    const size = chunkSizeOf(made);
    const work = { kernel: 'simulated-samples', input: samplesOf(made, table) } as const;
    // How results are piled up a pilot tells, with a seed of its own: the axis does not move while they come.
    const pilot = orderBook(anotherSeed(asked.seed, 1), size);
    if (asked.statistic !== undefined) pilot.add(work, PILOT);
    const [ahead] = asked.statistic === undefined ? [] : yield { partial: read, orders: pilot.orders };
    const frame = frameFor(asked, made, ahead ? statisticsOf({ chunks: ahead, stride: 1 }) : new Float64Array(0));
    const partial = { ...read, frame };
    const book = orderBook(asked.seed, size);
    book.add(work, asked.replicates);
    const [chunks] = yield { partial, orders: book.orders };
    return resultOf(asked, partial, chunks!);
  },
  glimpse: (asked, partial, [chunks = []]) =>
    partial.frame && asked.replicates > 0 ? withoutNumbers(growing(partial, chunks)) : partial,
  finding: simulateFinding,
});
