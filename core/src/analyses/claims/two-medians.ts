import { powerBySimulation, rankSumModel, signedRankModel } from '../../claims/simulated-power.js';
import type { Alternative } from '../../claims/alternative.js';
import { z } from 'zod';
import { pOfTails, type Interval, type Tails } from '../../claims/alternative.js';
import type { ClaimDraws } from '../../claims/draws.js';
import { powerOfRankSum, powerOfSignedRanks } from '../../claims/power-of-shifts.js';
import {
  hodgesLehmann,
  mannWhitneyByNormal,
  mannWhitneyExact,
  MOST_PAIRS,
  shiftInterval,
} from '../../claims/rank-sum.js';
import {
  doubledRanks,
  MOST_SIGNED_RANKS,
  ranksOfDistances,
  signedRank,
  signedRankByNormal,
  walshCentre,
} from '../../claims/ranks.js';
import { medianOfSorted } from '../../describe/quantiles.js';
import { normal } from '../../distributions/families/normal.js';
import { formatPercentOf, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import { centralMoments } from '../../numeric/sums.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { choice } from '../../road/setting.js';
import { twoOf } from '../../road/two-of.js';
import { spreadsLine } from './assumptions.js';
import { curveOf } from './claim-law.js';
import type { Assumption, ClaimExtra, ClaimGroup, ClaimResult, LawPicture } from './claim-result.js';
import { noticeable, ofInterval } from './claim-settings.js';
import { claimResult, dotsOf, type Head } from './claim-source.js';
import { formatDistance, formatQuantity, formatInterval, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy, signOf } from './one-column.js';
import { rankable } from './rankable.js';
import { twoAlternative, twoBasis, twoSubject, twoWords } from './two-settings.js';
import { pairSource, twoSource, type Two } from './two-source.js';

const method = choice(
  'method',
  'test of two medians',
  [
    { value: 'mann-whitney', text: 'Mann–Whitney test' },
    { value: 'signed-rank', text: 'signed rank test of the pairs' },
  ],
  'mann-whitney',
);
const request = z.strictObject({ ...twoBasis, method: method.schema });
type Request = z.infer<typeof request>;

export const TWO_MEDIANS_CLAIM: readonly SentencePart[] = [
  'The medians of ',
  { subject: true },
  ' are claimed to be the same; alternative: ',
  twoAlternative.field,
  '.',
];
export const TWO_MEDIANS_METHOD: readonly SentencePart[] = [
  'Test: ',
  method.field,
  ', confidence interval of the shift at ',
  ofInterval.field,
  '. Smallest shift of interest: ',
  noticeable.field,
  '.',
];

interface Tested {
  symbol: string;
  statistic: number;
  tails: Tails;
  exact: boolean;
  shift: number;
  interval: Interval | null;
  n: number;
  head: Head;
  /** The law of the statistic, near a normal. */
  law: { name: string; mean: number; sd: number } | null;
  power: (n: number, d: number) => number;
  values: [Float64Array, Float64Array];
}

function byRanks({ a, b, head }: Two, { alternative, confidence, alpha }: Request): Tested | string {
  const values = rankable([a, b]);
  if (typeof values === 'string') return values;
  const [x, y] = values as [Float64Array, Float64Array];
  const [m, n] = [x.length, y.length];
  const exact = m * n <= MOST_PAIRS;
  const { statistic, tails } = exact ? mannWhitneyExact(x, y) : mannWhitneyByNormal(x, y);
  // Where readings are known by a limit only, a shift has no size.
  const measured = !a.censored && !b.censored;
  const share = m / (m + n);
  return {
    ...{ symbol: 'U', statistic, tails, exact, n: m + n, values: [x, y] },
    shift: measured ? hodgesLehmann(x, y) : medianOf(x) - medianOf(y),
    interval: measured ? shiftInterval(x, y, confidence, alternative) : null,
    head: { ...head, n: m + n, notes: head.notes.filter(({ code }) => code !== 'beyond-limit') },
    law: {
      name: `U of ${groupThousands(m)} and ${groupThousands(n)} readings (normal approximation)`,
      mean: (m * n) / 2,
      sd: Math.sqrt((m * n * (m + n + 1)) / 12),
    },
    power: rankSumPower(share, alpha, alternative),
  };
}

/** Up to so many readings the power of a rank test is simulated; beyond, that of t with 3/π as many readings is within 0.03 of it. */
const MOST_SIMULATED = 60;

function rankSumPower(share: number, alpha: number, alternative: Alternative) {
  const simulated = powerBySimulation(rankSumModel(share, alpha, alternative), alpha);
  return (at: number, d: number) =>
    at <= MOST_SIMULATED ? simulated(at, d) : powerOfRankSum([at * share, at * (1 - share)], d, alpha, alternative);
}

function signedRankPower(alpha: number, alternative: Alternative) {
  const simulated = powerBySimulation(signedRankModel(alpha, alternative), alpha);
  return (at: number, d: number) =>
    at <= MOST_SIMULATED ? simulated(at, d) : powerOfSignedRanks(at, d, alpha, alternative);
}

function bySignedRanks(two: Two, { alternative, confidence, alpha }: Request): Tested | string {
  const pairs = pairSource(two, 1);
  if (typeof pairs === 'string') return pairs;
  const { differences, first, second, head } = pairs;
  const exact = differences.length <= MOST_SIGNED_RANKS;
  const { statistic, n, tails } = exact ? signedRank(differences, 0) : signedRankByNormal(differences, 0);
  const { centre, interval } = walshCentre(differences, confidence, alternative);
  return {
    ...{
      symbol: 'W',
      statistic,
      tails,
      exact,
      shift: centre,
      interval,
      n: differences.length,
      head,
      values: [first, second],
    },
    law:
      n === 0
        ? null
        : {
            name: `signed rank sums of ${plural(n, 'pair')} (normal approximation)`,
            mean: (n * (n + 1)) / 4,
            sd: Math.sqrt((n * (n + 1) * (2 * n + 1)) / 24),
          },
    power: signedRankPower(alpha, alternative),
  };
}

const medianOf = (values: Float64Array) => medianOfSorted(values.slice().sort());

/** The sd within the two groups, or of the differences of pairs: the unit of a shift for the power. */
function sdWithin(values: readonly Float64Array[], pairs: boolean): number {
  const within = pairs ? [values[0]!.map((x, i) => x - values[1]![i]!)] : values;
  const all = within.map((group) => centralMoments(group));
  const df = all.reduce((sum, { n }) => sum + n - 1, 0);
  return df > 0 ? Math.sqrt(all.reduce((sum, { s2 }) => sum + s2, 0) / df) : 0;
}

const groupsOf = ({ a, b }: Two, values: readonly Float64Array[]): ClaimGroup[] =>
  [a, b].map((part: Sample, i) => ({
    ...{ name: part.name, n: values[i]!.length, centre: medianOf(values[i]!), sd: null, interval: null },
    dots: dotsOf(part.values.length === values[i]!.length ? values[i]! : part.values),
  }));

function lawOf({ law, statistic, tails }: Tested, { alternative, alpha }: Request): LawPicture | null {
  if (!law || !(law.sd > 0)) return null;
  const axis = law.name.startsWith('U')
    ? 'pairs in which the first is larger'
    : 'sum of the ranks of positive differences';
  return {
    ...curveOf(normal.of({ mean: law.mean, sd: law.sd }), { name: law.name, axis, statistic, alternative, alpha }),
    p: pOfTails(tails, alternative),
  };
}

const SYMMETRY: Assumption = {
  text: 'Symmetry: the signed rank test assumes that the differences are symmetric about their median.',
  holds: true,
  instead: '',
};

const aboveExtra = ({ statistic, values: [a, b] }: Tested): ClaimExtra => ({
  ...{
    key: 'above',
    name: 'probability first > second',
    value: formatPercentOf(statistic / (a.length * b.length)),
    as: 'share',
  },
  meaning: 'The probability that a reading of the first group is larger than one of the second; ties count half.',
  formula: 'U/(n₁·n₂)',
});

function measuredWords(
  { values, shift, interval, head }: Tested,
  names: readonly string[],
  confidence: number,
): string {
  const scale: Scale = { ...head, as: 'reading' };
  const [first, second] = values.map((group) => formatQuantity(medianOf(group), scale));
  const size = formatDistance(shift, scale);
  const where = shift === 0 ? 'no shift' : `shift ${shift < 0 ? '−' : ''}${size}`;
  const told = `Median ${first} (${names[0]}) and ${second} (${names[1]}), ${where}`;
  if (!interval) return told;
  return `${told}, ${formatPercentOf(confidence)} confidence interval ${formatInterval(interval, scale, 'difference')}`;
}

function missedOf({ n, interval, power }: Tested, sd: number, { alternative, noticeable: named, method: by }: Request) {
  if (!(sd > 0) || !interval) return {};
  const chanceAt = (at: number, d: number) => power(at, (signOf(alternative) * d) / sd);
  const how = { simulated: n <= MOST_SIMULATED, approximate: n > MOST_SIMULATED };
  const per = by === 'mann-whitney' ? 'readings in total' : 'pairs';
  return missedBy({ n, chanceAt, named, scale: sd, least: 2, per, of: 'a shift of', ...how });
}

/** Of more readings their ranks are too long a list to hand on. */
const MOST_DRAWN = 2_000;

function drawsOf({ n, values: [a, b] }: Tested, ranks: boolean): ClaimDraws | null {
  if (n > MOST_DRAWN) return null;
  if (ranks) return { of: 'ranks', ranks: Array.from(doubledRanks([...a, ...b])), first: a.length };
  const differences = a.map((x, i) => x - b[i]!);
  return { of: 'signs', ranks: Array.from(ranksOfDistances(differences, 0)) };
}

/** Do the medians of two groups differ: is one shifted. */
export const twoMediansAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'two-medians',
  version: 2,
  name: 'Two medians',
  title: 'do the medians of two groups or of paired columns differ (Mann–Whitney; signed rank test)',
  request,
  method: [...TWO_MEDIANS_CLAIM, ' ', ...TWO_MEDIANS_METHOD],
  subject: twoSubject,
  resolve: (settings, sample) => {
    const found = twoOf(sample, settings);
    return typeof found === 'string' ? settings : { ...settings, first: found[0].name, second: found[1].name };
  },
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const ranks = settings.method === 'mann-whitney';
    const two = twoSource(sample, settings, { least: 1, purpose: 'a test of two medians', censored: ranks });
    if ('available' in two) return two;
    const tested = ranks ? byRanks(two, settings) : bySignedRanks(two, settings);
    if (typeof tested === 'string') return unavailable(sample, tested);
    const { head, shift, interval, statistic, tails, exact, values } = tested;
    const { alternative, alpha, method: by } = settings;
    const names: [string, string] = [two.a.name, two.b.name];
    const sd = sdWithin(values, !ranks);
    return claimResult(head, settings, {
      ...twoWords('the median', two.of, names, alternative),
      ...{ method: by, claimed: 0, estimate: shift, difference: shift, standardised: sd > 0 ? shift / sd : null },
      ...{ symbol: tested.symbol, statistic, pValue: pOfTails(tails, alternative) },
      pMethod: exact ? 'exact' : 'asymptotic',
      ...{ interval, intervalOf: 'the shift' },
      measured: measuredWords(tested, names, settings.confidence),
      ...missedOf(tested, sd, settings),
      assumptions: ranks
        ? spreadsLine(
            values,
            alpha,
            'reading the result as “neither group tends to be larger”, not as a statement on medians',
          )
        : [SYMMETRY],
      law: lawOf(tested, settings),
      draws: drawsOf(tested, ranks),
      groups: groupsOf(two, values),
      extras: ranks ? [aboveExtra(tested)] : [],
    });
  },
  finding: claimFinding,
});
