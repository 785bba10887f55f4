import { RANKED } from '../../distributions/measured.js';
import { roundingOf } from '../../goodness-of-fit/rounding.js';
import { fittedLaw } from '../../distributions/fit/fitted-law.js';
import { isRefusal } from '../../distributions/family.js';
import { simulatedP, pOfTally, type SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { TransformedTallies } from '../../goodness-of-fit/transformed.js';
import { exp } from '../../numeric/elementary.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Answers } from '../../road/analysis.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { leftOutNotes, unavailable, whyNot } from '../../road/cautions.js';
import { chunkSizeFor } from '../../road/kernels.js';
import { anotherSeed, orderBook } from '../../road/order-book.js';
import { affordableReplicates, LEAST_REPLICATES } from '../../road/settings.js';
import { bendable, bentWith } from '../../transform/lambda.js';
import {
  isPower,
  transformed,
  transformedBounds,
  turnedBack,
  type Bounds,
  type PowerTransformation,
} from '../../transform/transformation.js';
import { roundedWork } from './normality-tested.js';
import {
  offersOf,
  outsideShare,
  sideOf,
  transformedSample,
  transformedShare,
  type Transformed,
} from './transform-figured.js';
import type { TransformResult } from './transform-result.js';
import { transformRequest, transformSentence, type TransformRequest as Request } from './transform-settings.js';
import { transformFinding, transformNotes } from './transform-words.js';

/** Of the shares outside limits. */
const CONFIDENCE = 0.95;

const boundsOf = ({ lowerLimit, target, upperLimit }: Request): Bounds => ({
  lower: lowerLimit ?? null,
  target: target ?? null,
  upper: upperLimit ?? null,
});

const countOutside = (values: Float64Array, { lower, upper }: Bounds) =>
  values.reduce((sum, x) => sum + Number((lower !== null && x < lower) || (upper !== null && x > upper)), 0);

/** With what is to be said of it as far as it is known. */
const withNotes = (result: TransformResult, sample: Sample): TransformResult => ({
  ...result,
  notes: [...leftOutNotes(sample), ...transformNotes(result)],
});

/** All that asks for no simulation. */
function worked(settings: Request, sample: Sample, { values, lambda }: Transformed): TransformResult {
  const { by, alpha } = settings;
  const { missing, setAside, unit, resolution } = sample;
  const bounds = boundsOf(settings);
  const limited = bounds.lower !== null || bounds.upper !== null;
  const used = lambda?.used ?? 0;
  const after = sideOf(values, null, transformedBounds(by, used, bounds));
  const middle = by === 'normal-scores' ? NaN : turnedBack(by, used, after.mean);
  return {
    ...{ available: true, n: values.length, missing, setAside, unit, resolution, alpha, by, lambda },
    before: sideOf(sample.values, resolution, bounds),
    after,
    middle: Number.isFinite(middle) ? middle : null,
    offers: offersOf(settings, sample),
    outside: limited
      ? {
          counted: countOutside(sample.values, bounds),
          transformed: by === 'normal-scores' ? null : transformedShare(by, values, bounds, after.bounds, CONFIDENCE),
          best: null,
        }
      : null,
    rows: sample.rows,
    readings: sample.values,
    transformed: values,
    notes: [],
  };
}

/** A transformation as a power of Box–Cox or Yeo–Johnson, up to a factor and a shift: A² knows neither. */
const AS_POWER = { logarithm: 0, 'square-root': 0.5, reciprocal: -1 } as const;

/** The law of the transformed readings, to draw samples of. Their spread is less what rounding to `step` has added to it. */
function drawsOf({ by, lambda, after, readings }: TransformResult, { confidence }: Request, step: number | null) {
  if (by === 'normal-scores') return null;
  const power: PowerTransformation = isPower(by) ? by : 'box-cox';
  const used = lambda?.used ?? AS_POWER[by as keyof typeof AS_POWER];
  const seen = bendable(power, readings);
  const bends = new Float64Array(readings.length);
  bentWith(seen, used, bends);
  const { n, mean, s2 } = centralMoments(bends);
  const mirrored = seen.mirrored !== null;
  const scale = exp(seen.centre);
  // Without readings below 0 Yeo–Johnson is Box–Cox of x + 1, and both are seen in units of the centre.
  const seenAt = (x: number) =>
    mirrored
      ? transformed(power, used, x)
      : transformed('box-cox', used, (power === 'yeo-johnson' ? x + 1 : x) / scale);
  const stepped = (x: number) => {
    const [low, high] = [seenAt(x - step! / 2), seenAt(x + step! / 2)];
    return Number.isFinite(high - low) ? (high - low) ** 2 / 12 : 0;
  };
  const variance = s2 / (n - 1);
  const rounding = step === null ? 0 : readings.reduce((sum, x) => sum + stepped(x), 0) / n;
  const input: TransformedTallies = {
    ...{
      power,
      n,
      lambda: used,
      centre: seen.centre,
      mirrored,
      mean,
      step,
      confidence,
      observed: after.statistic,
    },
    sd: Math.sqrt(Math.max(variance - rounding, variance / 10)),
    choice: lambda?.choice ?? 'given',
  };
  return { kernel: 'transformed-tallies', input } as const;
}

/** Fewer say nothing of a power, nor of a family. */
const LEAST_N = 5;

/** Samples with nothing to find; samples whose λ is found anew; and the families that may describe the readings. */
function firstOrders(settings: Request, result: TransformResult) {
  const { n, readings, resolution, lambda, outside } = result;
  const book = orderBook(settings.seed, chunkSizeFor(n));
  const plain = { test: 'anderson-darling', n, population: 'normal', rounding: null } as const;
  const nulls = book.add({ kernel: 'normality-replicates', input: plain }, settings.replicates!);
  const draws = lambda && lambda.choice !== 'given' ? drawsOf(result, settings, null) : null;
  const refitted = draws && book.add(draws, settings.replicates!);
  const families = orderBook(anotherSeed(settings.seed, 1), 1);
  if (outside) {
    const input = { values: Array.from(readings).sort((a, b) => a - b), resolution, families: RANKED };
    families.add({ kernel: 'family-criteria', input }, 1);
  }
  const orders = [...book.orders, ...families.orders];
  return { orders, nulls, refitted, criteria: families.orders.length > 0 ? orders.length - 1 : null };
}

const tallied = (chunks: readonly Float64Array[], settings: Request): SimulatedP =>
  pOfTally(
    chunks.reduce((sum, chunk) => sum + chunk[0]!, 0),
    settings.replicates!,
    settings.seed,
  );

/** The best family by its AICc, with its share outside the limits. */
function bestShare(aicc: Float64Array | undefined, result: TransformResult) {
  const least = aicc ? aicc.reduce((a, b) => Math.min(a, b), Infinity) : Infinity;
  if (!Number.isFinite(least)) return null;
  const family = RANKED[aicc!.indexOf(least)]!;
  const law = fittedLaw(result.readings, { family, given: {}, estimateThreshold: false });
  return isRefusal(law) ? null : { family, ...outsideShare(law, result.before.bounds, CONFIDENCE, result.readings) };
}

function withPlainP(
  result: TransformResult,
  settings: Request,
  { nulls, refitted, criteria }: ReturnType<typeof firstOrders>,
  answers: Answers,
): TransformResult {
  const { before, after, outside, by } = result;
  const p = (statistic: number) => simulatedP(statistic, answers[nulls]!, settings.seed);
  const afterP = refitted === null ? p(after.statistic) : tallied(answers[refitted]!, settings);
  return {
    ...result,
    before: { ...before, pSimulated: p(before.statistic) },
    after: { ...after, pSimulated: by === 'normal-scores' ? null : afterP },
    outside: outside && { ...outside, best: criteria === null ? null : bestShare(answers[criteria]?.[0], result) },
  };
}

/** Where a test rejects: whether samples rounded as the readings are would be rejected as well. */
function roundedOrders(settings: Request, result: TransformResult, sample: Sample) {
  const { alpha, seed, replicates } = settings;
  const { n, before, after, resolution } = result;
  const book = orderBook(anotherSeed(seed, 2), chunkSizeFor(n));
  const rounding = before.pSimulated!.pValue < alpha ? roundingOf(sample.values, resolution, before.sd) : null;
  const ofBefore = rounding && book.add(roundedWork('anderson-darling', n, rounding), replicates!);
  const rejects = after.pSimulated !== null && after.pSimulated.pValue < alpha && resolution !== null;
  const draws = rejects ? drawsOf(result, settings, resolution) : null;
  const ofAfter = draws && book.add(draws, replicates!);
  return { orders: book.orders, rounding, ofBefore, ofAfter };
}

function withRoundedP(
  result: TransformResult,
  settings: Request,
  { rounding, ofBefore, ofAfter }: ReturnType<typeof roundedOrders>,
  answers: Answers,
): TransformResult {
  const { before, after } = result;
  const counted = rounding?.by === 'counted-steps' ? rounding.statistic : before.statistic;
  const beforeP = ofBefore === null ? null : simulatedP(counted, answers[ofBefore]!, settings.seed);
  const afterP = ofAfter === null ? null : tallied(answers[ofAfter]!, settings);
  return {
    ...result,
    before: { ...before, pResolution: beforeP },
    after: { ...after, pResolution: afterP },
  };
}

/** λ is found anew in every sample: of very many readings fewer samples have to do. */
const usualReplicates = (n: number) => affordableReplicates(n, 10_000, n > 20_000 ? LEAST_REPLICATES : 1_000);

/** Readings transformed towards a normal: λ with its interval, before and after side by side, the limits with them. */
export const transformAnalysis = defineAnalysis<Request, TransformResult>({
  id: 'transform',
  version: 2,
  name: 'Transformation',
  title: 'transformation towards a normal distribution, with transformed limits',
  request: transformRequest,
  method: transformSentence,
  resolve: (settings, sample) => ({
    ...settings,
    replicates: settings.replicates ?? usualReplicates(sample.values.length),
  }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const reason = whyNot(sample, LEAST_N, 'a transformation') ?? whyCensored(sample, 'a transformation');
    if (reason) return unavailable(sample, reason);
    const found = transformedSample(settings, sample);
    if (typeof found === 'string') return unavailable(sample, found);
    const partial = worked(settings, sample, found);
    const first = firstOrders(settings, partial);
    const plain = withPlainP(
      partial,
      settings,
      first,
      yield { partial: withNotes(partial, sample), orders: first.orders },
    );
    const rounded = roundedOrders(settings, plain, sample);
    if (rounded.orders.length === 0) return withNotes(plain, sample);
    const answers = yield { partial: withNotes(plain, sample), orders: rounded.orders };
    return withNotes(withRoundedP(plain, settings, rounded, answers), sample);
  },
  finding: transformFinding,
});
