import type { Parameters } from '../../distributions/family.js';
import { quantileOfSorted } from '../../describe/quantiles.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { formatValue, groupThousands } from '../../numeric/format.js';
import { normalQuantile } from '../../numeric/standard-normal.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import { distributionOf, frameOf, statisticsOf } from '../../resampling/distribution.js';
import {
  batchFor,
  correlationsOf,
  firstOrderOf,
  hasSettledSd,
  inputLaw,
  isStable,
  LEAST_BATCHES,
  readPropagated,
  summaryOf,
  toleranceOf,
  type Input,
  type Propagation,
  type Summary,
} from '../../simulation/propagation.js';
import { defineAnalysis, type Answers, type Step, type Unavailable } from '../../road/analysis.js';
import { wholeSentence } from '../../road/method-sentence.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { unavailable, whyLabels, whyNotEven } from '../../road/cautions.js';
import { orderBook } from '../../road/order-book.js';
import { inputsWords, isLaw, PROPAGATE, propagateRequest, type PropagateRequest } from './propagate-settings.js';
import { propagateFinding, propagateNotes } from './propagate-words.js';
import type { Contribution, Covariance, PropagateResult } from './propagate-result.js';
import { TIE } from '../../numeric/ties.js';

/** As many trials at most, but for ten batches. */
const MOST_TRIALS = 1_000_000;
const mostBatches = (batch: number) => Math.max(LEAST_BATCHES, Math.floor(MOST_TRIALS / batch));
/** Trials that tell what an input adds. */
const MOST_FOR_CONTRIBUTIONS = 100_000;

interface Working {
  asked: PropagateRequest;
  propagation: Propagation;
  r: (i: number, j: number) => number;
  sample: Sample;
}

/** The readings of a column that an input names. */
function readingsOf(sample: Sample, name: string): Sample | undefined {
  return sample.name === name && !sample.groups ? sample : sample.groups?.samples.find((one) => one.name === name);
}

function inputsOf({ inputs }: PropagateRequest, sample: Sample): Input[] | string {
  const found: Input[] = [];
  for (const [name, input] of Object.entries(inputs)) {
    if (isLaw(input)) {
      found.push({ name, from: { family: input.family, parameters: input.parameters as Parameters } });
      continue;
    }
    const own = readingsOf(sample, input.column);
    if (!own) return `${name} is drawn from ${input.column}, which is not among the columns. Add it as a column.`;
    const purpose = 'sampling from it';
    const reason = whyLabels(own) ?? whyNotEven(own, 1, purpose) ?? whyCensored(own, purpose);
    if (reason) return reason;
    found.push({ name, from: { values: own.values } });
  }
  return found;
}

/** What is worked out, and of what; why it cannot be. */
function workingOf(asked: PropagateRequest, sample: Sample): Working | Unavailable {
  const refuse = (reason: string) => unavailable(sample, reason);
  if (!asked.formula) return refuse('Enter a formula over the inputs.');
  const inputs = inputsOf(asked, sample);
  if (typeof inputs === 'string') return refuse(inputs);
  const names = inputs.map(({ name }) => name);
  const read = readPropagated(asked.formula, names);
  if ('problem' in read) return refuse(read.problem);
  const known = new Map<string, number>();
  for (const { first, second, r } of asked.correlations ?? []) {
    const [i, j] = [names.indexOf(first), names.indexOf(second)];
    if (i < 0 || j < 0 || i === j)
      return refuse(`A correlation needs two different inputs; ${first} and ${second} are not.`);
    known.set(`${i} ${j}`, r).set(`${j} ${i}`, r);
  }
  const r = (i: number, j: number) => known.get(`${i} ${j}`) ?? 0;
  const places = names.flatMap((_, i) => (names.some((__, j) => known.has(`${i} ${j}`)) ? [i] : []));
  const lower = correlationsOf(places.length, (i, j) => r(places[i]!, places[j]!));
  if (!lower) return refuse('The correlations contradict each other: the correlation matrix is not positive definite.');
  const { lower: low, upper: high } = asked;
  if (low !== undefined && high !== undefined && low > high)
    return refuse(`The upper limit ${high} is below the lower limit ${low}.`);
  const correlated = places.length > 0 ? { places, lower } : null;
  return { asked, sample, r, propagation: { inputs, formula: asked.formula, correlated, fixed: null } };
}

const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);

/** Twice the product of what two correlated inputs add to the first order (GUM, JCGM 100:2008, equation 16). */
function covariancesOf({ asked, propagation: { inputs } }: Working, sensitivities: readonly number[]): Covariance[] {
  const part = (name: string) => {
    const place = inputs.findIndex((input) => input.name === name);
    return sensitivities[place]! * Math.sqrt(inputLaw(inputs[place]!).variance);
  };
  return (asked.correlations ?? []).flatMap(({ first, second, r }) => {
    const variance = finite(2 * part(first) * part(second) * r);
    return variance === null ? [] : [{ first, second, variance }];
  });
}

function emptyOf(working: Working): PropagateResult {
  const { asked, propagation, r } = working;
  const first = firstOrderOf(propagation, r);
  const contributions = propagation.inputs.map((input, i): Contribution => {
    const { mean, variance } = inputLaw(input);
    const sensitivity = first ? finite(first.sensitivities[i]!) : null;
    return {
      name: input.name,
      mean: finite(mean),
      sd: finite(Math.sqrt(variance)),
      sensitivity,
      variance: sensitivity === null ? null : finite(sensitivity ** 2 * variance),
      without: null,
      share: null,
    };
  });
  const z = -normalQuantile((1 - asked.confidence) / 2);
  const covariances = first ? covariancesOf(working, first.sensitivities) : [];
  return {
    ...{ available: true, formula: asked.formula!, inputs: inputsWords(asked), trials: 0, stable: null },
    ...{ confidence: asked.confidence, seed: asked.seed, undefined: 0, mean: null, sd: null, interval: null },
    ...{ shortest: null, tolerance: null, outside: null, median: null, unsettled: null },
    ...{ contributions, covariances, notes: [] },
    distribution: { values: null, edges: [], counts: [], examples: [], below: 0, above: 0 },
    ...{ frame: null, dots: [] },
    firstOrder: first && {
      ...{ estimate: first.estimate, sd: first.sd, agrees: null },
      ...{ lower: first.estimate - z * first.sd, upper: first.estimate + z * first.sd },
    },
  };
}

/** Bins by the first batch: what lies far outside its middle half does not make them wide. */
function frameFor(chunk: Float64Array): PropagateResult['frame'] {
  const sorted = statisticsOf({ chunks: [chunk], stride: 1 })
    .slice()
    .sort();
  if (sorted.length === 0) return { centre: 0, width: 1, tie: 0 };
  const [q1, middle, q3] = [0.25, 0.5, 0.75].map((share) => quantileOfSorted(sorted, share)) as [
    number,
    number,
    number,
  ];
  const reach = 4 * (q3 - q1);
  const seen = reach > 0 ? sorted.filter((x) => x >= q1 - reach && x <= q3 + reach) : sorted;
  const tie = TIE * Math.max(q3 - q1, 1e-6 * Math.abs(middle), Number.MIN_VALUE);
  return { ...frameOf(Array.from(seen), { centre: middle, tie }), reach: 60 };
}

function piledUp(partial: PropagateResult, chunks: readonly Float64Array[]): PropagateResult {
  if (chunks.length === 0) return partial;
  const frame = partial.frame ?? frameFor(chunks[0]!);
  const found = statisticsOf({ chunks, stride: 1 });
  const trials = chunks.reduce((sum, { length }) => sum + length, 0);
  const distribution = distributionOf({ chunks, stride: 1 }, frame!);
  return {
    ...partial,
    ...{ frame, trials, undefined: trials - found.length },
    distribution: { ...distribution, examples: distribution.examples.map(() => 0) },
  };
}

/** What all trials tell. */
function summarised(
  working: Working,
  partial: PropagateResult,
  chunks: readonly Float64Array[],
  stable: boolean | null,
): PropagateResult {
  const { asked } = working;
  const grown = piledUp(partial, chunks);
  const sorted = statisticsOf({ chunks, stride: 1 }).slice().sort();
  if (sorted.length < 2) return { ...grown, stable };
  const { mean, sd, interval, shortest } = summaryOf(sorted, asked.confidence);
  const median = quantileOfSorted(sorted, 0.5);
  const known = { ...grown, stable, median, interval: endsOf(interval), shortest: endsOf(shortest) };
  const outside = outsideOf(asked, sorted);
  if (sd === 0) return { ...known, mean, sd, outside };
  const unsettled = whyUnsettled(working, chunks, { mean, sd });
  if (unsettled !== null) return { ...known, unsettled, outside };
  const tolerance = toleranceOf(sd);
  const { firstOrder } = partial;
  const errors = endErrorsOf(chunks, asked.confidence);
  const agrees =
    firstOrder === null || errors === null
      ? null
      : Math.abs(firstOrder.lower - interval[0]) <= tolerance + 2 * errors[0] &&
        Math.abs(firstOrder.upper - interval[1]) <= tolerance + 2 * errors[1];
  return {
    ...grown,
    ...{ stable, mean, sd, interval: endsOf(interval), shortest: endsOf(shortest), tolerance },
    outside: outsideOf(asked, sorted),
    firstOrder: firstOrder && { ...firstOrder, agrees },
  };
}

/** Why mean and sd are not told, or null. */
function whyUnsettled(
  { asked, propagation }: Working,
  chunks: readonly Float64Array[],
  { mean, sd }: { mean: number; sd: number },
): string | null {
  const without = propagation.inputs.find((input) => !Number.isFinite(inputLaw(input).variance));
  if (without) return `${without.name} has no variance that could be calculated`;
  if (!Number.isFinite(mean) || !Number.isFinite(sd)) return 'the results are too large to be averaged';
  const batches = batchesOf(chunks, asked.confidence);
  if (hasSettledSd(batches)) return null;
  const sds = batches.map((one) => one.sd);
  const told = (value: number) => formatValue(Number(value.toPrecision(2)));
  return `the SD does not settle: batches of ${groupThousands(batches[0]!.n)} trials give ${told(Math.min(...sds))} to ${told(Math.max(...sds))}`;
}

/** The batches that are full. */
const batchesOf = (chunks: readonly Float64Array[], confidence: number): Summary[] =>
  chunks
    .filter(({ length }) => length === batchFor(confidence))
    .map((chunk) =>
      summaryOf(
        statisticsOf({ chunks: [chunk], stride: 1 })
          .slice()
          .sort(),
        confidence,
      ),
    );

/** How far the ends are known, by how they vary from batch to batch: two such errors are given when they are compared. Null of too few batches. */
function endErrorsOf(chunks: readonly Float64Array[], confidence: number): [number, number] | null {
  const batches = batchesOf(chunks, confidence).map(({ interval }) => interval);
  const h = batches.length;
  if (h < LEAST_BATCHES) return null;
  const errorOf = (end: 0 | 1) => Math.sqrt(centralMoments(batches.map((ends) => ends[end])).s2 / (h - 1) / h);
  return [errorOf(0), errorOf(1)];
}

const endsOf = ([lower, upper]: readonly [number, number]) => ({ lower, upper });

function outsideOf({ lower: low, upper: high }: PropagateRequest, sorted: Float64Array): PropagateResult['outside'] {
  if (low === undefined && high === undefined) return null;
  let count = 0;
  for (const x of sorted) if ((low !== undefined && x < low) || (high !== undefined && x > high)) count++;
  const [lower, upper] = clopperPearson(count, sorted.length);
  const limits = { lowerLimit: low ?? null, upperLimit: high ?? null };
  return { count, of: sorted.length, share: count / sorted.length, lower, upper, ...limits };
}

type Run<R> = Generator<Step<PropagateResult>, R, Answers>;

/** As many batches as are asked for; else rounds of them until two digits are settled, and of those drawn no more than are needed. */
function* drawn(working: Working, empty: PropagateResult): Run<{ chunks: Float64Array[]; stable: boolean | null }> {
  const { asked, propagation } = working;
  const batch = batchFor(asked.confidence);
  const book = orderBook(asked.seed, batch);
  const most = mostBatches(batch);
  const work = { kernel: 'propagated-trials', input: propagation } as const;
  if (asked.trials !== undefined) {
    book.add(work, asked.trials);
    const [chunks] = yield { partial: empty, orders: book.orders };
    return { chunks: chunks!, stable: null };
  }
  const chunks: Float64Array[] = [];
  const batches: Summary[] = [];
  let sum = 0;
  for (let round = LEAST_BATCHES; chunks.length < most; round = chunks.length) {
    const more = Math.min(round, most - chunks.length);
    const at = book.add(work, more * batch);
    const [found] = yield { partial: piledUp(empty, chunks), orders: [book.orders[at]!] };
    for (const chunk of found!) {
      chunks.push(chunk);
      const sorted = statisticsOf({ chunks: [chunk], stride: 1 })
        .slice()
        .sort();
      if (sorted.length < 2) continue;
      const found = summaryOf(sorted, asked.confidence);
      batches.push(found);
      // The sd over all batches so far, each as large.
      sum += found.sd * found.sd;
      if (isStable(batches, Math.sqrt(sum / batches.length))) return { chunks: chunks.slice(), stable: true };
    }
  }
  return { chunks, stable: false };
}

/** What goes of the variance while each input stands still, over the same draws. */
function* contributed(working: Working, known: PropagateResult, chunks: readonly Float64Array[]): Run<Contribution[]> {
  const { asked, propagation } = working;
  const { contributions } = known;
  // With correlated inputs no part of the variance belongs to one of them.
  if (!known.sd || contributions.length < 2 || working.asked.correlations?.length) return contributions;
  const count = Math.min(known.trials, MOST_FOR_CONTRIBUTIONS);
  const batch = batchFor(asked.confidence);
  const book = orderBook(asked.seed, batch);
  contributions.forEach(({ mean }, place) => {
    const input = { ...propagation, fixed: { place, value: mean! } };
    book.add({ kernel: 'propagated-trials', input } as const, count, place === 0 ? undefined : 0);
  });
  const answers = yield { partial: known, orders: book.orders };
  const sdOf = (some: readonly Float64Array[]) => {
    const sorted = statisticsOf({ chunks: some, stride: 1 }).slice().sort();
    return sorted.length > 1 ? summaryOf(sorted, asked.confidence).sd : NaN;
  };
  const all = sdOf(chunks.slice(0, Math.ceil(count / batch)));
  return contributions.map((one, place) => {
    const without = sdOf(answers[place]!);
    if (!Number.isFinite(without) || !(all > 0)) return one;
    return { ...one, without, share: 1 - (without / all) ** 2 };
  });
}

/** What a formula makes of uncertain inputs: their laws drawn through it (JCGM 101:2008), the first order beside. */
export const propagateAnalysis = defineAnalysis<PropagateRequest, PropagateResult>({
  id: 'propagate',
  version: 2,
  name: 'Uncertainty propagation',
  title:
    'mean, standard uncertainty and coverage interval of a formula with uncertain inputs, with the contribution of each input',
  needsReadings: false,
  request: propagateRequest,
  method: wholeSentence(PROPAGATE),
  subject: (asked) => inputsWords(asked),
  resolve: (asked) => asked,
  *run(asked, sample) {
    const working = workingOf(asked, sample);
    if ('available' in working) return working;
    const empty = emptyOf(working);
    const { chunks, stable } = yield* drawn(working, empty);
    const known = summarised(working, empty, chunks, stable);
    const contributions = yield* contributed(working, known, chunks);
    const found = { ...known, contributions };
    return { ...found, notes: propagateNotes(found, asked) };
  },
  glimpse: (_, partial, [chunks = []]) => (partial.sd === null ? piledUp(partial, chunks) : partial),
  finding: propagateFinding,
});
