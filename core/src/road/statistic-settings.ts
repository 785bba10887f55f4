import type { z } from 'zod';
import { namesFor, readFiguresFormula } from '../resampling/formula.js';
import type { Condition, SentencePart } from './analysis.js';
import { choice, number, share, words } from './setting.js';
import { quantileTypeSetting } from './settings.js';

/** What can be looked at in samples: redrawn, shuffled or simulated. */
export const STATISTIC_IDS = [
  'mean',
  'median',
  'trimmed-mean',
  'percentile',
  'sd',
  'variance',
  'cv',
  'skewness',
  'share',
  'difference-of-means',
  'difference-of-medians',
  'difference-of-shares',
  'log-ratio-of-sds',
  'mean-of-differences',
  'median-of-differences',
  'correlation',
  'slope',
  'f',
  'largest-difference',
  'formula',
] as const;
export type StatisticId = (typeof STATISTIC_IDS)[number];

type Group = 'one column' | 'two groups' | 'pairs of two columns' | 'several groups' | 'a formula';

export interface StatisticFacts {
  /** After "look at": "the mean". */
  word: string;
  group: Group;
}

export const STATISTIC_FACTS: Readonly<Record<StatisticId, StatisticFacts>> = {
  mean: { word: 'the mean', group: 'one column' },
  median: { word: 'the median', group: 'one column' },
  'trimmed-mean': { word: 'the trimmed mean', group: 'one column' },
  percentile: { word: 'a percentile', group: 'one column' },
  sd: { word: 'the standard deviation', group: 'one column' },
  variance: { word: 'the variance', group: 'one column' },
  cv: { word: 'the coefficient of variation', group: 'one column' },
  skewness: { word: 'the skewness', group: 'one column' },
  share: { word: 'the proportion', group: 'one column' },
  'difference-of-means': { word: 'the difference between the means', group: 'two groups' },
  'difference-of-medians': { word: 'the difference between the medians', group: 'two groups' },
  'difference-of-shares': { word: 'the difference between the proportions', group: 'two groups' },
  'log-ratio-of-sds': { word: 'the log ratio of the standard deviations', group: 'two groups' },
  'mean-of-differences': { word: 'the mean of the differences', group: 'pairs of two columns' },
  'median-of-differences': { word: 'the median of the differences', group: 'pairs of two columns' },
  correlation: { word: 'the correlation', group: 'pairs of two columns' },
  slope: { word: 'the slope', group: 'pairs of two columns' },
  f: { word: 'F for the means', group: 'several groups' },
  'largest-difference': { word: 'the largest difference between means', group: 'several groups' },
  formula: { word: 'a formula', group: 'a formula' },
};

/** The statistic, as a word of the sentence. */
export const statistic = choice<StatisticId>(
  'statistic',
  'statistic',
  STATISTIC_IDS.map((value) => ({ value, text: STATISTIC_FACTS[value].word })),
  'mean',
);
export const trim = choice(
  'trim',
  'proportion trimmed at each end',
  [
    { value: '0.1', text: '10 %' },
    { value: '0.2', text: '20 %' },
  ],
  '0.1',
);
export const percentile = share('percentile', 'percentile', { min: 0, max: 1 }, '90 %');
export const of = choice(
  'of',
  'what is counted',
  [
    { value: 'outside', text: 'outside the limits' },
    { value: 'within', text: 'within the limits' },
  ],
  'outside',
);
export const lower = number('lower', 'lower limit', {}, 'none');
export const upper = number('upper', 'upper limit', {}, 'none');
export const formula = words('formula', 'formula', 'enter a formula');

/** What each of them is asked with besides. */
export const statisticShape = {
  trim: trim.schema,
  percentile: percentile.schema,
  quantileType: quantileTypeSetting,
  of: of.schema,
  lower: lower.schema,
  upper: upper.schema,
  formula: formula.schema,
};

/** Of a request, what says which statistic is looked at. */
export interface StatisticAsked {
  statistic: StatisticId;
  trim: '0.1' | '0.2';
  percentile?: number | undefined;
  quantileType: z.infer<typeof quantileTypeSetting>;
  of: 'outside' | 'within';
  lower?: number | undefined;
  upper?: number | undefined;
  level?: string | undefined;
  formula?: string | undefined;
  /** Counts that are typed, in place of readings. */
  figures?: readonly unknown[] | undefined;
}

export const USUAL_PERCENTILE = 0.9;

/** A formula that can be read, over one group or over two. */
export const readable = ({
  statistic: asked,
  formula: written,
}: Pick<StatisticAsked, 'statistic' | 'formula'>): boolean =>
  asked !== 'formula' || written === undefined || formulaProblem(written) === null;
export const READABLE = {
  message: `A formula may use ${namesFor(1, false).join(', ')}. For two groups, add 1 or 2 (mean1). For pairs, correlation and slope are available too.`,
  path: ['formula'],
};

/** What is wrong with a formula, whatever it is over; null where it can be read. */
export function formulaProblem(written: string): string | null {
  const read = [1, 2].map((groups) => readFiguresFormula(written, groups, groups === 2));
  const fault = read.find((one) => 'problem' in one);
  return read.every((one) => 'problem' in one) && fault && 'problem' in fault ? fault.problem : null;
}

const when = (is: StatisticId | readonly StatisticId[]): Condition => ({ field: 'statistic', is });
const SHARES = when(['share', 'difference-of-shares']);
/** Limits have a meaning where there are readings to be counted within them. */
const LIMITS: readonly Condition[] = [
  SHARES,
  { field: 'level', is: 'undefined' },
  { field: 'figures', is: 'undefined' },
];

/** What follows the statistic: "the trimmed mean, 10 % trimmed at each end", "the proportion outside (lower: 7.7, upper: 8.3)". */
export const STATISTIC_REST: readonly SentencePart[] = [
  { text: ', ', showWhen: when('trimmed-mean') },
  { ...trim.field, showWhen: when('trimmed-mean') },
  { text: ' trimmed at each end', showWhen: when('trimmed-mean') },
  { text: ', ', showWhen: when('percentile') },
  { ...percentile.field, showWhen: when('percentile') },
  { text: '', showWhen: when('percentile') },
  { text: ' ', showWhen: LIMITS },
  { ...of.field, showWhen: LIMITS },
  { text: ' (lower: ', showWhen: LIMITS },
  { ...lower.field, showWhen: LIMITS },
  { text: ', upper: ', showWhen: LIMITS },
  { ...upper.field, showWhen: LIMITS },
  { text: ')', showWhen: LIMITS },
  { text: ', ', showWhen: when('formula') },
  { ...formula.field, showWhen: when('formula') },
];
