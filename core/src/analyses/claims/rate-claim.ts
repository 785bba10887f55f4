import { z } from 'zod';
import { bothSidesFor, openEnd, type Alternative } from '../../claims/alternative.js';
import { powerOfRate, rateRegion } from '../../claims/power-of-shares.js';
import { rateInterval, rateP } from '../../claims/shares.js';
import { poisson } from '../../distributions/families/poisson.js';
import { formatPercentOf, formatValue, groupThousands } from '../../numeric/format.js';
import { plural } from '../../numeric/grammar.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Note, type SentencePart } from '../../road/analysis.js';
import { unavailable, whyEmpty } from '../../road/cautions.js';
import { oddCount } from '../../road/counted.js';
import { number } from '../../road/setting.js';
import { columnsOf } from './claim-law.js';
import type { Assumption, ClaimResult, LawPicture } from './claim-result.js';
import { alternative, claimBasis, noticeable, ofInterval, ONE_SOURCE, oneSource as onlyOne } from './claim-settings.js';
import { claimResult, headOf, typedHead, type Head } from './claim-source.js';
import { formatClaim, formatQuantity, formatInterval, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy, oneFigureWords, signOf } from './one-column.js';
import { greatestTie } from '../../numeric/ties.js';

const claimed = number('claimed', 'claimed rate', { above: 0 }, 'enter a value');
const EXPOSURE = 'The exposure (pieces, hours, square metres) must be a number above 0.';
const exposure = number('exposure', 'exposure of each count', { above: 0 }, '1');
const COUNT = 'The count must be a whole number from 0 to 10¹².';
const figures = z.strictObject({
  count: z.int(COUNT).min(0, COUNT).max(1e12, COUNT),
  exposure: z.number(EXPOSURE).positive(EXPOSURE).max(1e150, EXPOSURE),
});

const request = z
  .strictObject({
    ...claimBasis,
    figures: figures.optional(),
    claimed: claimed.schema,
    /** Of each count; 1 where it is not said. */
    exposure: exposure.schema,
    /** The column of the exposure of each count. */
    beside: z.array(claimBasis.column.unwrap()).length(1, 'Choose one column for the exposure.').optional(),
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

export const RATE_CLAIM: readonly SentencePart[] = [
  'The rate of ',
  { subject: true },
  ' is claimed to be ',
  claimed.field,
  ' per unit of exposure, with an exposure of ',
  exposure.field,
  ' for each count; alternative: ',
  alternative.field,
  '.',
];
export const RATE_METHOD: readonly SentencePart[] = [
  'Exact Poisson test, confidence interval at ',
  ofInterval.field,
  '. Smallest difference of interest: ',
  noticeable.field,
  '.',
];

interface Events {
  count: number;
  exposure: number;
  /** How many counts they were added up from; null where they were typed. */
  counts: number | null;
  /** The variance of the counts over their mean, where all have the same exposure. */
  dispersion: number | null;
  notes: Note[];
}

const sum = (values: ArrayLike<number>) => Array.from(values).reduce((a, b) => a + b, 0);

function dispersionOf(values: Float64Array): number | null {
  const mean = sum(values) / values.length;
  if (values.length < 2 || mean === 0) return null;
  const ratio = values.reduce((total, x) => total + (x - mean) ** 2, 0) / (values.length - 1) / mean;
  // Squares of huge counts are not held.
  return Number.isFinite(ratio) ? ratio : null;
}

/** The counts of a column, with the exposure of each from a second column, or the same for all. */
function eventsOf(sample: Sample, { exposure: each = 1 }: Request): Events | string {
  const [own, beside] = sample.groups && sample.groups.by === null ? sample.groups.samples : [sample];
  const { values, rows, name } = own!;
  if (values.length === 0) return whyEmpty(own!);
  const fault = oddCount(values, rows, name);
  if (fault) return fault;
  if (!beside) {
    return {
      count: sum(values),
      exposure: each * values.length,
      counts: values.length,
      dispersion: dispersionOf(values),
      notes: [],
    };
  }
  const odd = beside.values.findIndex((x) => !(x > 0));
  if (odd >= 0)
    return `Row ${beside.rows[odd]} of ${beside.name} holds ${beside.values[odd]}; an exposure must be above 0.`;
  const byRow = new Map(Array.from(beside.rows, (row, i) => [row, beside.values[i]!]));
  const kept = [...values.keys()].filter((i) => byRow.has(rows[i]!));
  const left = values.length - kept.length;
  const text = `${plural(left, 'count has', 'counts have')} no ${beside.name} and ${left === 1 ? 'is' : 'are'} left out.`;
  if (kept.length === 0) return `No count in ${name} has an exposure in ${beside.name}.`;
  return {
    count: sum(kept.map((i) => values[i]!)),
    exposure: sum(kept.map((i) => byRow.get(rows[i]!)!)),
    ...{ counts: kept.length, dispersion: null, notes: left ? [{ code: 'no-exposure', text }] : [] },
  };
}

function sourceOf(sample: Sample, settings: Request): { events: Events; head: Head } | string {
  const { figures: typed, column } = settings;
  if (typed) return { events: { ...typed, counts: null, dispersion: null, notes: [] }, head: typedHead(typed.count) };
  if (column === undefined) return 'Choose a column of counts, or type the count and its exposure.';
  const events = eventsOf(sample, settings);
  if (typeof events === 'string') return events;
  const head = headOf(sample);
  return { events, head: { ...head, n: events.counts!, notes: [...head.notes, ...events.notes] } };
}

function lawOf({ count, exposure: over }: Events, claim: number, of: Alternative, alpha: number): LawPicture {
  const mean = claim * over;
  const law = poisson.of({ mean });
  const limit = greatestTie(law.density(count));
  const counted = (k: number) => (of === 'less' ? k <= count : of === 'greater' ? k >= count : law.density(k) <= limit);
  const { low, high } = rateRegion(over, claim, alpha, of);
  return columnsOf(law, {
    ...{ name: `Poisson distribution with mean ${formatValue(mean)}`, axis: 'count' },
    ...{ statistic: count, alternative: of, alpha, ends: [0, Infinity], counted, p: rateP(count, over, claim, of) },
    critical: [...(low >= 0 ? [low] : []), high],
  });
}

const OVERDISPERSED = 1.5;

/** The variance of independent events equals their mean. */
function assumptionsOf({ dispersion, counts }: Events): Assumption[] {
  if (dispersion === null || counts! < 8)
    return [{ text: 'Independent events: cannot be checked here.', holds: true, instead: '' }];
  const holds = dispersion < OVERDISPERSED;
  const ratio = Number(dispersion.toPrecision(3));
  const text = `Independent events: ${holds ? 'supported' : 'not supported'} (the variance of the counts is ${ratio} times their mean).`;
  return [{ text, holds, instead: holds ? '' : 'a count distribution in Fit, because the interval here is too short' }];
}

function powerOf(over: number, claim: number, n: number, settings: Request) {
  const { alpha, alternative: of, noticeable: named } = settings;
  const sign = signOf(of);
  const typed = settings.figures !== undefined;
  const chanceAt = (at: number, d: number) => powerOfRate((over / n) * at, claim, claim + sign * d, alpha, of);
  return missedBy({
    ...{ n, chanceAt, named, scale: claim, least: 1, per: typed ? 'times this exposure' : 'counts with this exposure' },
    ...(typed ? { with: 'Over this exposure' } : {}),
    ...{ of: sign < 0 ? 'a rate lower by' : 'a rate higher by', ...(sign < 0 ? { most: claim } : {}) },
  });
}

/** Does a rate differ from a claimed value. */
export const rateClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'rate-claim',
  version: 2,
  name: 'Claim on a rate',
  title: 'does a rate of events differ from a claimed value (exact Poisson)',
  needsReadings: false,
  request,
  method: [...RATE_CLAIM, ' ', ...RATE_METHOD],
  subject: ({ column, beside }) =>
    column === undefined ? 'the typed count' : `${column}${beside ? ` over ${beside[0]}` : ''}`,
  resolve: (settings) => settings,
  *run(settings, sample) {
    const found = sourceOf(sample, settings);
    if (typeof found === 'string') return unavailable(sample, found);
    const { events, head } = found;
    const { claimed: claim, alternative: of, confidence, alpha } = settings;
    if (claim === undefined) return unavailable(sample, 'Enter the claimed rate.');
    const { count, exposure: over } = events;
    if (claim * over > 1e12)
      return unavailable(sample, 'Too many events are expected for the exact test. Choose a larger unit of exposure.');
    const rate = count / over;
    const interval = openEnd(rateInterval(count, over, bothSidesFor(confidence, of)), of);
    const scale: Scale = { ...head, as: 'rate' };
    const figure = `the rate of ${settings.column === undefined ? 'the typed count' : sample.name}`;
    return claimResult(head, settings, {
      ...oneFigureWords(figure, formatClaim(claim, scale), of),
      ...{ method: 'poisson', as: 'rate', claimed: claim, estimate: rate, difference: rate - claim },
      ...{ symbol: 'count', statistic: count, pValue: rateP(count, over, claim, of), pMethod: 'exact' },
      ...{ interval, intervalOf: 'the rate' },
      measured: `Observed rate ${formatQuantity(rate, scale)} (${plural(count, 'event')} over ${formatValue(over)}), ${formatPercentOf(confidence)} confidence interval ${formatInterval(interval, scale)}`,
      ...powerOf(over, claim, events.counts ?? 1, settings),
      assumptions: assumptionsOf(events),
      law: lawOf(events, claim, of, alpha),
      draws: { of: 'events', mean: claim * over },
      groups: [
        {
          name: sample.name || 'counted',
          n: head.n,
          centre: rate,
          sd: null,
          interval: openEnd(rateInterval(count, over, confidence), 'two-sided'),
          dots: [],
        },
      ],
      extras: [
        {
          key: 'count',
          name: 'events',
          value: `${groupThousands(count)} over ${formatValue(over)}`,
          as: 'count',
          meaning: 'The number of events, and the exposure.',
          formula: 'x over t',
        },
        {
          key: 'expected',
          name: 'expected events',
          value: formatValue(claim * over),
          as: 'count',
          meaning: 'The mean number of events if the claim is true.',
          formula: 'claimed rate × exposure',
        },
      ],
    });
  },
  finding: claimFinding,
});
