import { READABLE, STATISTIC_PARTS, readable } from '../../road/statistic-settings.js';
import { z } from 'zod';
import type { SentencePart } from '../../road/analysis.js';
import { choice, number, whole } from '../../road/setting.js';
import { MOST_REPLICATES } from '../../road/settings.js';
import { ONE_SOURCE, oneSource, resampleBasis, seedOf } from './resample-settings.js';

export const USUAL_SHUFFLES = 10_000;
const replicates = whole(
  'replicates',
  'shuffles',
  { min: 1, max: MOST_REPLICATES },
  USUAL_SHUFFLES,
  'The number of shuffles',
);
const alternative = choice(
  'alternative',
  'direction in which evidence is sought',
  [
    { value: 'two-sided', text: 'as far on either side' },
    { value: 'less', text: 'as low' },
    { value: 'greater', text: 'as high' },
  ],
  'two-sided',
);
const claimed = number('claimed', 'claimed centre', {}, 'not said yet');
const way = choice(
  'way',
  'which arrangements',
  [
    { value: 'all', text: 'all arrangements where they can be counted, else' },
    { value: 'drawn', text: 'by chance' },
  ],
  'all',
);

export const permutationSettings = {
  ...resampleBasis,
  /** By n, where nothing is asked. */
  replicates: replicates.schema.unwrap().optional(),
  alternative: alternative.schema,
  claimed: claimed.schema,
  way: way.schema,
};
export const permutationRequest = z
  .strictObject(permutationSettings)
  .refine(oneSource, ONE_SOURCE)
  .refine(readable, READABLE);
export type PermutationRequest = z.infer<typeof permutationRequest>;

const SIGNS = { field: 'statistic', is: ['mean', 'median'] } as const;
export const PERMUTATION_ASK: readonly SentencePart[] = [
  'Shuffle ',
  { subject: true },
  ' and look at ',
  ...STATISTIC_PARTS,
  { text: ', claimed to be ', showWhen: SIGNS },
  { ...claimed.field, showWhen: SIGNS },
  '.',
];
export const PERMUTATION_HOW: readonly SentencePart[] = [
  'Go through ',
  way.field,
  ' ',
  replicates.field,
  ' shuffles, seed ',
  seedOf.field,
  '; count those that lie at least ',
  alternative.field,
  '.',
];
