import { MOST_DOTS, dotsOf, withoutNumbers } from '../../road/piled.js';
import { wholeSentence } from '../../road/method-sentence.js';
import { pOfTally } from '../../goodness-of-fit/simulated-p.js';
import { countArrangements, MOST_ARRANGEMENTS, type Arranged } from '../../resampling/arrangements.js';
import { distributionOf, frameOf, statisticsOf, type Distribution } from '../../resampling/distribution.js';
import type { Shuffled } from '../../resampling/permutation.js';
import { evaluatorOf, isOfPairs, tieOf } from '../../resampling/statistic.js';
import { countedFor, countTails, type Counted } from '../../resampling/tails.js';
import { defineAnalysis, type Answers } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { resampledChunkSize } from '../../road/kernels.js';
import { anotherSeed, orderBook, type OrderBook } from '../../road/order-book.js';
import { affordableReplicates } from '../../road/settings.js';
import { twoOf } from '../../road/two-of.js';
import type { Sample } from '../../readings/sample.js';
import { formulaTest } from './permutation-formula.js';
import type { AllP, PermutationResult } from './permutation-result.js';
import { nullWords, permutationFinding, permutationNotes } from './permutation-words.js';
import { PERMUTATION, permutationRequest, USUAL_SHUFFLES, type PermutationRequest } from './permutation-settings.js';
import { resampleSubject } from './resample-settings.js';
import { resampleSource, type Source } from './resample-source.js';

/** Statistics that are never below 0. */
const isOneSided = ({ statistic }: Pick<PermutationRequest, 'statistic'>) =>
  statistic === 'f' || statistic === 'largest-difference';
const isOfSigns = ({ statistic }: Pick<PermutationRequest, 'statistic'>) =>
  statistic === 'mean' || statistic === 'median' || statistic.endsWith('-of-differences');

/** What is shuffled of a source. */
export function shuffledOf(source: Source, settings: PermutationRequest): Shuffled {
  const { statistic, groups } = source;
  if (isOfPairs(statistic))
    return {
      ...{ arranged: { design: 'pairs', n: groups[0]!.length } as Arranged, statistic },
      ...{ values: groups[0]!, others: groups[1]! },
    };
  if (isOfSigns(settings)) {
    const { claimed: centre = 0 } = settings;
    const values = groups[0]!.map((value) => value - centre);
    return { arranged: { design: 'signs', n: values.length }, statistic, values };
  }
  const all = new Float64Array(groups.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const values of groups) {
    all.set(values, at);
    at += values.length;
  }
  return { arranged: { design: 'labels', sizes: groups.map(({ length }) => length) }, statistic, values: all.sort() };
}

/** The source of a permutation; why there is none. */
export function permutationSource(sample: Sample, settings: PermutationRequest) {
  const source = resampleSource(sample, settings, { least: 1, purpose: 'shuffling' });
  if ('available' in source) return source;
  const refuse = (reason: string) => unavailable(sample, reason);
  const { statistic } = settings;
  if (statistic === 'formula' && source.groups.length < 2)
    return refuse('A permutation test needs two groups: split by a label column, or add a second column.');
  if (statistic === 'formula' && isOfPairs(source.statistic))
    return refuse(
      'A formula over pairs has no null hypothesis to permute. Use the bootstrap, or test the correlation.',
    );
  if (source.groups.length === 1 && !isOfSigns(settings))
    return refuse(`A permutation does not change ${source.what}. Compare two groups, or use the bootstrap.`);
  if ((statistic === 'mean' || statistic === 'median') && settings.claimed === undefined)
    return refuse(`Enter the claimed value of ${source.what}.`);
  const { values, others } = shuffledOf(source, settings);
  const alike = (column: ArrayLike<number>) => Array.from(column).every((value) => value === column[0]);
  if (isOfSigns(settings)) {
    if (Array.from(values).every((value) => value === 0))
      return refuse('All differences are 0, so there are no signs to permute.');
  } else if (alike(values) || (others !== undefined && alike(others)))
    return refuse('All readings are equal, so a permutation changes nothing.');
  return source;
}

/** As many arrangements are counted in one go. */
const COUNTED_AT_ONCE = 50_000;

/** Orders all arrangements, stretch by stretch. */
function orderAll(book: OrderBook, input: Shuffled, arrangements: number): void {
  for (let from = 0; from < arrangements; from += COUNTED_AT_ONCE)
    book.add(
      { kernel: 'arrangement-statistics', input: { ...input, from } },
      Math.min(COUNTED_AT_ONCE, arrangements - from),
    );
}

const canBeCounted = (arrangements: number) => arrangements <= MOST_ARRANGEMENTS;

/** Shuffles are drawn where arrangements cannot be counted, and where somebody asks for them. */
const isDrawn = ({ way: asked }: PermutationRequest, arrangements: number) =>
  asked === 'drawn' || !canBeCounted(arrangements);

interface Working {
  settings: PermutationRequest;
  source: Source;
  arrangements: number;
}

function emptyResult({ settings, source, arrangements }: Working): PermutationResult {
  const { head, names, groups, scale, kind, observed, what } = source;
  const { claimed: centre = 0, alternative: side } = settings;
  const oneSided = isOneSided(settings);
  return {
    ...{ available: true, ...head, as: scale.as, kind, what, observed },
    groups: names.map((name, g) => ({ name, n: groups[g]!.length })),
    design: isOfPairs(source.statistic) ? 'pairs' : isOfSigns(settings) ? 'signs' : 'labels',
    null: nullWords(settings, source),
    centre: isOfSigns(settings) ? centre : centreOf(source),
    ...{ oneSided, alternative: oneSided ? 'greater' : side, alpha: settings.alpha },
    arrangements: Number.isFinite(arrangements) ? arrangements : null,
    ...{ replicates: 0, wanted: settings.replicates!, seed: settings.seed, frame: null, dots: [] },
    distribution: { values: null, edges: [], counts: [], examples: [], below: 0, above: 0 },
    ...{ exact: null, drawn: null, below: 0, above: 0, atLeastAsFar: 0 },
    ...{ pValue: null, pMethod: 'simulated', pExact: null, pSimulated: null, p: null },
    formula: formulaTest(settings, source, { alternative: oneSided ? 'greater' : side, claimed: centre }),
    notes: head.notes,
  };
}

/** What chance alone is about: of a formula its value with both groups being all readings together, such as 1 of a ratio of means; of all else 0. */
function centreOf({ statistic, groups }: Source): number {
  if (statistic.of !== 'formula') return 0;
  const all = Float64Array.from(groups.flatMap((values) => Array.from(values))).sort();
  const found = evaluatorOf(statistic)([all, all]);
  return Number.isFinite(found) ? found : 0;
}

/** By how much what is counted is off what is told: statistics of signs are those of x − claim. */
const offsetOf = ({ design, centre }: Pick<PermutationResult, 'design' | 'centre'>) =>
  design === 'signs' ? centre : 0;

/** What was observed, as it is counted: of signs the figure of x − claim, with all its digits. */
function observedOf({ source, settings }: Working): number {
  const { statistic, groups, observed } = source;
  if (!isOfSigns(settings) || settings.claimed === undefined) return observed;
  return evaluatorOf(statistic)([groups[0]!.map((value) => value - settings.claimed!)]);
}

/** p in every direction: of all arrangements their share, of shuffles (b + 1)/(B + 1). */
function allP({ total, below, above, atLeastAsFar }: Counted, exact: boolean): AllP {
  const p = (count: number) => (exact ? count / total : (count + 1) / (total + 1));
  const [less, greater] = [p(below), p(above)];
  return { less, greater, twoSided: p(atLeastAsFar), doubled: Math.min(1, 2 * Math.min(less, greater)) };
}

/** Statistics of signs are those of x − claim: moved back to where the readings are. */
function movedBy(distribution: Distribution, by: number): Distribution {
  if (by === 0) return distribution;
  const move = (values: readonly number[]) => values.map((value) => value + by);
  return { ...distribution, values: distribution.values && move(distribution.values), edges: move(distribution.edges) };
}

/** Piled up as they are counted. */
function pilesOf(chunks: readonly Float64Array[], partial: PermutationResult): Distribution {
  const offset = offsetOf(partial);
  const frame = { ...partial.frame!, centre: partial.centre - offset };
  return movedBy(distributionOf({ chunks, stride: 1 }, frame), offset);
}

/** What has been drawn so far. */
function growing(
  partial: PermutationResult,
  chunks: readonly Float64Array[],
  observed = partial.observed - offsetOf(partial),
): PermutationResult {
  const offset = offsetOf(partial);
  const drawn = countTails(chunks, { observed, centre: partial.centre - offset, tie: partial.frame!.tie });
  return {
    ...partial,
    ...{ replicates: drawn.total, drawn },
    distribution: pilesOf(chunks, partial),
    dots: drawn.total <= MOST_DOTS ? dotsOf({ chunks, stride: 1 }, offset) : [],
    ...{ below: drawn.below, above: drawn.above, atLeastAsFar: drawn.atLeastAsFar },
  };
}

/** The answers of a step: the shuffles, where any were drawn, and then the stretches of all arrangements. */
function answered(answers: Answers, drawn: boolean): { shuffles: Float64Array[]; all: Float64Array[] } {
  return { shuffles: drawn ? (answers[0] ?? []) : [], all: answers.slice(drawn ? 1 : 0).flat() };
}

function resultOf(working: Working, partial: PermutationResult, answers: Answers): PermutationResult {
  const { settings, arrangements } = working;
  const { shuffles, all } = answered(answers, isDrawn(settings, arrangements));
  const { frame, alternative: side } = partial;
  const observed = observedOf(working);
  const centre = partial.centre - offsetOf(partial);
  const exact = all.length > 0 ? countTails(all, { observed, centre, tie: frame!.tie }) : null;
  const base =
    shuffles.length > 0 ? growing(partial, shuffles, observed) : { ...partial, distribution: pilesOf(all, partial) };
  const used = exact ?? base.drawn!;
  const p = allP(used, exact !== null);
  const ofSide = { less: p.less, greater: p.greater, 'two-sided': p.twoSided }[side];
  const found: PermutationResult = {
    ...base,
    ...{ exact, below: used.below, above: used.above, atLeastAsFar: used.atLeastAsFar, p, pValue: ofSide },
    pMethod: exact ? 'exact' : 'simulated',
    pExact: exact ? ofSide : null,
    pSimulated: base.drawn ? pOfTally(countedFor(base.drawn, side), base.drawn.total, settings.seed) : null,
  };
  return { ...found, notes: [...working.source.head.notes, ...permutationNotes(found, settings)] };
}

const PILOT = 200;

/** Could chance alone do it: the labels, the signs or the pairs are shuffled again and again (Fisher 1935; Pitman 1937). */
export const permutationAnalysis = defineAnalysis<PermutationRequest, PermutationResult>({
  id: 'permutation',
  version: 1,
  name: 'Permutation test',
  title: 'test of a difference or an association by permutation, exact or simulated',
  needsReadings: false,
  takesLabels: true,
  request: permutationRequest,
  method: wholeSentence(PERMUTATION),
  subject: resampleSubject,
  resolve: (settings, sample) => {
    const two = settings.figures || !sample.groups || isOneSided(settings) ? '' : twoOf(sample, settings);
    const named = typeof two === 'string' ? {} : { first: two[0].name, second: two[1].name };
    const n = Math.max(1, sample.values.length);
    return { ...settings, ...named, replicates: settings.replicates ?? affordableReplicates(n, USUAL_SHUFFLES, 1_000) };
  },
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const source = permutationSource(sample, settings);
    if ('available' in source) return source;
    const input = shuffledOf(source, settings);
    const arrangements = countArrangements(input.arranged);
    const working: Working = { settings, source, arrangements };
    const size = resampledChunkSize(source.head.n);
    // How shuffles are piled up a pilot tells, with a seed of its own: the axis does not move while they come.
    const pilot = orderBook(anotherSeed(settings.seed, 1), size);
    pilot.add({ kernel: 'permutation-replicates', input }, PILOT);
    const empty = emptyResult(working);
    const [ahead] = yield { partial: empty, orders: pilot.orders };
    const { centre, oneSided } = empty;
    const own = centre - offsetOf(empty);
    const edge = Math.abs(observedOf(working) - own);
    const seen = Array.from(statisticsOf({ chunks: ahead!, stride: 1 }));
    const also = oneSided ? [own + edge] : [own - edge, own + edge];
    const tie = tieOf(source.statistic, source.observed, source.groups);
    const partial = { ...empty, frame: { ...frameOf(seen, { centre: own, also, edge, tie }), centre } };
    const book = orderBook(settings.seed, size);
    if (isDrawn(settings, arrangements)) book.add({ kernel: 'permutation-replicates', input }, settings.replicates!);
    if (!canBeCounted(arrangements)) {
      const answers = yield { partial, orders: book.orders };
      return resultOf(working, partial, answers);
    }
    orderAll(book, input, arrangements);
    const orders = book.orders.map((order) =>
      order.kernel === 'arrangement-statistics' ? { ...order, chunkSize: COUNTED_AT_ONCE } : order,
    );
    const answers = yield { partial, orders };
    return resultOf(working, partial, answers);
  },
  glimpse: (settings, partial, answers) => {
    const [shuffles = []] = answers;
    const drawing = partial.frame !== null && isDrawn(settings, partial.arrangements ?? Infinity);
    return drawing && shuffles.length > 0 ? withoutNumbers(growing(partial, shuffles)) : partial;
  },
  finding: permutationFinding,
});
