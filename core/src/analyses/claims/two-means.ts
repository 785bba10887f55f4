import { hasNoSpread, magnitudeOf } from '../../numeric/no-spread.js';
import { powerBySimulation, twoMeansModel } from '../../claims/simulated-power.js';
import { z } from 'zod';
import { pOfTails } from '../../claims/alternative.js';
import {
  equivalenceP,
  meanByT,
  meanInterval,
  pooled,
  welch,
  type MeanFigures,
  type TestOfMean,
} from '../../claims/means.js';
import type { ClaimDraws } from '../../claims/draws.js';
import { designOfOne, powerOfT, type TDesign } from '../../claims/power-of-t.js';
import { studentT } from '../../distributions/families/student-t.js';
import { formatPercentOf } from '../../numeric/format.js';
import { centralMoments } from '../../numeric/sums.js';
import { defineAnalysis, type SentencePart, type Unavailable } from '../../road/analysis.js';
import { unavailable } from '../../road/cautions.js';
import { choice, number } from '../../road/setting.js';
import { twoOf } from '../../road/two-of.js';
import type { Sample } from '../../readings/sample.js';
import { normalityLine, spreadsLine } from './assumptions.js';
import { curveOf } from './claim-law.js';
import type { Assumption, ClaimGroup, ClaimResult } from './claim-result.js';
import { margin, noticeable, ofInterval, typedFigures, ONE_SOURCE, oneSource as onlyOne } from './claim-settings.js';
import { claimResult, dotsOf, typedHead, type Head } from './claim-source.js';
import {
  freedomWords,
  formatClaim,
  formatDistance,
  formatQuantity,
  formatInterval,
  type Scale,
} from '../../road/formatted.js';
import { claimFinding } from './claim-words.js';
import { missedBy, signOf } from './one-column.js';
import { twoAlternative, twoBasis, twoSubject, twoWords } from './two-settings.js';
import { pairSource, twoSource } from './two-source.js';

const method = choice(
  'method',
  'test of two means',
  [
    { value: 'welch', text: 'Welch’s t test (unequal variances)' },
    { value: 'pooled', text: 'pooled t test (equal variances)' },
    { value: 'paired', text: 'paired t test' },
  ],
  'welch',
);
const claimed = number('claimed', 'claimed difference', {}, '0');

const request = z
  .strictObject({
    ...twoBasis,
    claimed: claimed.schema,
    margin: margin.schema,
    method: method.schema,
    /** Of both, typed in place of readings. */
    figures: z.tuple([typedFigures, typedFigures]).optional(),
  })
  .refine(onlyOne, ONE_SOURCE);
type Request = z.infer<typeof request>;

export const TWO_MEANS_CLAIM: readonly SentencePart[] = [
  'The difference between the means of ',
  { subject: true },
  ' is claimed to be ',
  claimed.field,
  '; alternative: ',
  twoAlternative.field,
  '.',
];
export const TWO_MEANS_METHOD: readonly SentencePart[] = [
  'Test: ',
  method.field,
  ', confidence interval at ',
  ofInterval.field,
  '. Smallest difference of interest: ',
  noticeable.field,
  '. Equivalence margin ±: ',
  margin.field,
  '.',
];

/** What is compared, readings or typed figures alike. */
interface Compared {
  names: [string, string];
  of: { name: string; by: string | null };
  figures: [MeanFigures, MeanFigures];
  samples: [Sample, Sample] | null;
  /** Of pairs. */
  differences: Float64Array | null;
  head: Head;
}

const figuresOf = (values: Float64Array): MeanFigures => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
};

function compared(sample: Sample, settings: Request): Compared | Unavailable {
  const { figures, method: by } = settings;
  if (figures) {
    if (by === 'paired')
      return unavailable(
        sample,
        'The paired t test needs readings, because typed figures do not hold the differences of the pairs.',
      );
    const low = figures.find(({ n }) => n < 2);
    if (low) return unavailable(sample, `n is ${low.n}; a t test needs at least 2 in each group.`);
    const head = typedHead(figures[0].n + figures[1].n);
    return {
      names: ['the first sample', 'the second sample'],
      of: { name: 'the readings', by: 'typed figures' },
      figures,
      samples: null,
      differences: null,
      head,
    };
  }
  const two = twoSource(sample, settings, { least: by === 'paired' ? 1 : 2, purpose: 'a t test' });
  if ('available' in two) return two;
  const base = {
    names: [two.a.name, two.b.name] as [string, string],
    of: two.of,
    samples: [two.a, two.b] as [Sample, Sample],
  };
  if (by !== 'paired')
    return { ...base, figures: [figuresOf(two.a.values), figuresOf(two.b.values)], differences: null, head: two.head };
  const pairs = pairSource(two, 2);
  if (typeof pairs === 'string') return unavailable(sample, pairs);
  const { first, second, differences, head } = pairs;
  if (hasNoSpread(differences, magnitudeOf(first, second)))
    return unavailable(sample, 'All differences of the pairs are equal; a t test needs differences that vary.');
  const samples: [Sample, Sample] = [
    { ...two.a, values: first },
    { ...two.b, values: second },
  ];
  return { ...base, samples, figures: [figuresOf(first), figuresOf(second)], differences, head };
}

function tested({ figures: [a, b], differences }: Compared, by: Request['method'], claim: number): TestOfMean {
  if (differences) return meanByT(figuresOf(differences), claim);
  return by === 'pooled' ? pooled(a, b, claim) : welch(a, b, claim);
}

/** The standard deviation for a standardised difference: that of the differences of pairs, else the pooled one. */
function commonSd({ figures: [a, b], differences }: Compared): number {
  if (differences) return figuresOf(differences).sd;
  return Math.sqrt(((a.n - 1) * a.sd ** 2 + (b.n - 1) * b.sd ** 2) / (a.n + b.n - 2));
}

/** Up to so many readings the power of Welch’s t is simulated; beyond, that of t with its degrees of freedom is within 0.03 of it. */
const MOST_SIMULATED = 100;

function powerOf(
  of: Compared,
  test: TestOfMean,
  sd: number,
  { alpha, alternative, noticeable: named, method: by }: Request,
) {
  const {
    figures: [a, b],
    differences,
  } = of;
  const n = differences ? differences.length : a.n + b.n;
  // Of other sizes in the same proportion: the standard error shrinks with the root.
  const design = (at: number): TDesign =>
    differences
      ? designOfOne(at)
      : { df: Math.max(1, test.df! * (at / n)), perSd: (sd / test.standardError) * Math.sqrt(at / n) };
  const byT = (at: number, d: number) => powerOfT(design(at), (signOf(alternative) * d) / sd, alpha, alternative);
  const simulates = by === 'welch' && n <= MOST_SIMULATED && a.sd > 0 && b.sd > 0;
  const simulated = powerBySimulation(twoMeansModel([a.n, b.n], [a.sd, b.sd], alpha, alternative), alpha);
  const chanceAt = (at: number, d: number) =>
    simulates && at <= MOST_SIMULATED ? simulated(at, signOf(alternative) * d) : byT(at, d);
  return missedBy({
    ...{ n, chanceAt, named, scale: sd, least: differences ? 2 : 4, per: differences ? 'pairs' : 'readings in total' },
    simulated: simulates,
    approximate: by === 'welch' && !simulates,
  });
}

function assumptionsOf({ samples, differences }: Compared, { alpha, method: by }: Request): Assumption[] {
  if (!samples) return [{ text: 'Normality: cannot be checked from typed figures.', holds: true, instead: '' }];
  const looked = differences
    ? [{ name: 'the differences', values: differences, resolution: samples[0].resolution }]
    : samples.map(({ name, values, resolution }) => ({ name, values, resolution }));
  const ranks = differences ? 'the signed rank test of the differences' : 'the Mann–Whitney test of two medians';
  const lines = [normalityLine(looked, { alpha, mean: true, instead: ranks })];
  if (differences) return lines;
  const instead = by === 'pooled' ? 'Welch’s t test' : '';
  const spreads = spreadsLine(
    samples.map(({ values }) => values),
    alpha,
    instead,
  );
  return [
    ...lines,
    ...spreads.map((line) =>
      by === 'welch' ? { ...line, text: `${line.text} Welch’s t test does not need it.`, holds: true } : line,
    ),
  ];
}

function groupsOf({ names, figures, samples }: Compared, confidence: number): ClaimGroup[] {
  return figures.map(({ n, mean, sd }, i) => ({
    ...{ name: names[i]!, n, centre: mean, sd },
    interval: sd > 0 ? meanInterval(mean, meanByT({ n, mean, sd }, 0), confidence, 'two-sided') : null,
    dots: samples ? dotsOf(samples[i]!.values) : [],
  }));
}

function measuredWords({ names: [a, b], figures }: Compared, difference: number, scale: Scale): string {
  const [first, second] = figures.map(({ mean }) => formatQuantity(mean, scale));
  const where =
    difference === 0 ? 'no difference' : `difference ${difference < 0 ? '−' : ''}${formatDistance(difference, scale)}`;
  return `Mean ${first} (${a}) and ${second} (${b}), ${where}`;
}

/** Two normals with the spreads that were found, their means the same. */
function drawsOf({ figures, differences }: Compared, by: Request['method']): ClaimDraws {
  if (by === 'paired') return { of: 'mean', n: differences!.length, known: false };
  return {
    of: 'two-means',
    sizes: figures.map(({ n }) => n),
    sds: by === 'pooled' ? [1, 1] : figures.map(({ sd }) => sd),
    method: by,
  };
}

function closenessOf(off: number, difference: number, test: TestOfMean, { margin: within, alpha }: Request) {
  if (within === undefined) return null;
  const pValue = equivalenceP(off, test, within);
  const interval = meanInterval(difference, test, 1 - 2 * Math.min(alpha, 0.4999), 'two-sided');
  return { margin: within, pValue, shown: pValue < alpha, interval };
}

/** Do the means of two groups differ. */
export const twoMeansAnalysis = defineAnalysis<Request, ClaimResult>({
  id: 'two-means',
  version: 2,
  name: 'Two means',
  title: 'do the means of two groups or of paired columns differ (Welch, pooled or paired t test)',
  needsReadings: false,
  request,
  method: [...TWO_MEANS_CLAIM, ' ', ...TWO_MEANS_METHOD],
  subject: (settings) => (settings.figures ? 'two typed samples' : twoSubject(settings)),
  resolve: (settings, sample) => {
    const found = settings.figures ? '' : twoOf(sample, settings);
    return typeof found === 'string' ? settings : { ...settings, first: found[0].name, second: found[1].name };
  },
  *run(asked, sample) {
    const settings = this.resolve(asked, sample);
    const of = compared(sample, settings);
    if ('available' in of) return of;
    const { alternative, confidence, alpha, claimed: claim = 0, method: by } = settings;
    const test = tested(of, by, claim);
    const sd = commonSd(of);
    if (!(test.standardError > 0))
      return unavailable(
        sample,
        of.differences
          ? 'All differences of the pairs are equal; a t test needs differences that vary.'
          : 'All readings within each group are equal; a t test needs readings that vary.',
      );
    const [a, b] = of.figures;
    const difference = of.differences ? figuresOf(of.differences).mean : a.mean - b.mean;
    const scale: Scale = { ...of.head, as: 'reading', error: test.standardError };
    const interval = meanInterval(difference, test, confidence, alternative);
    const law = studentT.of({ df: test.df!, location: 0, scale: 1 });
    return claimResult(of.head, settings, {
      ...twoWords('the mean', of.of, of.names, alternative, {
        difference: claim === 0 ? '' : formatClaim(claim, scale),
      }),
      ...{
        method: by,
        claimed: claim,
        estimate: difference,
        difference: difference - claim,
        standardised: (difference - claim) / sd,
      },
      ...{ symbol: 't', statistic: test.statistic, df: test.df, pValue: pOfTails(test.tails, alternative) },
      pMethod: by === 'welch' ? 'asymptotic' : 'exact',
      ...{ interval, intervalOf: 'the difference' },
      measured: `${measuredWords(of, difference, scale)}, ${formatPercentOf(confidence)} confidence interval ${formatInterval(interval, scale, 'difference')}`,
      ...powerOf(of, test, sd, settings),
      closeness: closenessOf(difference - claim, difference, test, settings),
      assumptions: assumptionsOf(of, settings),
      law: curveOf(law, {
        name: `t distribution with ${freedomWords(test.df!)}`,
        axis: 't',
        statistic: test.statistic,
        alternative,
        alpha,
      }),
      draws: drawsOf(of, by),
      groups: groupsOf(of, confidence),
    });
  },
  finding: claimFinding,
});
