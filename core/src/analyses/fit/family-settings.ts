import { CONTINUOUS } from '../../distributions/measured.js';
import { z } from 'zod';
import type { Fitting } from '../../distributions/fit/refit.js';
import { isRefusal, refuse, type Family, type Parameters, type Refusal } from '../../distributions/family.js';
import { articleOf } from '../../distributions/names.js';
import { completed, familyByName, parameterFaults } from '../../distributions/registry.js';
import type { Field, SentencePart } from '../../road/analysis.js';

const hasThreshold = ({ parameters }: Family) => parameters.some(({ name }) => name === 'threshold');
const WITH_THRESHOLD = CONTINUOUS.filter(hasThreshold).map(({ family }) => family);

const number = z.number('A parameter is a number.');
const family = z.enum(CONTINUOUS.map(({ family: name }) => name) as [string, ...string[]]).default('normal');

/** The settings that say against which distribution readings are held. */
export const familyShape = {
  family,
  /** By name, or in the order of the family; left out they are estimated. */
  parameters: z.union([z.record(z.string(), number), z.array(number)], 'Parameters are numbers by name.').optional(),
  threshold: z.enum(['none', 'estimated']).default('none'),
};

/** What a request says of the distribution once it is read: parameters by name. */
export interface AskedFamily {
  family: string;
  parameters?: Parameters | undefined;
  threshold: 'none' | 'estimated';
}

/** Parameters by name, of those given in order or by name; what is wrong with them. */
function readParameters(of: Family, given: Parameters | readonly number[]): Parameters | Refusal {
  const required = of.parameters.filter(({ optional }) => !optional);
  const names = (specs: Family['parameters']) => specs.map(({ title }) => title).join(', ');
  if (Array.isArray(given)) {
    const numbers = given as readonly number[];
    if (numbers.length < required.length || numbers.length > of.parameters.length) {
      const least = required.length;
      const rest = of.parameters.length > least ? `, then ${names(of.parameters.slice(least))} if wanted` : '';
      const article = articleOf(of.title) === 'an' ? 'An' : 'A';
      return refuse(`${article} ${of.title} distribution takes ${names(required)}, in this order${rest}.`);
    }
    return readParameters(of, Object.fromEntries(numbers.map((value, i) => [of.parameters[i]!.name, value])));
  }
  const named = given as Parameters;
  const known = of.parameters.filter(({ name }) => name in named);
  const whole = required.every(({ name }) => name in named);
  // Some of them only: the others are estimated. Those in range each can only be judged together once all are there.
  const faults = parameterFaults(of, named).filter((fault) => whole || fault.name in named);
  if (faults.length > 0) return refuse(faults[0]!.message);
  return Object.fromEntries(known.map(({ name }) => [name, named[name]!]));
}

/** Reads the parameters of a request by the family it names: for `z.transform`. */
export function withParametersRead<R extends { family: string; parameters?: Parameters | number[] | undefined }>(
  request: R,
  context: z.RefinementCtx,
): Omit<R, 'parameters'> & { parameters?: Parameters } {
  const { parameters, ...rest } = request;
  if (parameters === undefined) return rest;
  const read = readParameters(familyByName(request.family), parameters);
  if (isRefusal(read)) {
    context.addIssue({ code: 'custom', message: read.refused, path: ['parameters'] });
    return z.NEVER;
  }
  return Object.keys(read).length === 0 ? rest : { ...rest, parameters: read };
}

/** A claim gives all that the family must have, and what may be left out stands at its usual value; otherwise what is not given is estimated. */
export function fittingOf({ family: name, parameters: given = {}, threshold }: AskedFamily): Fitting {
  const of = familyByName(name);
  if (of.parameters.every((spec) => spec.optional || spec.name in given)) {
    return { family: name, given: completed(of, given), estimateThreshold: false };
  }
  const estimateThreshold = threshold === 'estimated' && hasThreshold(of) && !('threshold' in given);
  return { family: name, given, estimateThreshold };
}

const byTitle = CONTINUOUS.map(({ family: value, title }) => ({ value, text: `${title} distribution` }));
const familyField: Field = { field: 'family', label: 'family', type: 'choice', options: byTitle };

/** "the [normal distribution] with parameters [estimated]": the words that stand for it in a sentence. */
export const FAMILY_PARTS: readonly SentencePart[] = [
  familyField,
  ' with parameters ',
  { field: 'parameters', label: 'parameters', type: 'parameters', empty: 'estimated' },
  {
    text: ', ',
    showWhen: [
      { field: 'family', is: WITH_THRESHOLD },
      { field: 'parameters', is: 'undefined' },
    ],
  },
  {
    field: 'threshold',
    label: 'threshold',
    type: 'choice',
    options: [
      { value: 'none', text: 'threshold 0' },
      { value: 'estimated', text: 'threshold estimated' },
    ],
    showWhen: [
      { field: 'family', is: WITH_THRESHOLD },
      { field: 'parameters', is: 'undefined' },
    ],
  },
];
