import { z } from 'zod';
import type { Alternative } from '../../claims/alternative.js';
import { anyConfidence, choice, number } from '../../road/setting.js';
import type { Field, SentencePart } from '../../road/analysis.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';

/** In which direction evidence is sought, in words that follow "evidence is sought that it is". */
export const alternativeOf = (words: Record<Alternative, string>) =>
  choice(
    'alternative',
    'direction in which evidence is sought',
    [
      { value: 'two-sided', text: words['two-sided'] },
      { value: 'less', text: words.less },
      { value: 'greater', text: words.greater },
    ],
    'two-sided',
  );
export const alternative = alternativeOf({ 'two-sided': 'another', less: 'less', greater: 'more' });

/** Nobody names a difference. */
export const NONE = 'none named';
export const claimed = number('claimed', 'claimed value', {}, 'not said yet');
export const noticeable = number('noticeable', 'the difference that matters', { above: 0 }, NONE);
export const margin = number('margin', 'margin within which it is close enough', { above: 0 }, NONE);
export const ofInterval = anyConfidence('confidence of the interval');

/** What every claim is asked with. */
export const claimBasis = {
  column: columnSetting.optional(),
  alternative: alternative.schema,
  confidence: ofInterval.schema,
  noticeable: noticeable.schema,
  alpha: alphaSetting,
};

const N = 'The number of readings, n, is a whole number from 1 on.';
/** n as somebody typed it. */
export const typedN = z.int(N).min(1, N).max(1e12, 'The number of readings is at most 10¹².');
const MEAN = 'The mean is a number.';
const SD = 'The sd is a number from 0 on.';
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
    .refine((sd) => sd === 0 || sd >= LEAST_SD, 'So small an sd cannot be worked with: choose a smaller unit.'),
});
export type TypedFigures = z.infer<typeof typedFigures>;

/** Readings or typed figures, never both. */
export const oneSource = ({ column, figures }: { column?: string | undefined; figures?: unknown }): boolean =>
  column === undefined || figures === undefined;
export const ONE_SOURCE = {
  message: 'Figures are typed in place of a column: leave one of the two out.',
  path: ['figures'],
};

/** "The mean of thickness is claimed to be 8; evidence is sought that it is more." */
export const claimSentence = (figure: string, field: Field): readonly SentencePart[] => [
  figure,
  { subject: true },
  ' is claimed to be ',
  field,
  '; evidence is sought that it is ',
  alternative.field,
  '.',
];
