import { z } from 'zod';
import { familyByName } from '../../distributions/registry.js';
import { COUNT_FAMILIES } from '../../goodness-of-fit/counts/model.js';
import type { SentencePart } from '../../road/analysis.js';
import { anyConfidence, choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting } from '../../road/settings.js';

const family = choice(
  'family',
  'family of the counts',
  COUNT_FAMILIES.map((value) => ({ value, text: `${familyByName(value).title} distribution` })),
  'poisson',
);
const test = choice(
  'test',
  'test of the counts',
  [
    { value: 'chi-square', text: 'χ² of pooled cells' },
    { value: 'dispersion', text: 'the dispersion' },
  ],
  'chi-square',
);
const least = choice(
  'least',
  'what every cell expects at least',
  [
    { value: 'five', text: 'five' },
    { value: 'one', text: 'one' },
  ],
  'five',
);
const confidence = anyConfidence('confidence of the intervals');
const replicates = replicatesOf('replicates for the test of counts');
const seed = seedOf('seed of the test of counts');

const TRIALS = 'Trials are a whole number from 1 to 1 000 000 000.';
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
    empty: 'not said',
  },
} as const;

export const countFitRequest = z.strictObject({
  column: columnSetting,
  /** The column that tells the trials of each count. */
  beside: z.array(columnSetting).length(1, 'One column beside tells the trials of each count.').optional(),
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
  'Hold ',
  { subject: true },
  ' against a ',
  family.field,
  { text: ' of ', showWhen: [BINOMIAL, ALIKE] },
  { ...trials.field, showWhen: [BINOMIAL, ALIKE] },
  { text: ' trials each', showWhen: [BINOMIAL, ALIKE] },
  ' by ',
  test.field,
  ', every cell expecting at least ',
  least.field,
  ', with p from ',
  replicates.field,
  ' simulated samples, seed ',
  seed.field,
  '; intervals at ',
  confidence.field,
  '.',
];

/** "pinholes out of tiles". */
export const countSubject = ({ column, beside }: Pick<CountFitRequest, 'column' | 'beside'>): string =>
  beside ? `${column} out of ${beside[0]!}` : column;
