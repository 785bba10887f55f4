import { CONTINUOUS, OF_STATISTICS } from '../../distributions/measured.js';
import { z } from 'zod';
import { mostSteps } from '../../outliers/generalized-esd.js';
import type { Field, SentencePart } from '../../road/analysis.js';
import { isField } from '../../road/method-sentence.js';
import { anyConfidence, replicates as replicatesOf, seed as seedOf } from '../../road/setting.js';
import { alphaSetting, columnSetting, quantileTypeSetting } from '../../road/settings.js';
import { ruleSetting, sideSetting } from './rule-facts.js';

/** Their ends are estimated from the farthest readings themselves: none can lie outside. */
const BOUNDED = new Set(['uniform', 'triangular', 'beta']);
/** The families on whose scale readings can be judged. */
export const JUDGED = CONTINUOUS.filter(({ family }) => !OF_STATISTICS.has(family) && !BOUNDED.has(family));

export const familyOf = {
  schema: z.enum(JUDGED.map(({ family }) => family) as [string, ...string[]]).default('normal'),
  field: {
    field: 'family',
    label: 'distribution',
    type: 'choice',
    options: JUDGED.map(({ family: value, title }) => ({ value, text: `${title} sample` })),
  } satisfies Field,
};

/** More than so many far readings are no outliers but another group. */
export const MOST_NAMED = 100;
const MOST = `The maximum number of outliers must be a whole number from 1 to ${MOST_NAMED}.`;
export const mostSetting = {
  schema: z.int(MOST).min(1, MOST).max(MOST_NAMED, MOST).optional(),
  field: {
    ...{ field: 'most', label: 'maximum number of outliers', type: 'number', from: 1, to: MOST_NAMED, whole: true },
    empty: '10 % of the readings',
  } satisfies Field,
};
/** A tenth of the readings, at most ten (STATISTICS section 6). */
export const usualMost = (n: number): number => Math.max(1, Math.min(10, Math.floor(n / 10)));

/** At most as many steps as leave three readings. */
export const stepsAtMost = (most: number, n: number): number => Math.max(1, Math.min(most, mostSteps(n)));

const confidence = anyConfidence('confidence level of the intervals');
const replicates = replicatesOf('number of simulated clean samples');
const seed = seedOf('seed of the clean samples');
const limit = z.number('A limit must be a number.').optional();

export const outliersRequest = z
  .strictObject({
    column: columnSetting,
    /** Whose labels are told beside the readings: the question is about the column as a whole. */
    split: columnSetting.optional(),
    side: sideSetting.schema,
    rule: ruleSetting.schema,
    most: mostSetting.schema,
    family: familyOf.schema,
    alpha: alphaSetting,
    quantileType: quantileTypeSetting,
    confidence: confidence.schema,
    replicates: replicates.schema,
    seed: seed.schema,
    lowerLimit: limit,
    upperLimit: limit,
  })
  .refine(
    ({ lowerLimit, upperLimit }) => lowerLimit === undefined || upperLimit === undefined || lowerLimit < upperLimit,
    { message: 'The lower limit must be below the upper limit.', path: ['lowerLimit'] },
  );
export type OutliersRequest = z.infer<typeof outliersRequest>;

const ESD = { field: 'rule', is: 'generalized-esd' } as const;
/** "the [generalised ESD] of up to [4] readings". */
export const RULE_PARTS: readonly SentencePart[] = [
  ruleSetting.field,
  { text: ', maximum number of outliers ', showWhen: ESD },
  { ...mostSetting.field, showWhen: ESD },
];

/** The words that stand for the rule of the study wherever one asks. */
export const FAR_PARTS: readonly SentencePart[] = [sideSetting.field, familyOf.field, ...RULE_PARTS];
export const ruleFields = FAR_PARTS.filter(isField).map(({ field }) => field);

/** The method as a sentence. */
export const outliersSentence: readonly SentencePart[] = [
  'Test ',
  { subject: true },
  ' for outliers ',
  sideSetting.field,
  ', assuming a ',
  familyOf.field,
  ', by ',
  ...RULE_PARTS,
  '; p and false-alarm rate from ',
  replicates.field,
  ' clean samples, seed ',
  seed.field,
  '; confidence intervals with and without them at ',
  confidence.field,
  '.',
];
