import { READABLE, readable, statistic, STATISTIC_REST } from '../../road/statistic-settings.js';
import type { NamedParts } from '../../road/method-sentence.js';
import { z } from 'zod';
import { choice, number, whole } from '../../road/setting.js';
import { MOST_REPLICATES } from '../../road/settings.js';
import { ONE_SOURCE, oneSource, resampleBasis, seedOf } from './resample-settings.js';

export const USUAL_SHUFFLES = 10_000;
const replicates = whole(
  'replicates',
  'number of permutations',
  { min: 1, max: MOST_REPLICATES },
  USUAL_SHUFFLES,
  'The number of permutations',
);
const alternative = choice(
  'alternative',
  'alternative',
  [
    { value: 'two-sided', text: 'different' },
    { value: 'less', text: 'less' },
    { value: 'greater', text: 'greater' },
  ],
  'two-sided',
);
const claimed = number('claimed', 'claimed centre', {}, 'enter a value');
const way = choice(
  'way',
  'permutations used',
  [
    { value: 'all', text: 'all permutations if they can be enumerated, otherwise' },
    { value: 'drawn', text: 'random permutations:' },
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
export const PERMUTATION = {
  lead: ['Permutation test of ', { subject: true }, ', statistic: '],
  statistic: [statistic.field],
  rest: [...STATISTIC_REST, { text: ', claimed to be ', showWhen: SIGNS }, { ...claimed.field, showWhen: SIGNS }, '. '],
  how: [
    'Use ',
    way.field,
    ' ',
    replicates.field,
    ' permutations, seed ',
    seedOf.field,
    '; alternative: ',
    alternative.field,
    '.',
  ],
} as const satisfies NamedParts;
