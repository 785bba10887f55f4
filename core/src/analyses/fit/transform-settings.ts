import { z } from 'zod';
import { TRANSFORMATIONS } from '../../transform/transformation.js';
import { TRANSFORMATION_TITLES } from '../../transform/words.js';
import type { Condition, SentencePart } from '../../road/analysis.js';
import { choice, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting, confidenceSetting } from '../../road/settings.js';

const by = choice(
  'by',
  'transformation',
  TRANSFORMATIONS.map((value) => ({ value, text: TRANSFORMATION_TITLES[value] })),
  'box-cox',
);
const power = choice(
  'power',
  'choice of lambda',
  [
    { value: 'convenient', text: 'a rounded lambda within its interval' },
    { value: 'likeliest', text: 'the maximum likelihood lambda' },
    { value: 'given', text: 'lambda' },
  ],
  'convenient',
);
/** Powers that anybody types; the likelihood may ask for others. */
const REACH = 10;
const LAMBDA = `Lambda is a number from −${REACH} to ${REACH}.`;
const lambda = {
  schema: z.number(LAMBDA).min(-REACH, LAMBDA).max(REACH, LAMBDA).default(0.5),
  field: { field: 'lambda', label: 'lambda', type: 'number', from: -REACH, to: REACH, empty: '0.5' },
} as const;
const confidence = {
  schema: confidenceSetting,
  field: {
    field: 'confidence',
    label: 'confidence level of the interval of lambda',
    type: 'percent',
    min: 0.5,
    max: 0.999,
  },
} as const;
const replicates = replicatesOf('number of simulated samples');
const seed = seedOf('seed of the simulated samples');
const limit = z.number('A limit must be a number.').optional();

export const transformRequest = z
  .strictObject({
    column: columnSetting,
    by: by.schema,
    /** Of Box–Cox and Yeo–Johnson. */
    power: power.schema,
    lambda: lambda.schema,
    confidence: confidence.schema,
    alpha: alphaSetting,
    replicates: replicates.schema,
    seed: seed.schema,
    lowerLimit: limit,
    target: limit,
    upperLimit: limit,
  })
  .refine(
    ({ lowerLimit, upperLimit }) => lowerLimit === undefined || upperLimit === undefined || lowerLimit < upperLimit,
    { message: 'The lower limit must be below the upper limit.', path: ['lowerLimit'] },
  );
export type TransformRequest = z.infer<typeof transformRequest>;

const POWERED: Condition = { field: 'by', is: ['box-cox', 'yeo-johnson'] };
const FOUND: Condition = { field: 'power', is: ['convenient', 'likeliest'] };
const GIVEN: Condition = { field: 'power', is: 'given' };

/** The method of a transformation as a sentence. */
export const transformSentence: readonly SentencePart[] = [
  'Transform ',
  { subject: true },
  ' by ',
  by.field,
  { text: ' with ', showWhen: POWERED },
  { ...power.field, showWhen: POWERED },
  { text: ' of ', showWhen: [POWERED, FOUND] },
  { ...confidence.field, showWhen: [POWERED, FOUND] },
  { text: ' ', showWhen: [POWERED, GIVEN] },
  { ...lambda.field, showWhen: [POWERED, GIVEN] },
  ', Anderson–Darling test of normality before and after, p from ',
  replicates.field,
  ' simulated samples, seed ',
  seed.field,
  '.',
];
