import { differenceByTest } from '../../claims/difference-of-shares.js';
import { exactPowerOfTwoShares, MOST_SUMMED } from '../../claims/power-of-two-shares.js';
import { sizesOf } from '../../claims/simulated-power.js';
import { z } from 'zod';
import { openEnd } from '../../claims/alternative.js';
import { powerOfTwoShares } from '../../claims/power-of-shares.js';
import { oddsRatio, riskRatio, type Ratio } from '../../claims/risks.js';
import { fisherP, newcombe, wilson } from '../../claims/shares.js';
import { hypergeometric } from '../../distributions/families/hypergeometric.js';
import { formatPercentOf, groupThousands } from '../../numeric/format.js';
import type { Sample } from '../../readings/sample.js';
import { defineAnalysis, type Note, type SentencePart } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { twoOf } from '../../road/two-of.js';
import { columnsOf } from './claim-law.js';
import type { ClaimExtra, ClaimResult, LawPicture } from './claim-result.js';
import { ofInterval, typedN, ONE_SOURCE, oneSource as onlyOne } from './claim-settings.js';
import { claimResult, typedHead, type Head } from './claim-source.js';
import { formatDistance, formatInterval, type Scale } from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy, signOf } from './one-column.js';
import { noticeableShare, ofResolved, shareBasis, SHARE_PARTS } from './share-settings.js';
import { countedOf } from './share-source.js';
import { twoAlternative, twoBasis, twoSubject, twoWords } from './two-settings.js';
import { greatestTie } from '../../numeric/ties.js';

const COUNT = 'The count must be a whole number of at least 0.';
const typed = z.strictObject({ count: z.int(COUNT).min(0, COUNT), n: typedN }).refine(({ count, n }) => count <= n, {
  message: 'The count is larger than n. Check whether the two are swapped.',
  path: ['count'],
});

const request = z
  .strictObject({
    ...twoBasis,
    ...shareBasis,
    noticeable: noticeableShare.schema,
    figures: z.tuple([typed, typed]).optional(),
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

export const TWO_SHARES_CLAIM: readonly SentencePart[] = [
  'The proportions of ',
  { subject: true },
  ' ',
  ...SHARE_PARTS,
  ' are claimed to be the same; alternative: ',
  twoAlternative.field,
  '.',
];
export const TWO_SHARES_METHOD: readonly SentencePart[] = [
  'Fisher’s exact test, confidence interval of the difference at ',
  ofInterval.field,
  '. Smallest difference of interest: ',
  noticeableShare.field,
  '.',
];

interface Share {
  name: string;
  count: number;
  n: number;
}

interface Compared {
  two: [Share, Share];
  of: { name: string; by: string | null };
  what: string;
  head: Head;
}

function compared(sample: Sample, settings: Request): Compared | string {
  const { figures, column } = settings;
  if (figures) {
    const two = figures.map((one, i) => ({ ...one, name: i === 0 ? 'the first sample' : 'the second sample' })) as [
      Share,
      Share,
    ];
    return {
      two,
      of: { name: 'the typed counts', by: 'typed figures' },
      what: '',
      head: typedHead(two[0].n + two[1].n),
    };
  }
  if (column === undefined || !sample.groups) return 'Choose a label column to split by, or a second column.';
  if (settings.of === 'counts' && sample.groups.by === null)
    return 'For two columns of counts the number of trials must be the same for all. Enter it.';
  const parts = twoOf(sample, settings);
  if (typeof parts === 'string') return parts;
  const shares: Share[] = [];
  const notes: Note[] = [];
  let what = '';
  for (const part of parts) {
    const counted = countedOf(part, settings);
    if (typeof counted === 'string') return counted;
    if (counted.n === 0) return `${part.name} has no trials.`;
    shares.push({ name: part.name, count: counted.count, n: counted.n });
    notes.push(...counted.notes);
    what = counted.what;
  }
  const [a, b] = parts;
  const head: Head = {
    ...{
      typed: false,
      n: shares[0]!.n + shares[1]!.n,
      missing: a.missing + b.missing,
      setAside: a.setAside + b.setAside,
    },
    ...{ unit: a.unit, resolution: a.resolution, notes },
  };
  return { two: shares as [Share, Share], of: { name: sample.name, by: sample.groups.by }, what, head };
}

function lawOf([a, b]: [Share, Share], { alternative: of, alpha }: Request): LawPicture | null {
  const [population, successes] = [a.n + b.n, a.count + b.count];
  if (successes === 0 || successes === population || population > 1e9) return null;
  const law = hypergeometric.of({ population, successes, draws: a.n });
  const limit = greatestTie(law.density(a.count));
  const counted = (k: number) =>
    of === 'less' ? k <= a.count : of === 'greater' ? k >= a.count : law.density(k) <= limit;
  return columnsOf(law, {
    ...{
      name: `hypergeometric distribution of the count in ${a.name}`,
      axis: `count in ${a.name}`,
      statistic: a.count,
      alternative: of,
      alpha,
    },
    ...{
      ends: [Math.max(0, successes - b.n), Math.min(a.n, successes)],
      counted,
      critical: [],
      p: fisherP(
        [
          [a.count, a.n - a.count],
          [b.count, b.n - b.count],
        ],
        of,
      ),
    },
  });
}

const ratioExtra = (key: string, name: string, meaning: string, formula: string, ratio: Ratio | null): ClaimExtra[] =>
  ratio
    ? [
        { key, name, meaning, formula, value: ratio.value, as: 'ratio' },
        {
          key: `${key}-interval`,
          name: `interval of the ${name}`,
          meaning: 'The range that contains the true ratio, at this confidence level.',
          formula: 'normal approximation of its logarithm',
          value: ratio.interval,
          as: 'ratio',
        },
      ]
    : [];

function extrasOf([a, b]: [Share, Share], confidence: number): ClaimExtra[] {
  return [
    {
      key: 'newcombe',
      name: 'Newcombe interval',
      value: newcombe(a, b, confidence),
      as: 'share',
      meaning:
        'Interval of the difference from the Wilson intervals of the two proportions. It is shorter, but may disagree with the test.',
      formula: 'Newcombe (1998), method 10',
    },
    ...ratioExtra(
      'risk-ratio',
      'ratio of the proportions',
      'The proportion in the first group divided by that in the second.',
      'p₁/p₂ (Katz and others 1978)',
      riskRatio(a, b, confidence),
    ),
    ...ratioExtra(
      'odds-ratio',
      'odds ratio',
      'The odds in the first group divided by those in the second.',
      'p₁(1 − p₂)/(p₂(1 − p₁)) (Woolf 1955)',
      oddsRatio(a, b, confidence),
    ),
  ];
}

function powerOf([a, b]: [Share, Share], { alpha, alternative, noticeable: named }: Request) {
  const n = a.n + b.n;
  const common = (a.count + b.count) / n;
  const sign = alternative === 'two-sided' ? (common <= 0.5 ? 1 : -1) : signOf(alternative);
  const most = sign > 0 ? 1 - common : common;
  if (!(most > 0)) return {};
  const exact = exactPowerOfTwoShares(alpha, alternative);
  const chanceAt = (at: number, d: number) => {
    const sizes = sizesOf([a.n, b.n], at, 1) as [number, number];
    const shares = [Math.min(1, Math.max(0, common + sign * d)), common] as const;
    return Math.max(...sizes) <= MOST_SUMMED
      ? exact(sizes, shares)
      : powerOfTwoShares(sizes, shares, alpha, alternative);
  };
  const summed = Math.max(a.n, b.n) <= MOST_SUMMED;
  return missedBy({
    n,
    chanceAt,
    named: named === undefined ? undefined : Math.min(named, most),
    scale: most / 16,
    most,
    least: 2,
    per: 'in total',
    simulated: summed,
    followed: summed ? 24 : 0,
    approximate: !summed,
  });
}

/** Do the proportions of two groups differ. */
export const twoSharesAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'two-shares',
  version: 3,
  name: 'Two proportions',
  title: 'do the proportions of two groups differ (Fisher’s exact test; exact interval of the difference, ratios)',
  needsReadings: false,
  takesLabels: true,
  request,
  method: [...TWO_SHARES_CLAIM, ' ', ...TWO_SHARES_METHOD],
  subject: (settings) =>
    settings.figures
      ? 'two typed samples'
      : `${twoSubject(settings)}${settings.level === undefined ? '' : ` “${settings.level}”`}`,
  resolve: (settings, sample) => {
    const found = settings.figures ? '' : twoOf(sample, settings);
    const own = { ...settings, of: ofResolved(settings, sample) };
    return typeof found === 'string' ? own : { ...own, first: found[0].name, second: found[1].name };
  },
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const found = compared(sample, settings);
    if (typeof found === 'string') return unavailable(sample, found);
    const { two, of, what, head } = found;
    const [a, b] = two;
    if (head.n > 1e9) return unavailable(sample, 'The exact test takes at most 10⁹ in total.');
    const { alternative, confidence } = settings;
    const [p, q] = [a.count / a.n, b.count / b.n];
    const { interval: ends, inverted } = differenceByTest(a, b, confidence, alternative);
    const interval = openEnd(ends, alternative);
    const scale: Scale = { ...head, as: 'share' };
    const told = ({ count, n }: Share) =>
      `${formatPercentOf(count / n, 1 - count / n, 3)} (${groupThousands(count)} of ${groupThousands(n)})`;
    const where = p === q ? 'no difference' : `difference ${p < q ? '−' : ''}${formatDistance(p - q, scale)}`;
    return claimResult(head, settings, {
      ...twoWords('the proportion', of, [a.name, b.name], alternative, { what }),
      ...{ method: 'fisher', as: 'share', claimed: 0, estimate: p - q, difference: p - q },
      ...{ symbol: 'count', statistic: a.count, pMethod: 'exact' },
      pValue: fisherP(
        [
          [a.count, a.n - a.count],
          [b.count, b.n - b.count],
        ],
        alternative,
      ),
      ...{ interval, intervalOf: 'the difference' },
      measured: `Observed ${told(a)} and ${told(b)}, ${where}, ${formatPercentOf(confidence)} confidence interval ${formatInterval(interval, scale, 'difference')}${inverted ? '' : ' (Newcombe)'}`,
      ...powerOf(two, settings),
      assumptions: [
        {
          text: 'Independent readings: Fisher’s exact test assumes nothing else.',
          holds: true,
          instead: '',
        },
      ],
      law: lawOf(two, settings),
      groups: two.map(({ name, count, n }) => ({
        ...{ name, n, centre: count / n, sd: null, dots: [] },
        interval: openEnd(wilson(count, n, confidence), 'two-sided'),
      })),
      extras: extrasOf(two, confidence),
    });
  },
  finding: claimFinding,
});
