import { z } from 'zod';
import { namesFor, readFiguresFormula } from '../../resampling/formula.js';
import type { Condition, SentencePart } from '../../road/analysis.js';
import { anyConfidence, choice, number, seed, share, words } from '../../road/setting.js';
import { alphaSetting, columnSetting, quantileTypeSetting } from '../../road/settings.js';
import { partName } from '../../road/two-of.js';
import { STATISTIC_FACTS, STATISTIC_IDS, type StatisticId } from './looked-at.js';

/** The statistic, as a word of the sentence. */
export const statistic = choice<StatisticId>(
  'statistic',
  'what is looked at',
  STATISTIC_IDS.map((value) => ({ value, text: STATISTIC_FACTS[value].word })),
  'mean',
);
export const trim = choice(
  'trim',
  'share cut off at either end',
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
const LEVEL = 'A level is named by its label.';
const level = z.string(LEVEL).min(1, LEVEL).max(1_000, LEVEL).optional();
export const formula = words('formula', 'formula over the figures', 'not written yet');
export const seedOf = seed('seed of the draws');
export const confidence = anyConfidence('confidence of the intervals');

const COUNT = 'A count is a whole number from 0 on.';
const MOST_TYPED = 100_000;
const N = `The number it is out of is whole, from 1 to ${MOST_TYPED}: each of them is drawn by itself.`;
/** So many of so many, as they are typed. */
export const counted = z
  .strictObject({ count: z.int(COUNT).min(0, COUNT), n: z.int(N).min(1, N).max(MOST_TYPED, N) })
  .refine(({ count, n }) => count <= n, {
    message: 'There are more counted than there are altogether.',
    path: ['count'],
  });
export type Typed = z.infer<typeof counted>;

/** What both redrawing and shuffling are asked with. */
export const resampleBasis = {
  column: columnSetting.optional(),
  split: columnSetting.optional(),
  beside: z.array(columnSetting).min(1).max(199, 'At most 200 columns are compared.').optional(),
  first: partName,
  second: partName,
  /** Counts that are typed, in place of readings: one, or two. */
  figures: z.array(counted).min(1, 'One count, or two.').max(2, 'One count, or two.').optional(),
  statistic: statistic.schema,
  trim: trim.schema,
  percentile: percentile.schema,
  quantileType: quantileTypeSetting,
  of: of.schema,
  lower: lower.schema,
  upper: upper.schema,
  level,
  formula: formula.schema,
  seed: seedOf.schema,
  alpha: alphaSetting,
};

/** Of a request, what says which statistic of which readings. */
export interface Asked {
  column?: string | undefined;
  split?: string | undefined;
  beside?: string[] | undefined;
  first?: string | undefined;
  second?: string | undefined;
  figures?: Typed[] | undefined;
  statistic: StatisticId;
  trim: '0.1' | '0.2';
  percentile?: number | undefined;
  quantileType: z.infer<typeof quantileTypeSetting>;
  of: 'outside' | 'within';
  lower?: number | undefined;
  upper?: number | undefined;
  level?: string | undefined;
  formula?: string | undefined;
}

export const USUAL_PERCENTILE = 0.9;

/** Readings or typed counts, never both. */
export const oneSource = ({ column, figures }: Asked): boolean => column === undefined || figures === undefined;
export const ONE_SOURCE = {
  message: 'Counts are typed in place of a column: leave one of the two out.',
  path: ['figures'],
};

/** A formula that can be read, over one group or over two. */
export const readable = ({ statistic: asked, formula: written }: Asked): boolean =>
  asked !== 'formula' || written === undefined || formulaProblem(written) === null;
export const READABLE = {
  message: `A formula is written over figures: ${namesFor(1, false).join(', ')}; of two groups with 1 or 2 behind (mean1), of pairs correlation and slope too.`,
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

/** "the trimmed mean, 10 % cut off at either end", "the share outside the limits 7.7 and 8.3". */
export const STATISTIC_PARTS: readonly SentencePart[] = [
  statistic.field,
  { text: ', ', showWhen: when('trimmed-mean') },
  { ...trim.field, showWhen: when('trimmed-mean') },
  { text: ' cut off at either end', showWhen: when('trimmed-mean') },
  { text: ', the value that ', showWhen: when('percentile') },
  { ...percentile.field, showWhen: when('percentile') },
  { text: ' lie below', showWhen: when('percentile') },
  { text: ' ', showWhen: LIMITS },
  { ...of.field, showWhen: LIMITS },
  { text: ' ', showWhen: LIMITS },
  { ...lower.field, showWhen: LIMITS },
  { text: ' and ', showWhen: LIMITS },
  { ...upper.field, showWhen: LIMITS },
  { text: ', ', showWhen: when('formula') },
  { ...formula.field, showWhen: when('formula') },
];

/** "thickness by kiln", "thickness in north and south", "two typed counts". */
export function resampleSubject({ column, split, beside, figures, first, second, statistic: asked }: Asked): string {
  if (figures) return figures.map(({ count, n }) => `${count} of ${n}`).join(' and ');
  const several = asked === 'f' || asked === 'largest-difference';
  if (split !== undefined)
    return !several && first !== undefined && second !== undefined
      ? `${column} in ${first} and ${second}`
      : `${column} by ${split}`;
  if (!beside) return String(column);
  return first !== undefined && second !== undefined && !several
    ? `${first} and ${second}`
    : [column, ...beside].join(' and ');
}
