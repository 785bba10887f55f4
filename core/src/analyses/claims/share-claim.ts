import { z } from 'zod';
import { bothSidesFor, openEnd, type Alternative } from '../../claims/alternative.js';
import { powerOfShare, shareRegion } from '../../claims/power-of-shares.js';
import { shareP, wilson } from '../../claims/shares.js';
import { binomial } from '../../distributions/families/binomial.js';
import { clopperPearson } from '../../numeric/clopper-pearson.js';
import { formatPercentOf, groupThousands } from '../../numeric/format.js';
import { NO_READINGS } from '../../readings/sample.js';
import { defineAnalysis, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { choice } from '../../road/setting.js';
import { columnsOf } from './claim-law.js';
import type { ClaimExtra, ClaimResult, LawPicture } from './claim-result.js';
import { alternative, claimBasis, ofInterval, ONE_SOURCE, oneSource as onlyOne, typedN } from './claim-settings.js';
import { claimResult, headOf, typedHead, type Head } from './claim-source.js';
import { formatClaim, formatInterval, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy, oneFigureWords, signOf } from './one-column.js';
import { claimedShare, noticeableShare, ofResolved, shareBasis, SHARE_PARTS } from './share-settings.js';
import { countedOf, type Counted } from './share-source.js';
import { greatestTie } from '../../numeric/ties.js';

const method = choice(
  'method',
  'type of interval',
  [
    { value: 'wilson', text: 'Wilson' },
    { value: 'clopper-pearson', text: 'Clopper–Pearson (exact)' },
  ],
  'wilson',
);
const COUNT = 'The count must be a whole number of at least 0.';
const figures = z.strictObject({ count: z.int(COUNT).min(0, COUNT), n: typedN }).refine(({ count, n }) => count <= n, {
  message: 'The count is larger than n. Check whether the two are swapped.',
  path: ['count'],
});

const request = z
  .strictObject({
    ...claimBasis,
    noticeable: noticeableShare.schema,
    ...shareBasis,
    figures: figures.optional(),
    claimed: claimedShare.schema,
    method: method.schema,
    /** The column that tells the trials of each count. */
    beside: z.array(claimBasis.column.unwrap()).length(1, 'Choose one column for the trials.').optional(),
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

export const SHARE_CLAIM: readonly SentencePart[] = [
  'The proportion of ',
  { subject: true },
  ' ',
  ...SHARE_PARTS,
  ' is claimed to be ',
  claimedShare.field,
  '; alternative: ',
  alternative.field,
  '.',
];
export const SHARE_METHOD: readonly SentencePart[] = [
  'Exact binomial test, confidence interval by ',
  method.field,
  ' at ',
  ofInterval.field,
  '. Smallest difference of interest: ',
  noticeableShare.field,
  '.',
];

/** The count, its total, and their source. */
function sourceOf(sample: Parameters<typeof headOf>[0], settings: Request): { counted: Counted; head: Head } | string {
  const { figures: typed, column } = settings;
  if (typed) {
    const counted = { ...typed, what: 'counted', notes: [] };
    return { counted, head: typedHead(typed.n) };
  }
  if (column === undefined) return 'Choose a column, or type a count and its total.';
  const counted = countedOf(sample, settings);
  if (typeof counted === 'string') return counted;
  if (counted.n === 0) return 'There are no trials.';
  // Readings beyond a limit count here, or are refused: they are not left out.
  const head = headOf(sample);
  const notes = head.notes.filter(({ code }) => code !== 'beyond-limit');
  return { counted, head: { ...head, n: counted.n, notes: [...notes, ...counted.notes] } };
}

function lawOf(count: number, n: number, claim: number, of: Alternative, alpha: number): LawPicture | null {
  if (claim === 0 || claim === 1) return null;
  const law = binomial.of({ trials: n, probability: claim });
  const limit = greatestTie(law.density(count));
  const counted = (k: number) => (of === 'less' ? k <= count : of === 'greater' ? k >= count : law.density(k) <= limit);
  const { low, high } = shareRegion(n, claim, alpha, of);
  return columnsOf(law, {
    ...{
      name: `binomial distribution with ${groupThousands(n)} trials and probability ${formatPercentOf(claim)}`,
      axis: 'count',
    },
    ...{ statistic: count, alternative: of, alpha, ends: [0, n], counted, p: shareP(count, n, claim, of) },
    critical: [...(low >= 0 ? [low] : []), ...(high <= n ? [high] : [])],
  });
}

function powerOf(n: number, claim: number, { alpha, alternative: of, noticeable: named }: Request) {
  const toward = of === 'two-sided' ? (claim <= 0.5 ? 1 : -1) : signOf(of);
  const most = toward > 0 ? 1 - claim : claim;
  if (!(most > 0)) return {};
  const chanceAt = (at: number, d: number) =>
    powerOfShare(at, claim, Math.min(1, Math.max(0, claim + toward * Math.min(d, most))), alpha, of);
  const found = missedBy({
    n,
    chanceAt,
    named: named === undefined ? undefined : Math.min(named, most),
    scale: most / 16,
    most,
    least: 1,
    followed: 400,
  });
  return { ...found, power: { ...found.power, of: toward > 0 ? 'a proportion higher by' : 'a proportion lower by' } };
}

function extrasOf({ count, n }: Counted, confidence: number): ClaimExtra[] {
  return [
    {
      key: 'count',
      name: 'counted',
      value: `${groupThousands(count)} of ${groupThousands(n)}`,
      as: 'count',
      meaning: 'The count and the total.',
      formula: 'x/n',
    },
    {
      key: 'wilson',
      name: 'Wilson interval',
      value: wilson(count, n, confidence),
      as: 'share',
      meaning: 'Contains the true proportion with about this confidence on average over samples.',
      formula: 'Wilson (1927)',
    },
    {
      key: 'clopper-pearson',
      name: 'Clopper–Pearson interval',
      value: clopperPearson(count, n, confidence),
      as: 'share',
      meaning: 'Contains the true proportion with at least this confidence; it tends to be longer.',
      formula: 'Clopper and Pearson (1934)',
    },
  ];
}

/** Does a proportion differ from a claimed value. */
export const shareClaimAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'share-claim',
  version: 3,
  name: 'Claim on a proportion',
  title: 'does a proportion (outside limits, of a label, of trials) differ from a claimed value (exact binomial)',
  needsReadings: false,
  takesLabels: true,
  request,
  method: [...SHARE_CLAIM, ' ', ...SHARE_METHOD],
  subject: ({ column, level: one, beside }) =>
    column === undefined
      ? 'the typed count'
      : `${column}${one === undefined ? '' : ` “${one}”`}${beside ? ` (out of ${beside[0]})` : ''}`,
  resolve: (settings, sample) => ({ ...settings, of: ofResolved(settings, sample) }),
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const found = sourceOf(sample, settings);
    if (typeof found === 'string') return unavailable(sample, found);
    const { counted, head } = found;
    const { claimed: claim, alternative: of, confidence, alpha, method: by } = settings;
    if (claim === undefined)
      return unavailable(settings.figures ? NO_READINGS : sample, 'Enter the claimed proportion.');
    const { count, n, what } = counted;
    const both = bothSidesFor(confidence, of);
    const interval = openEnd((by === 'wilson' ? wilson : clopperPearson)(count, n, both), of);
    const share = count / n;
    const scale: Scale = { ...head, as: 'share' };
    const figure = `the proportion ${settings.column === undefined ? 'counted' : sample.levels ? `of “${what}” in ${sample.name}` : `of ${sample.name} ${what === sample.name ? 'in the trials' : what}`}`;
    return claimResult(head, settings, {
      ...oneFigureWords(figure, formatClaim(claim, scale), of),
      ...{ method: by, as: 'share', claimed: claim, estimate: share, difference: share - claim },
      ...{ symbol: 'count', statistic: count, pValue: shareP(count, n, claim, of), pMethod: 'exact' },
      ...{ interval, intervalOf: 'the proportion' },
      measured: `Observed proportion ${formatPercentOf(share, 1 - share, 3)} (${groupThousands(count)} of ${groupThousands(n)}), ${formatPercentOf(confidence)} confidence interval ${formatInterval(interval, scale)}`,
      ...powerOf(n, claim, settings),
      assumptions: [
        {
          text: 'Independent readings: the exact binomial test assumes nothing else.',
          holds: true,
          instead: '',
        },
      ],
      law: lawOf(count, n, claim, of, alpha),
      draws: claim > 0 && claim < 1 ? { of: 'count', n, share: claim } : null,
      groups: [
        {
          name: sample.name || 'counted',
          n,
          centre: share,
          sd: null,
          interval: openEnd(wilson(count, n, confidence), 'two-sided'),
          dots: [],
        },
      ],
      extras: extrasOf(counted, confidence),
    });
  },
  finding: claimFinding,
});
