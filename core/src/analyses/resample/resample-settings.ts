import { z } from 'zod';
import { anyConfidence, seed } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';
import { statistic, statisticShape, type StatisticAsked } from '../../road/statistic-settings.js';
import { partName } from '../../road/two-of.js';

const LEVEL = 'Choose a label.';
const level = z.string(LEVEL).min(1, LEVEL).max(1_000, LEVEL).optional();
export const seedOf = seed('seed of the random numbers');
export const confidence = anyConfidence('confidence level of the intervals');

const COUNT = 'A count must be a whole number of at least 0.';
const MOST_TYPED = 100_000;
const N = `The total must be a whole number from 1 to ${MOST_TYPED}.`;
/** So many of so many, as they are typed. */
export const counted = z
  .strictObject({ count: z.int(COUNT).min(0, COUNT), n: z.int(N).min(1, N).max(MOST_TYPED, N) })
  .refine(({ count, n }) => count <= n, {
    message: 'The count must not be larger than the total.',
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
  figures: z.array(counted).min(1, 'Type one count or two.').max(2, 'Type one count or two.').optional(),
  statistic: statistic.schema,
  ...statisticShape,
  level,
  seed: seedOf.schema,
  alpha: alphaSetting,
};

/** Of a request, what says which statistic of which readings. */
export interface Asked extends StatisticAsked {
  column?: string | undefined;
  split?: string | undefined;
  beside?: string[] | undefined;
  first?: string | undefined;
  second?: string | undefined;
  figures?: Typed[] | undefined;
  level?: string | undefined;
}

/** Readings or typed counts, never both. */
export const oneSource = ({ column, figures }: Asked): boolean => column === undefined || figures === undefined;
export const ONE_SOURCE = {
  message: 'Give either a column or typed counts, not both.',
  path: ['figures'],
};

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
