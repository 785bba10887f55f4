import '../readings/refusals.js';
import { z } from 'zod';
import { FAMILIES, familyByName, parameterFaults } from '../distributions/registry.js';
import { GREATEST_SEED } from '../random/stream.js';
import { isPower, LARGEST_POWER, TRANSFORMATIONS } from '../transform/transformation.js';

const source = z.string().min(8).max(36);

const LONGEST_FORMULA = 2_000;
/** As many rows as a study can have. */
const MOST_MADE_UP = 1_000_000;

const POWER = `Lambda must lie between −${LARGEST_POWER} and ${LARGEST_POWER}.`;

/**
 * How a column follows from others, or from a seed. Columns are named by id, so that renaming one breaks nothing; a formula holds them
 * in square brackets.
 */
export const derivationSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('formula'),
    expression: z
      .string()
      .trim()
      .min(1, 'The formula is empty.')
      .max(LONGEST_FORMULA, `A formula may have at most ${LONGEST_FORMULA} characters.`),
  }),
  z.strictObject({ kind: z.literal('standard-score'), source, divisor: z.enum(['sample', 'population']) }),
  z.strictObject({
    kind: z.literal('given-score'),
    source,
    mean: z.number('The mean must be a number.'),
    sd: z.number('The standard deviation must be a number.').positive('The standard deviation must be above 0.'),
  }),
  z.strictObject({ kind: z.literal('distance'), source, absolute: z.boolean() }),
  z.strictObject({ kind: z.literal('rank'), source }),
  z.strictObject({
    kind: z.literal('share'),
    source,
    trials: z.union([
      source,
      z.int('The number of trials must be a whole number.').positive('The number of trials must be above 0.'),
    ]),
  }),
  z
    .strictObject({
      kind: z.literal('transformed'),
      source,
      by: z.enum(TRANSFORMATIONS),
      /** Of the power transformations; null for the others. */
      lambda: z.number('Lambda must be a number.').min(-LARGEST_POWER, POWER).max(LARGEST_POWER, POWER).nullable(),
    })
    .refine(({ by, lambda }) => isPower(by) === (lambda !== null), {
      message: 'Only a power transformation has a lambda.',
      path: ['lambda'],
    }),
  z.strictObject({
    kind: z.literal('rounded'),
    source,
    step: z.number('The rounding step must be a number.').positive('The rounding step must be above 0.'),
  }),
  z
    .strictObject({
      kind: z.literal('made-up'),
      family: z.enum(FAMILIES.map(({ family }) => family)),
      parameters: z.record(z.string(), z.number('A parameter must be a number.')),
      count: z
        .int('The number of values must be a whole number.')
        .min(1, 'At least 1 value is needed.')
        .max(MOST_MADE_UP),
      step: z.number().positive('The rounding step must be above 0.').nullable(),
      seed: z.int('The seed must be a whole number.').min(0, 'The seed must be at least 0.').max(GREATEST_SEED),
    })
    .superRefine(({ family, parameters }, context) => {
      for (const { message } of parameterFaults(familyByName(family), parameters)) {
        context.addIssue({ code: 'custom', message, path: ['parameters'] });
      }
    }),
]);
export type Derivation = z.infer<typeof derivationSchema>;
export type DerivationKind = Derivation['kind'];

/** The ids of the columns that a derivation looks at. */
export function sourcesOf(derivation: Derivation): string[] {
  if (derivation.kind === 'made-up') return [];
  if (derivation.kind === 'formula') {
    return [...new Set([...derivation.expression.matchAll(/\[([^\][]+)\]/g)].map((match) => match[1]!))];
  }
  const { source: from } = derivation;
  return derivation.kind === 'share' && typeof derivation.trials === 'string' ? [from, derivation.trials] : [from];
}
