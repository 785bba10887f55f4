import { z } from 'zod';
import { distributionName } from '../../distributions/names.js';
import { FAMILIES } from '../../distributions/registry.js';
import type { Parameters } from '../../distributions/family.js';
import { namesInFormula } from '../../simulation/propagation.js';
import type { NamedParts } from '../../road/method-sentence.js';
import { parametersSetting } from '../../road/family-parameters.js';
import { anyConfidence, number, words } from '../../road/setting.js';
import { columnSetting } from '../../road/settings.js';
import { seedOf } from './asked-settings.js';
import { allParameters } from './population-settings.js';

export const MOST_INPUTS = 20;
export const formula = words('formula', 'formula', 'enter a formula');
export const lower = number('lower', 'lower limit', {}, 'none');
export const upper = number('upper', 'upper limit', {}, 'none');
const confidence = anyConfidence('confidence level of the intervals');

const TRIALS =
  'The number of trials must be a whole number from 1 000 to 1 000 000. If it is left out, it is chosen automatically.';
export const trials = {
  schema: z.int(TRIALS).min(1_000, TRIALS).max(1_000_000, TRIALS).optional(),
  field: {
    ...{ field: 'trials', label: 'trials', type: 'number' as const },
    ...{ from: 1_000, to: 1_000_000, whole: true, empty: 'as many as needed for two stable digits' },
  },
};

const NAME = 'The name of an input must be letters and digits, beginning with a letter.';
const NAMED = /^[\p{L}_][\p{L}\p{N}_]{0,39}$/u;
const name = z.string(NAME).regex(NAMED, NAME);
const ofLaw = z.strictObject({
  family: z.enum(FAMILIES.map(({ family }) => family)),
  parameters: parametersSetting,
});
const ofColumn = z.strictObject({ column: columnSetting });
const R = 'A correlation must lie between −1 and 1, exclusive.';
const correlation = z.strictObject({ first: name, second: name, r: z.number(R).gt(-1, R).lt(1, R) });

const shape = {
  /** The column that an input is drawn from, and the others beside it, where there are any. */
  column: columnSetting.optional(),
  beside: z.array(columnSetting).min(1).max(MOST_INPUTS).optional(),
  inputs: z.record(
    z.string(),
    z.union([ofLaw, ofColumn], 'An input must be a distribution with parameters, or a column.'),
  ),
  formula: formula.schema,
  correlations: z.array(correlation, R).max(100).optional(),
  trials: trials.schema,
  confidence: confidence.schema,
  lower: lower.schema,
  upper: upper.schema,
  seed: seedOf.schema,
};
type Asked = z.infer<z.ZodObject<typeof shape>>;
export type InputAsked = Asked['inputs'][string];
export const isLaw = (input: InputAsked): input is z.infer<typeof ofLaw> => 'family' in input;

export const propagateRequest = z.strictObject(shape).transform((asked, context) => {
  const inputs: Record<string, InputAsked> = {};
  if (Object.keys(asked.inputs).length > MOST_INPUTS)
    context.addIssue({ code: 'custom', message: `At most ${MOST_INPUTS} inputs are allowed.`, path: ['inputs'] });
  for (const [key, input] of Object.entries(asked.inputs)) {
    if (!NAMED.test(key)) context.addIssue({ code: 'custom', message: NAME, path: ['inputs'] });
    if (!isLaw(input)) {
      inputs[key] = input;
      continue;
    }
    const found = allParameters(input.family, input.parameters, false);
    if (typeof found === 'string')
      context.addIssue({ code: 'custom', message: `${key}: ${found}`, path: ['inputs', key, 'parameters'] });
    else inputs[key] = { family: input.family, parameters: found as Parameters };
  }
  for (const [i, { first, second }] of (asked.correlations ?? []).entries())
    for (const one of [first, second])
      if (asked.inputs[one] && !(isLaw(asked.inputs[one]) && asked.inputs[one].family === 'normal'))
        context.addIssue({
          ...{ code: 'custom', path: ['correlations', i] },
          message: `Correlated inputs must be normal; ${one} is not.`,
        });
  return { ...asked, inputs };
});
export type PropagateRequest = z.infer<typeof propagateRequest>;

/** "a of a normal distribution with mean 10 and sd 0.4, b from the readings of thickness". */
export const inputsWords = ({ inputs }: Pick<PropagateRequest, 'inputs'>): string =>
  Object.entries(inputs)
    .map(([key, input]) =>
      isLaw(input)
        ? `${key} of ${distributionName(input.family, input.parameters as Parameters)}`
        : `${key} from the readings of ${input.column}`,
    )
    .join(', ');

/** Correlations as they are typed: "a b 0.5; a c −0.2"; what is wrong with them is said. */
export function readCorrelations(
  text: string,
): { correlations: NonNullable<PropagateRequest['correlations']> } | { problem: string } {
  const correlations = [];
  for (const part of text.split(/[;\n]/).map((one) => one.trim())) {
    if (part === '') continue;
    const [first, second, typed, ...more] = part.split(/[\s,]+/);
    const r = Number((typed ?? '').replace('−', '-'));
    if (!first || !second || more.length > 0 || typed === undefined || !(r > -1 && r < 1) || first === second)
      return {
        problem: `“${part}” is not a correlation. Type two names and a number between −1 and 1, such as “a b 0.5”.`,
      };
    correlations.push({ first, second, r });
  }
  return { correlations };
}

export const inputNames = namesInFormula;

export const PROPAGATE = {
  ask: ['Propagate uncertainty through ', formula.field, ' with ', { subject: true }, '. '],
  how: [
    'Simulate ',
    trials.field,
    ' trials, seed ',
    seedOf.field,
    '; intervals at ',
    confidence.field,
    '; proportion outside the limits (lower: ',
    lower.field,
    ', upper: ',
    upper.field,
    ').',
  ],
} as const satisfies NamedParts;
