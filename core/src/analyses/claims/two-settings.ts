import { alternativeOf, claimBasis } from './claim-settings.js';
import { columnSetting } from '../../road/settings.js';
import { partName } from '../../road/two-of.js';
import type { Alternative } from '../../claims/alternative.js';
import { z } from 'zod';

/** In which direction two groups differ. */
export const twoAlternative = alternativeOf({
  'two-sided': 'different',
  less: 'less in the first',
  greater: 'more in the first',
});

/** What every claim about two groups is asked with: two levels of a label column, or two columns. */
export const twoBasis = {
  ...claimBasis,
  alternative: twoAlternative.schema,
  split: columnSetting.optional(),
  beside: z.array(columnSetting).min(1).max(11, 'At most 12 columns stand side by side.').optional(),
  first: partName,
  second: partName,
};

interface Named {
  column?: string | undefined;
  split?: string | undefined;
  first?: string | undefined;
  second?: string | undefined;
}

/** "thickness in north and south", "gauge A and gauge B". */
export function twoSubject({ column, split, first = 'one', second = 'another' }: Named): string {
  return split === undefined ? `${first} and ${second}` : `${column} in ${first} and ${second}`;
}

/** In words, a claim that a figure of two groups is the same, or so much higher in the first, and what is sought against it. */
export function twoWords(
  figure: string,
  { name, by }: { name: string; by: string | null },
  [a, b]: readonly [string, string],
  alternative: Alternative,
  higherBy = '',
) {
  const of = by === null ? figure : `${figure} of ${name}`;
  const [first, second] = by === null ? [`of ${a}`, `of ${b}`] : [`in ${a}`, `in ${b}`];
  const where = by === null ? `of ${a} and ${b}` : `in ${a} and ${b}`;
  if (higherBy) {
    const claim = `${of} is higher ${first} than ${second} by ${higherBy}`;
    const sought = {
      'two-sided': 'by another amount',
      less: `by less than ${higherBy}, or not`,
      greater: `by more than ${higherBy}`,
    };
    return { null: claim, sought: `${of} is higher ${first} than ${second} ${sought[alternative]}` };
  }
  const sought = {
    'two-sided': `${of} differs between ${a} and ${b}`,
    less: `${of} is lower ${first} than ${second}`,
    greater: `${of} is higher ${first} than ${second}`,
  }[alternative];
  return { null: `${of} is the same ${where}`, sought };
}
