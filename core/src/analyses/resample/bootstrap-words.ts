import { USUAL_PERCENTILE, type StatisticId } from '../../road/statistic-settings.js';
import { quantileRank } from '../../describe/quantiles.js';
import { formatFigure, formatPercent, formatPercentOf, groupThousands } from '../../numeric/format.js';
import type { IntervalName, ResampledInterval } from '../../resampling/intervals.js';
import type { Note, Piece } from '../../road/analysis.js';
import { confidenceNote } from '../../road/cautions.js';
import { toldDistance, toldInterval, toldStatistic, type Told } from '../../road/told.js';
import type { BootstrapResult } from './bootstrap-result.js';
import { type Asked } from './resample-settings.js';

/** The intervals, as they follow "tell". */
export const INTERVAL_WORDS: Readonly<Record<IntervalName, string>> = {
  bca: 'the BCa',
  studentised: 'the studentised',
  percentile: 'the percentile',
  basic: 'the basic',
  standard: 'the ± z·SE',
  twoErrors: 'the ± 2·SE',
};
export const INTERVAL_NAMED: Readonly<Record<IntervalName, string>> = {
  bca: 'BCa',
  studentised: 'studentised',
  percentile: 'percentile',
  basic: 'basic',
  standard: '± z·SE',
  twoErrors: '± 2·SE',
};

/** Below it no bootstrap is reliable. */
export const LEAST_RELIABLE = 20;

const ends = (interval: ResampledInterval, result: Told) => toldInterval(interval, result, result.kind);

const ORDER = new Set<StatisticId>(['median', 'percentile', 'difference-of-medians', 'median-of-differences']);

/** Of a mean the studentised interval misses least: 5 % of lopsided samples of 20, BCa 9 % (`npm run calibrate -- resampling`). */
const MEANS = new Set<StatisticId>(['mean', 'difference-of-means', 'mean-of-differences']);

/** Which interval is recommended, and why. */
export function recommendedOf(
  statistic: StatisticId,
  groups: readonly Float64Array[],
  intervals: BootstrapResult['intervals'] | null,
): Pick<BootstrapResult, 'recommended' | 'why'> {
  const least = groups.reduce((fewest, { length }) => Math.min(fewest, length), Infinity);
  const few = least < LEAST_RELIABLE ? `, though with ${least} readings no bootstrap is reliable` : '';
  const usable = (name: IntervalName) => intervals !== null && intervals[name] !== null;
  if (ORDER.has(statistic))
    return {
      recommended: usable('percentile') ? 'percentile' : null,
      why: `of a value that is one of the readings the percentiles themselves do best${few}`,
    };
  if (MEANS.has(statistic) && (intervals === null || usable('studentised')))
    return {
      recommended: usable('studentised') ? 'studentised' : null,
      why: `each replicate is measured in its own standard error: of means it misses least, lopsided readings or not${few}`,
    };
  if (intervals === null || usable('bca'))
    return {
      recommended: usable('bca') ? 'bca' : null,
      why: `it makes up for what is lopsided and for bias${few}`,
    };
  return {
    recommended: usable('percentile') ? 'percentile' : null,
    why: `BCa cannot be had where all replicates lie on one side${few}`,
  };
}

/** What is known of a figure after so many replicates. */
export function bootstrapFinding(result: BootstrapResult): Piece[] {
  const { what, observed, replicates, wanted, standardError, main, intervals, confidence, why, times } = result;
  const lead = `${what[0]!.toUpperCase()}${what.slice(1)} is `;
  const scale = { ...result, error: standardError };
  const figure: Piece = { text: toldStatistic(observed, scale), strong: true, code: 'figure' };
  if (replicates === 0) return [{ text: lead }, figure, { text: '.' }];
  const drawn = `${groupThousands(replicates)} ${replicates === 1 ? 'replicate' : 'replicates'}`;
  if (standardError === null) return [{ text: lead }, figure, { text: `; one replicate has been drawn.` }];
  const error = toldDistance(standardError, scale);
  const plan = times > 1 ? ` with ${groupThousands(times)} times as many readings` : '';
  const known: Piece[] = [
    { text: lead },
    figure,
    { text: `, its standard error${plan} ` },
    { text: error, strong: true, code: 'figure' },
    { text: ` by ${drawn}${replicates < wanted ? ' so far' : ''}` },
  ];
  const interval = main && intervals[main];
  if (!interval) return [...known, { text: replicates < wanted ? '.' : '. More are needed for an interval.' }];
  const because = main === result.recommended ? `: ${why}` : '';
  return [
    ...known,
    { text: `; ${formatPercentOf(confidence)} interval ` },
    { text: ends(interval, scale), strong: true, code: 'interval' },
    { text: ` (${INTERVAL_NAMED[main]}${because}).` },
  ];
}

/** What the intervals say beside that of the finding, and what a formula says. */
export function besideWords({ formula, ...result }: BootstrapResult): string | null {
  if (!formula || result.main === null) return null;
  return `By formula (${formula.name}) it would be ${toldInterval(formula, { ...result, error: result.standardError }, result.kind)}.`;
}

/** An end that another seed would move by more than this part of the interval is not settled. */
const UNSETTLED = 0.02;

function unsettledNote(result: BootstrapResult): Note[] {
  const interval = result.main && result.intervals[result.main];
  if (!interval || interval.lowerError === null || interval.upperError === null) return [];
  const width = interval.upper - interval.lower;
  const loose = (['lower', 'upper'] as const).filter((end) => interval[`${end}Error`]! > UNSETTLED * width);
  if (loose.length === 0) return [];
  const told = (value: number) => toldDistance(value, result);
  const which = loose.map((end) => `the ${end} end by about ${told(interval[`${end}Error`]!)}`).join(', ');
  return [
    {
      code: 'unsettled-end',
      text: `Another seed would move ${which}: raise the replicates until that no longer matters.`,
    },
  ];
}

/** A percentile so near the edge that hardly any readings lie beyond it. */
function edgeNote({ statistic, percentile = USUAL_PERCENTILE }: Asked, { groups }: BootstrapResult): Note[] {
  if (statistic !== 'percentile') return [];
  const n = groups[0]!.n;
  const { at } = quantileRank(n, percentile, 7);
  const beyond = Math.min(at - 1, n - at);
  if (beyond >= 5) return [];
  const left = beyond === 0 ? 'No reading lies' : `Only ${beyond} ${beyond === 1 ? 'reading lies' : 'readings lie'}`;
  return [
    {
      code: 'edge',
      text: `${left} beyond ${formatPercent(percentile)}: redrawing never goes beyond the readings, so that it cannot tell how far such a value may lie. Fit a distribution, or ask for tolerance limits.`,
    },
  ];
}

const FEW_VALUES = 12;

function valuesNote(result: BootstrapResult): Note[] {
  const { different, resolution, replicates } = result;
  if (different === null || different > FEW_VALUES || replicates < 1_000) return [];
  const step =
    resolution === null || result.as === 'share'
      ? ''
      : ' Each may be moved by up to half a step of the resolution in the sentence below.';
  return [
    {
      code: 'few-values',
      text: `The replicates have only ${different} different ${different === 1 ? 'value' : 'values'}: readings tie, and the interval moves in jumps.${step}`,
    },
  ];
}

/** What a careful colleague would say. */
export function bootstrapNotes(result: BootstrapResult, asked: Asked & { interval: string }): Note[] {
  const { groups, undefined: none, replicates, times, confidence, standardError, bias } = result;
  const notes: Note[] = [...confidenceNote(confidence)];
  const few = groups.filter(({ n }) => n < LEAST_RELIABLE);
  if (few.length > 0) {
    const who = few.map(({ name, n }) => (groups.length > 1 ? `${n} of ${name}` : `${n}`)).join(' and ');
    const text = `With ${who} ${few.length === 1 && few[0]!.n === 1 ? 'reading' : 'readings'} no bootstrap is reliable: its intervals come out too narrow. Take it as a picture of what these readings say.`;
    notes.push({ code: 'small-n', text });
  }
  notes.push(...edgeNote(asked, result), ...valuesNote(result), ...unsettledNote(result));
  if (none > 0) {
    const text = `${groupThousands(none)} of ${groupThousands(replicates)} replicates have no such figure, since all their readings were alike or there was 0 to divide by: left out.`;
    notes.push({ code: 'undefined-replicates', text });
  }
  if (standardError !== null && bias !== null && replicates >= 1_000 && Math.abs(bias) > 0.25 * standardError) {
    const share = formatFigure(Math.abs(bias) / standardError, 'statistic');
    const text = `The replicates lie ${bias > 0 ? 'above' : 'below'} what was found by ${share} standard errors: the figure itself is likely to be off that way.`;
    notes.push({ code: 'bias', text });
  }
  if (times > 1)
    notes.push({
      code: 'planned',
      text: `Drawn at ${groupThousands(times)} times the size: this tells what such a sample would give, not how sure these readings are.`,
    });
  if (
    asked.interval !== 'recommended' &&
    result.intervals[asked.interval as IntervalName] === null &&
    replicates >= 1_000
  )
    notes.push({
      code: 'no-such-interval',
      text: `There is no ${INTERVAL_NAMED[asked.interval as IntervalName]} interval of ${result.what}: the recommended one is told.`,
    });
  return notes;
}
