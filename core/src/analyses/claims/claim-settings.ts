import { z } from 'zod';
import type { Alternative } from '../../claims/alternative.js';
import { anyConfidence, choice, number } from '../../road/setting.js';
import type { Field, SentencePart } from '../../road/analysis.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';

/** The alternative of a test in words that follow "alternative:". */
export const alternativeOf = (words: Record<Alternative, string>) =>
  choice(
    'alternative',
    'alternative',
    [
      { value: 'two-sided', text: words['two-sided'] },
      { value: 'less', text: words.less },
      { value: 'greater', text: words.greater },
    ],
    'two-sided',
  );
export const alternative = alternativeOf({ 'two-sided': 'different', less: 'less', greater: 'greater' });

/** No difference is given. */
export const NONE = 'not set';
export const claimed = number('claimed', 'claimed value', {}, 'enter a value');
export const noticeable = number('noticeable', 'smallest difference of interest', { above: 0 }, NONE);
export const margin = number('margin', 'equivalence margin', { above: 0 }, NONE);
export const ofInterval = anyConfidence('confidence level of the interval');

/** What every claim is asked with. */
export const claimBasis = {
  column: columnSetting.optional(),
  alternative: alternative.schema,
  confidence: ofInterval.schema,
  noticeable: noticeable.schema,
  alpha: alphaSetting,
};

const N = 'The number of readings, n, must be a whole number of at least 1.';
/** n as typed. */
export const typedN = z.int(N).min(1, N).max(1e12, 'The number of readings must be at most 10¹².');
const MEAN = 'The mean must be a number between −10¹⁵⁰ and 10¹⁵⁰.';
const SD = 'The standard deviation must be a number between 0 and 10¹⁵⁰.';
/** Of less the greatest difference is too many to be held. */
const LEAST_SD = 1e-140;
/** Mean and sd of n readings, as a certificate gives them. */
export const typedFigures = z.strictObject({
  n: typedN,
  mean: z.number(MEAN).min(-1e150, MEAN).max(1e150, MEAN),
  sd: z
    .number(SD)
    .min(0, SD)
    .max(1e150, SD)
    .refine(
      (sd) => sd === 0 || sd >= LEAST_SD,
      'The standard deviation is too small to calculate with. Choose a smaller unit.',
    ),
});
export type TypedFigures = z.infer<typeof typedFigures>;

/** Readings or typed figures, never both. */
export const oneSource = ({ column, figures }: { column?: string | undefined; figures?: unknown }): boolean =>
  column === undefined || figures === undefined;
export const ONE_SOURCE = {
  message: 'Give either a column or typed figures, not both.',
  path: ['figures'],
};

/** "The mean of thickness is claimed to be 8; alternative: greater." */
export const claimSentence = (figure: string, field: Field): readonly SentencePart[] => [
  figure,
  { subject: true },
  ' is claimed to be ',
  field,
  '; alternative: ',
  alternative.field,
  '.',
];
