import { formatPercent, formatValue } from '../../numeric/format.js';
import type { Sample } from '../../readings/sample.js';
import { readFiguresFormula } from '../../resampling/formula.js';
import { theoryOf, type Theory } from '../../simulation/theory.js';
import { simulatedInterval } from '../../simulation/intervals.js';
import type { Law } from '../../simulation/laws.js';
import { lawOf } from '../../simulation/population.js';
import type { Group, Repeated, SimulatedSamples } from '../../simulation/samples.js';
import { simulatedTest } from '../../simulation/tests/registry.js';
import type { Claim, Counted, SimulatedTest } from '../../simulation/tests/simulated-test.js';
import type { Unavailable } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { statisticOf, toldAs, whatWords } from '../../road/statistic-asked.js';
import { USUAL_PERCENTILE, type StatisticAsked } from '../../road/statistic-settings.js';
import { toldFigure, type Told } from '../../road/told.js';
import { isPaired, type RepeatedAsked, type SamplesAsked } from './asked-settings.js';
import type { PopulationAsked } from './population-settings.js';
import { groupsDrawn, populationSource, shareOf, truthOf, type PopulationSource } from './simulated-source.js';

export type SimulationAsked = PopulationAsked & SamplesAsked & RepeatedAsked;

/** Everything that is known before anything is drawn. */
export interface Simulated extends Drawn {
  repeated: Repeated;
  told: Told;
  what: string;
  truth: number | null;
  theory: Theory | null;
  holds: boolean | null;
  claim: string;
  /** How many times as long as a t test a sample takes, about. */
  cost: number;
}

const needsLimits = (asked: SimulationAsked): boolean =>
  ['share', 'difference-of-shares'].includes(asked.statistic ?? '') ||
  ['share', 'fisher'].includes(asked.test ?? '') ||
  ['share', 'exact-share', 'difference-of-shares'].includes(asked.interval ?? '');

function countedOf(asked: SimulationAsked): Counted | null | string {
  if (!needsLimits(asked)) return null;
  const { lower = null, upper = null, of } = asked;
  if (lower === null && upper === null) return 'Say the limits: what lies outside them, or within, is counted.';
  if (lower !== null && upper !== null && lower > upper)
    return `The upper limit, ${upper}, lies below the lower, ${lower}.`;
  return { lower, upper, of };
}

/** What is drawn from, and how many. */
export interface Drawn {
  source: PopulationSource;
  groups: Group[];
  /** The law of every group, as it is drawn from. */
  laws: Law[];
}

/** Nothing varies but for the dust of rounding. */
const isConstant = ({ sd, centre }: PopulationSource): boolean => sd !== null && sd <= 1e-14 * Math.abs(centre);

/** The populations that are asked for; why there are none. `known` is the population where it has been worked out. */
export function drawnFrom(
  asked: PopulationAsked & SamplesAsked & Pick<RepeatedAsked, 'groups'>,
  sample: Sample,
  known?: PopulationSource,
): Drawn | Unavailable {
  const source = known ?? populationSource(asked, sample);
  if ('available' in source) return source;
  if (isConstant(source))
    return unavailable(sample, 'All its values are alike: every sample would be the same.');
  const groups = groupsDrawn(asked, source);
  if (typeof groups === 'string') return unavailable(sample, groups);
  const laws = groups.map(({ population }, g) => (g === 0 && population.move ? lawOf(population) : source.law));
  return { source, groups, laws };
}

/** What is asked of which population, before anything is drawn; why it cannot be had. */
export function simulated(asked: SimulationAsked, sample: Sample, known?: Drawn): Simulated | Unavailable {
  const drawn = known ?? drawnFrom(asked, sample);
  if ('available' in drawn) return drawn;
  const counted = countedOf(asked);
  if (typeof counted === 'string') return unavailable(sample, counted);
  const of = { asked, ...drawn, counted };
  const found = asked.test !== undefined ? ofTest(of) : asked.interval !== undefined ? ofInterval(of) : ofStatistic(of);
  return typeof found === 'string' ? unavailable(sample, found) : { ...found, ...drawn };
}

interface Of extends Drawn {
  asked: SimulationAsked;
  counted: Counted | null;
}
type Found = Omit<Simulated, keyof Drawn>;

const LARGEST_FOR_SORTING = 20_000;
/** Fourth powers of what is greater cannot be held. */
const GREATEST_SQUARED = 1e74;

const sizesWords = (groups: readonly Group[]): string =>
  groups.length === 1 || groups[0]!.n === groups[1]!.n
    ? `samples of ${groups[0]!.n}`
    : `samples of ${groups[0]!.n} and ${groups[1]!.n}`;

function ofStatistic({ asked, source, groups, laws, counted }: Of): Found | string {
  const id = asked.statistic ?? 'mean';
  const figures = { ...asked, statistic: id } as StatisticAsked;
  const paired = isPaired(id);
  const uneven = groups.length === 2 && groups[0]!.n !== groups[1]!.n;
  if (paired && uneven) return 'Pairs need as many readings in the second group as in the first.';
  if (id === 'formula') {
    if (!asked.formula) return 'Write the formula over the figures of the samples.';
    const read = readFiguresFormula(asked.formula, groups.length, false);
    if ('problem' in read) return read.problem;
  }
  if (id === 'variance' && (source.sd ?? 0) > GREATEST_SQUARED)
    return 'Its values are too large for a variance that varies to be worked out: choose a larger unit.';
  const statistic = statisticOf(figures, false);
  const { scale, kind } = toldAs(figures, source.head);
  const told = { ...scale, kind };
  const differences = id.endsWith('-of-differences');
  const least =
    id === 'sd' || id === 'variance' || id === 'cv' || id === 'skewness' || id === 'log-ratio-of-sds' ? 2 : 1;
  if (groups.some(({ n }) => n < (paired && !differences ? 2 : least)))
    return `Of a single reading there is no such figure: draw at least ${Math.max(2, least)}.`;
  const name = sizesWords(groups);
  const shares = counted && laws.map((law) => shareOf(law, counted));
  return {
    repeated: { what: 'statistic', statistic, counted, differences },
    told,
    what: whatWords(figures, { name, by: null, names: ['the first', 'the second'], told: formatValue }),
    truth: truthOfStatistic(figures, laws, shares),
    theory: theoryOf(statistic, groups, { shares, differences }),
    ...{ holds: null, claim: '', cost: ['mean', 'sd', 'variance', 'share'].includes(id) ? 1 : 6 },
  };
}

const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);

/** What a statistic is after, where the population tells. */
function truthOfStatistic(
  asked: StatisticAsked,
  laws: readonly Law[],
  shares: readonly number[] | null,
): number | null {
  const [a, b] = laws as [Law, Law];
  const sd = (law: Law) => Math.sqrt(law.variance);
  switch (asked.statistic) {
    case 'mean':
      return finite(a.mean);
    case 'median':
      return a.quantile(0.5);
    case 'percentile':
      return finite(a.quantile(asked.percentile ?? USUAL_PERCENTILE));
    case 'sd':
      return finite(sd(a));
    case 'variance':
      return finite(a.variance);
    case 'cv':
      return a.mean === 0 ? null : finite(sd(a) / Math.abs(a.mean));
    case 'share':
      return shares![0]!;
    case 'difference-of-shares':
      return shares![0]! - shares![1]!;
    case 'difference-of-means':
    case 'mean-of-differences':
      return finite(a.mean - b.mean);
    case 'difference-of-medians':
      return a.quantile(0.5) - b.quantile(0.5);
    case 'log-ratio-of-sds':
      return null;
    case 'correlation':
    case 'slope':
      return 0;
    default:
      return null;
  }
}

/** How small beside the sd a difference is that rounding alone makes. */
const DUST = 1e-9;

function whyNotTest(test: SimulatedTest, { groups, source, counted, laws }: Of): string | null {
  const { least, greatest = Infinity, name, about } = test;
  const called = `The ${name}`;
  for (const { n } of groups) {
    if (n < least) return `${called} needs at least ${least} readings${groups.length > 1 ? ' in each group' : ''}.`;
    if (n > greatest) return `${called} takes at most ${greatest} readings.`;
    if (about === 'median' && n > LARGEST_FOR_SORTING)
      return `${called} of more than ${LARGEST_FOR_SORTING} readings is not simulated: draw fewer.`;
  }
  if (about === 'pairs' && groups[0]!.n !== groups[1]!.n)
    return 'Pairs need as many readings in the second group as in the first.';
  if (source.sd === null && (about === 'sd' || test.id === 'z'))
    return `${called} leans on an sd, and this population has none.`;
  const shares = counted ? laws.map((law) => shareOf(law, counted)) : [];
  if (test.id === 'fisher' && shares.every((share) => share === 0 || share === 1))
    return 'Everything lies on one side of the limits: nothing would be counted.';
  return null;
}

/** What a test claims, where a value is typed in place of what is true. */
function claimOf({ asked, source, counted }: Of, { about }: SimulatedTest): Claim | string {
  const claim = truthOf(source.law, counted);
  const { claimed } = asked;
  const typed = claimed !== undefined && ['mean', 'median', 'sd', 'share'].includes(about);
  const made = typed ? { ...claim, [about]: claimed } : claim;
  if (about === 'sd' && !(made.sd > 0)) return 'The claimed sd is a number above 0.';
  if (about === 'share' && !(made.share > 0 && made.share < 1))
    return typed
      ? 'The claimed share is a number between 0 and 1; 0.05 means 5 %.'
      : 'Everything lies on one side of the limits: nothing would be counted.';
  return made;
}

function ofTest(of: Of): Found | string {
  const { asked, source, groups, laws, counted } = of;
  const test = simulatedTest(asked.test!);
  const claim = claimOf(of, test);
  const reason = typeof claim === 'string' ? claim : whyNotTest(test, of);
  if (reason !== null) return reason;
  const { alternative } = asked;
  return {
    repeated: { what: 'test', test: test.id, alternative, claim: claim as Claim, table: null },
    told: { unit: '', resolution: null, as: 'ratio', kind: 'location' },
    what: `the p of the ${test.name} in ${sizesWords(groups)}`,
    truth: null,
    theory: null,
    holds: holdsOf(test, { source, laws, claim: claim as Claim, counted }),
    claim: claimWords(test, claim as Claim, source),
    cost: test.cost,
  };
}

/** True where what a test claims holds of what is drawn. */
function holdsOf(
  { about, id }: SimulatedTest,
  { source, laws, claim, counted }: Pick<Of, 'source' | 'laws' | 'counted'> & { claim: Claim },
): boolean {
  const [law, other] = laws as [Law, Law];
  const scale = source.sd ?? 1;
  const near = (a: number, b: number) => Math.abs(a - b) <= DUST * Math.max(scale, Math.abs(b) * 1e-3);
  const middle = (one: Law) => (Number.isFinite(one.mean) ? one.mean : one.quantile(0.5));
  const { base, mixed, step } = source.population;
  switch (about) {
    case 'mean':
      return near(middle(law), claim.mean);
    case 'median':
      return near(law.quantile(0.5), claim.median);
    case 'sd':
      return near(Math.sqrt(law.variance), claim.sd);
    case 'share':
      return Math.abs(shareOf(law, counted!) - claim.share) <= DUST;
    case 'normal':
    case 'outliers':
      return 'family' in base && base.family === 'normal' && mixed === null && step === null;
    default:
      if (id === 'correlation') return true;
      if (id === 'fisher') return Math.abs(shareOf(law, counted!) - shareOf(other, counted!)) <= DUST;
      if (id === 'f' || id === 'brown-forsythe') return near(law.variance / scale, other.variance / scale);
      if (id === 'mann-whitney')
        return near(law.quantile(0.5), other.quantile(0.5)) && near(law.variance / scale, other.variance / scale);
      return near(middle(law), middle(other));
  }
}

function claimWords({ about, id }: SimulatedTest, claim: Claim, { head }: PopulationSource): string {
  const scale = { ...head, as: 'reading' as const };
  switch (about) {
    case 'mean':
      return `the mean is ${toldFigure(claim.mean, scale)}`;
    case 'median':
      return `the median is ${toldFigure(claim.median, scale)}`;
    case 'sd':
      return `the sd is ${toldFigure(claim.sd, scale, 'spread')}`;
    case 'share':
      return `the share is ${formatPercent(claim.share)}`;
    case 'normal':
      return 'it is normal';
    case 'outliers':
      return 'it is normal, without anything far out';
    default:
      if (id === 'correlation') return 'nothing goes with the other';
      return id === 'f' || id === 'brown-forsythe'
        ? 'both spread alike'
        : id === 'fisher'
          ? 'both shares are alike'
          : 'both lie at the same place';
  }
}

function ofInterval(of: Of): Found | string {
  const { asked, source, groups, laws, counted } = of;
  const interval = simulatedInterval(asked.interval!);
  if (groups.some(({ n }) => n < interval.least))
    return `The ${interval.name} needs at least ${interval.least} readings.`;
  const truth = coveredTruth(interval.truth, laws, counted);
  if (truth === null) return 'This population has no such figure that an interval could cover.';
  const claim = truthOf(source.law, counted);
  const share = interval.truth === 'share' || interval.truth === 'difference-of-shares';
  if (share && laws.every((law) => [0, 1].includes(shareOf(law, counted!))))
    return 'Everything lies on one side of the limits: nothing would be counted.';
  const as = share ? 'share' : interval.truth === 'ratio-of-sds' ? 'ratio' : 'reading';
  const kind = interval.truth.startsWith('difference') ? 'difference' : interval.truth === 'sd' ? 'spread' : 'location';
  return {
    repeated: { what: 'interval', interval: interval.id, confidence: asked.confidence, claim },
    told: { unit: source.head.unit, resolution: source.head.resolution, as, kind },
    what: `the ${interval.name} at ${formatPercent(asked.confidence)} in ${sizesWords(groups)}`,
    truth,
    theory: null,
    ...{ holds: null, claim: '', cost: interval.cost },
  };
}

function coveredTruth(
  what: ReturnType<typeof simulatedInterval>['truth'],
  laws: readonly Law[],
  counted: Counted | null,
): number | null {
  const [a, b] = laws as [Law, Law];
  switch (what) {
    case 'mean':
      return finite(a.mean);
    case 'median':
      return a.quantile(0.5);
    case 'sd':
      return finite(Math.sqrt(a.variance));
    case 'share':
      return shareOf(a, counted!);
    case 'difference-of-means':
      return finite(a.mean - b.mean);
    case 'ratio-of-sds':
      return finite(Math.sqrt(a.variance / b.variance));
    case 'difference-of-shares':
      return shareOf(a, counted!) - shareOf(b, counted!);
  }
}

/** What the kernel is given. */
export const samplesOf = ({ groups, repeated }: Simulated, table: Float64Array | null): SimulatedSamples => ({
  groups,
  repeated: repeated.what === 'test' ? { ...repeated, table } : repeated,
});
