import { alternativeOf, claimBasis } from './claim-settings.js';
import { columnSetting } from '../../road/settings.js';
import { partName } from '../../road/two-of.js';
import type { Alternative } from '../../claims/alternative.js';
import { z } from 'zod';

/** In which direction two groups differ. */
export const twoAlternative = alternativeOf({
  'two-sided': 'different',
  less: 'lower in the first',
  greater: 'higher in the first',
});

/** What every claim about two groups is asked with: two levels of a label column, or two columns. */
export const twoBasis = {
  ...claimBasis,
  alternative: twoAlternative.schema,
  split: columnSetting.optional(),
  beside: z.array(columnSetting).min(1).max(11, 'At most 12 columns can be compared.').optional(),
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

/** In words, a claim that a figure of two groups is the same, or differs by so much, and its alternative. */
export function twoWords(
  figure: string,
  { name, by }: { name: string; by: string | null },
  [a, b]: readonly [string, string],
  alternative: Alternative,
  { what = '', difference = '' }: { what?: string; difference?: string } = {},
) {
  const beyond = what === '' ? '' : ` ${what}`;
  if (difference) {
    const of =
      by === null
        ? `the difference between ${figure} of ${a} and of ${b}`
        : `the difference in ${figure.replace(/^the /, '')} of ${name} (${a} − ${b})`;
    const sought = { 'two-sided': 'is not', less: 'is less than', greater: 'is greater than' }[alternative];
    return { null: `${of} is ${difference}`, sought: `${of} ${sought} ${difference}` };
  }
  const [of, other] =
    by === null ? [`${figure} of ${a}${beyond}`, `that of ${b}`] : [`${figure} of ${name}${beyond}`, ''];
  if (by === null)
    return {
      null: `${of} equals ${other}`,
      sought: `${of} ${{ 'two-sided': 'differs from', less: 'is lower than', greater: 'is higher than' }[alternative]} ${other}`,
    };
  const sought = {
    'two-sided': `differs between ${a} and ${b}`,
    less: `is lower in ${a} than in ${b}`,
    greater: `is higher in ${a} than in ${b}`,
  }[alternative];
  return { null: `${of} is the same in ${a} and ${b}`, sought: `${of} ${sought}` };
}
