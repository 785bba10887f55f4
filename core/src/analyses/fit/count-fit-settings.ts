import { z } from 'zod';
import { familyByName } from '../../distributions/registry.js';
import { COUNT_FAMILIES } from '../../goodness-of-fit/counts/model.js';
import type { SentencePart } from '../../road/analysis.js';
import { anyConfidence, choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';

const family = choice(
  'family',
  'distribution of the counts',
  COUNT_FAMILIES.map((value) => ({ value, text: `${familyByName(value).title} distribution` })),
  'poisson',
);
const test = choice(
  'test',
  'test of the counts',
  [
    { value: 'chi-square', text: 'the χ² test with pooled cells' },
    { value: 'dispersion', text: 'the dispersion test' },
  ],
  'chi-square',
);
const least = choice(
  'least',
  'minimum expected count per cell',
  [
    { value: 'five', text: 'five' },
    { value: 'one', text: 'one' },
  ],
  'five',
);
const confidence = anyConfidence('confidence level of the intervals');
const replicates = replicatesOf('replicates for the test of counts');
const seed = seedOf('seed of the test of counts');

const TRIALS = 'The number of trials must be a whole number from 1 to 1 000 000 000.';
const GREATEST_TRIALS = 1e9;
const trials = {
  schema: z.int(TRIALS).min(1, TRIALS).max(GREATEST_TRIALS, TRIALS).optional(),
  field: {
    field: 'trials',
    label: 'trials of each count',
    type: 'number',
    whole: true,
    from: 1,
    to: GREATEST_TRIALS,
    empty: 'enter a value',
  },
} as const;

export const countFitRequest = z.strictObject({
  column: columnSetting,
  /** The column that tells the trials of each count. */
  beside: z.array(columnSetting).length(1, 'Choose one column for the trials of each count.').optional(),
  family: family.schema,
  /** Of every count alike, for the binomial. */
  trials: trials.schema,
  test: test.schema,
  least: least.schema,
  alpha: alphaSetting,
  confidence: confidence.schema,
  replicates: replicates.schema,
  seed: seed.schema,
});
export type CountFitRequest = z.infer<typeof countFitRequest>;

/** What a pooled cell expects at least, as a number. */
export const leastExpected = ({ least: word }: Pick<CountFitRequest, 'least'>): number => (word === 'five' ? 5 : 1);

const BINOMIAL = { field: 'family', is: 'binomial' } as const;
const ALIKE = { field: 'beside', is: 'undefined' } as const;

/** The method of the fit as a sentence. */
export const countFitSentence: readonly SentencePart[] = [
  'Compare ',
  { subject: true },
  ' with the ',
  family.field,
  { text: ' of ', showWhen: [BINOMIAL, ALIKE] },
  { ...trials.field, showWhen: [BINOMIAL, ALIKE] },
  { text: ' trials each', showWhen: [BINOMIAL, ALIKE] },
  ' by ',
  test.field,
  ', at least ',
  least.field,
  ' expected per cell, p from ',
  replicates.field,
  ' simulated samples, seed ',
  seed.field,
  '; confidence intervals at ',
  confidence.field,
  '.',
];

/** "pinholes out of tiles". */
export const countSubject = ({ column, beside }: Pick<CountFitRequest, 'column' | 'beside'>): string =>
  beside ? `${column} out of ${beside[0]!}` : column;
