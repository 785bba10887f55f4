import { MOST_DOTS, dotsOf, withoutNumbers } from '../../road/piled.js';
import { wholeSentence, type NamedParts } from '../../road/method-sentence.js';
import { READABLE, readable, statistic, STATISTIC_REST } from '../../road/statistic-settings.js';
import { z } from 'zod';
import type { BootstrapDraws } from '../../resampling/bootstrap.js';
import { distributionOf, frameOf, statisticsOf, type Replicates } from '../../resampling/distribution.js';
import { intervalsOf, spreadOf, INTERVAL_NAMES, type IntervalName } from '../../resampling/intervals.js';
import { acceleration } from '../../resampling/jackknife.js';
import { isOfPairs, tieOf } from '../../resampling/statistic.js';
import { groupThousands } from '../../numeric/format.js';
import { centralMoments } from '../../numeric/sums.js';
import { defineAnalysis } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { resampledChunkSize } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { choice, whole } from '../../road/setting.js';
import { affordableReplicates, MOST_REPLICATES } from '../../road/settings.js';
import { twoOf } from '../../road/two-of.js';
import type { Sample } from '../../readings/sample.js';
import { formulaInterval } from './bootstrap-formula.js';
import { type BootstrapResult } from './bootstrap-result.js';
import { bootstrapFinding, bootstrapNotes, INTERVAL_WORDS, recommendedOf } from './bootstrap-words.js';
import { confidence, ONE_SOURCE, oneSource, resampleBasis, resampleSubject, seedOf } from './resample-settings.js';
import { resampleSource, type Source } from './resample-source.js';

const USUAL = 10_000;
const replicates = whole(
  'replicates',
  'replicates',
  { min: 1, max: MOST_REPLICATES },
  USUAL,
  'The number of replicates',
);
const times = whole('times', 'sample size multiplier', { min: 1, max: 100 }, 1, 'The sample size multiplier');
const interval = choice(
  'interval',
  'interval',
  [
    { value: 'recommended', text: 'the recommended' },
    ...INTERVAL_NAMES.map((value) => ({ value, text: INTERVAL_WORDS[value] })),
  ] as const satisfies readonly { value: 'recommended' | IntervalName; text: string }[],
  'recommended',
);
const smooth = choice(
  'smooth',
  'smoothing',
  [
    { value: 'no', text: 'no smoothing' },
    { value: 'half-step', text: 'smoothing by half the resolution' },
  ],
  'no',
);

export const bootstrapSettings = {
  ...resampleBasis,
  /** By n, where nothing is asked. */
  replicates: replicates.schema.unwrap().optional(),
  times: times.schema,
  confidence: confidence.schema,
  interval: interval.schema,
  smooth: smooth.schema,
};
const request = z.strictObject(bootstrapSettings).refine(oneSource, ONE_SOURCE).refine(readable, READABLE);
export type BootstrapRequest = z.infer<typeof request>;

const AS_MANY = { field: 'times', is: '1' };
export const BOOTSTRAP = {
  lead: ['Bootstrap of ', { subject: true }, ', statistic: '],
  statistic: [statistic.field],
  rest: [...STATISTIC_REST, '. '],
  how: [
    '',
    replicates.field,
    ' replicates, resampled with replacement',
    { text: ', each ', hideWhen: AS_MANY },
    { ...times.field, hideWhen: AS_MANY },
    { text: ' times as large as the sample', hideWhen: AS_MANY },
    ', ',
    smooth.field,
    ', seed ',
    seedOf.field,
    '; report ',
    interval.field,
    ' confidence interval at ',
    confidence.field,
    '.',
  ],
} as const satisfies NamedParts;

/** What is drawn: the readings, or readings moved within a step. */
export function drawsOf(
  { statistic, groups, head }: Source,
  { times: many, smooth: moved }: BootstrapRequest,
): BootstrapDraws {
  const { of } = statistic;
  const means = (of === 'one' || of === 'difference') && statistic.figure.name === 'mean';
  return {
    ...{ statistic, groups, times: many },
    smooth: moved === 'half-step' ? (head.resolution ?? 0) : 0,
    studentised: means,
  };
}

/** Readings drawn for one replicate: of pairs each pair once. */
export const drawnAtOnce = ({ statistic, groups }: Source, many: number): number =>
  many * (isOfPairs(statistic) ? groups[0]!.length : groups.reduce((sum, { length }) => sum + length, 0));

/** No replicate holds more: it has to fit into memory, in every worker. */
export const MOST_AT_ONCE = 10_000_000;

export const LEAST_REDRAWN = { least: 2, purpose: 'the bootstrap' };

/** Why nothing would come of it: every replicate would be the same. */
function whyAllAlike({ groups, head, what }: Source): string | null {
  if (groups.some((values) => values.some((value) => value !== values[0]))) return null;
  return head.typed
    ? `All outcomes are equal, so ${what} is the same in every replicate. Use the exact interval of a proportion in Claims.`
    : `All readings are equal, so ${what} is the same in every replicate and the bootstrap cannot show its precision.`;
}

/** The source of a bootstrap; why there is none. */
export function bootstrapSource(sample: Sample, settings: BootstrapRequest) {
  if (settings.statistic === 'f' || settings.statistic === 'largest-difference')
    return unavailable(
      sample,
      'F and the largest difference cannot be negative, so their bootstrap is biased. Use a permutation test.',
    );
  const source = resampleSource(sample, settings, LEAST_REDRAWN);
  if ('available' in source) return source;
  if (settings.smooth === 'half-step' && source.scale.as === 'share')
    return unavailable(sample, 'Smoothing is not available for a proportion. Choose no smoothing.');
  if (settings.smooth === 'half-step' && source.head.resolution === null)
    return unavailable(
      sample,
      'Smoothing needs the resolution of the readings. Enter it in Readings, or choose no smoothing.',
    );
  if (drawnAtOnce(source, settings.times) > MOST_AT_ONCE)
    return unavailable(
      sample,
      `A replicate would hold more than ${groupThousands(MOST_AT_ONCE)} readings. Choose a smaller multiplier.`,
    );
  const alike = whyAllAlike(source);
  return alike ? unavailable(sample, alike) : source;
}

const NO_INTERVALS = Object.fromEntries(INTERVAL_NAMES.map((name) => [name, null])) as BootstrapResult['intervals'];
const PILOT = 200;

/** The standard error by formula of the readings as they are. */
function standardErrorOf({ groups }: Source): number {
  return Math.sqrt(
    groups.reduce((sum, values) => {
      const { n, s2 } = centralMoments(values);
      return sum + (n > 1 ? s2 / (n - 1) / n : 0);
    }, 0),
  );
}

interface Working {
  settings: BootstrapRequest;
  source: Source;
  draws: BootstrapDraws;
}

function emptyResult({ settings, source }: Working): BootstrapResult {
  const { head, names, groups, scale, kind, observed, what } = source;
  return {
    ...{ available: true, ...head, as: scale.as, kind, what, observed },
    groups: names.map((name, g) => ({ name, n: groups[g]!.length })),
    ...{
      replicates: 0,
      wanted: settings.replicates!,
      seed: settings.seed,
      times: settings.times,
      confidence: settings.confidence,
    },
    distribution: { values: null, edges: [], counts: [], examples: [], below: 0, above: 0 },
    ...{ frame: null, dots: [], undefined: 0 },
    ...{ mean: null, standardError: null, bias: null, intervals: NO_INTERVALS, main: null, different: null },
    ...recommendedOf(settings.statistic, source.groups, null),
    formula: formulaInterval(settings, source, settings.confidence),
    notes: head.notes,
  };
}

/** Enough replicates that five of them lie beyond either end: an end that hangs on one or two is no end. */
const LEAST_BEYOND = 5;
const enoughFor = (count: number, level: number) => ((count + 1) * (1 - level)) / 2 >= LEAST_BEYOND - 1e-9;

/** The result of all that has been drawn. */
function resultOf(working: Working, partial: BootstrapResult, chunks: readonly Float64Array[]): BootstrapResult {
  const { settings, source } = working;
  const drawn: Replicates = { chunks, stride: strideOf(settings) };
  const known = growing(partial, drawn);
  const statistics = statisticsOf(drawn);
  const intervals = enoughFor(statistics.length, settings.confidence)
    ? intervalsOf({
        ...{ observed: source.observed, statistics, confidence: settings.confidence, tie: partial.frame!.tie },
        ...studentisedOf(working, drawn),
        acceleration: accelerationOf(source, settings.times),
      })
    : NO_INTERVALS;
  const found = { ...known, intervals, ...recommendedOf(settings.statistic, source.groups, intervals) };
  const wanted = settings.interval;
  const main = wanted === 'recommended' || !intervals[wanted] ? found.recommended : wanted;
  const complete = { ...found, main };
  return { ...complete, notes: [...source.head.notes, ...bootstrapNotes(complete, settings)] };
}

/** Of k times as many readings it shrinks with √k. */
function accelerationOf({ statistic, groups }: Source, many: number): number | null {
  const found = acceleration(statistic, groups);
  return found === null ? null : found / Math.sqrt(many);
}

/** (statistic − observed)/its standard error, of every replicate that has one. */
function studentisedOf({ draws, source }: Working, { chunks }: Replicates) {
  if (!draws.studentised) return { studentised: null, standardError: null };
  const all = new Float64Array(chunks.reduce((sum, chunk) => sum + chunk.length / 2, 0));
  let n = 0;
  for (const chunk of chunks)
    for (let i = 0; i < chunk.length; i += 2)
      all[n++] = chunk[i + 1]! > 0 ? (chunk[i]! - source.observed) / chunk[i + 1]! : NaN;
  return { studentised: all, standardError: standardErrorOf(source) / Math.sqrt(draws.times) };
}

/** Means and differences of means come with their standard errors. */
const strideOf = ({ statistic }: Pick<BootstrapRequest, 'statistic'>): number =>
  ['mean', 'share', 'mean-of-differences', 'difference-of-means', 'difference-of-shares'].includes(statistic) ? 2 : 1;

/** A result as it grows. */
function growing(partial: BootstrapResult, drawn: Replicates): BootstrapResult {
  const statistics = statisticsOf(drawn);
  const count = drawn.chunks.reduce((sum, chunk) => sum + chunk.length / drawn.stride, 0);
  const { mean, sd } = spreadOf(statistics);
  const distribution = distributionOf(drawn, partial.frame!);
  return {
    ...partial,
    ...{ replicates: count, distribution, undefined: count - statistics.length },
    different: distribution.values?.length ?? null,
    dots: count <= MOST_DOTS ? dotsOf(drawn) : [],
    ...(statistics.length > 1 ? { mean, standardError: sd, bias: mean - partial.observed } : {}),
  };
}

/** How sure is a figure: it is worked out again and again of readings drawn from the readings (Efron 1979). */
export const bootstrapAnalysis = defineAnalysis<BootstrapRequest, BootstrapResult>({
  id: 'bootstrap',
  version: 2,
  name: 'Bootstrap',
  title: 'standard error and confidence intervals of a statistic by resampling with replacement',
  needsReadings: false,
  takesLabels: true,
  request,
  method: wholeSentence(BOOTSTRAP),
  subject: resampleSubject,
  resolve: (settings, sample) => {
    const n = Math.max(1, sample.values.length) * settings.times;
    const two = settings.figures || !sample.groups ? '' : twoOf(sample, settings);
    const named = typeof two === 'string' ? {} : { first: two[0].name, second: two[1].name };
    return { ...settings, ...named, replicates: settings.replicates ?? affordableReplicates(n, USUAL, 1_000) };
  },
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const source = bootstrapSource(sample, settings);
    if ('available' in source) return source;
    const draws = drawsOf(source, settings);
    const working: Working = { settings, source, draws };
    const size = resampledChunkSize(drawnAtOnce(source, settings.times));
    // How replicates are piled up a pilot tells, with a seed of its own: the axis does not move while they come.
    const pilot = orderBook(anotherSeed(settings.seed, 1), size);
    pilot.add({ kernel: 'bootstrap-replicates', input: draws }, PILOT);
    const empty = emptyResult(working);
    const [ahead] = yield { partial: empty, orders: pilot.orders };
    const tie = tieOf(source.statistic, source.observed, source.groups);
    const seen = Array.from(statisticsOf({ chunks: ahead!, stride: strideOf(settings) }));
    const partial = { ...empty, frame: frameOf(seen, { centre: source.observed, tie }) };
    const book = orderBook(settings.seed, size);
    book.add({ kernel: 'bootstrap-replicates', input: draws }, settings.replicates!);
    const [chunks] = yield { partial, orders: book.orders };
    return resultOf(working, partial, chunks!);
  },
  glimpse: (settings, partial, [chunks = []]) =>
    partial.frame ? withoutNumbers(growing(partial, { chunks, stride: strideOf(settings) })) : partial,
  finding: bootstrapFinding,
});
