import { article, sentenceCase } from '../numeric/grammar.js';
import { z } from 'zod';
import { isRefusal, refuse, type Family, type Parameters, type Refusal } from '../distributions/family.js';
import { familyByName, parameterFaults } from '../distributions/registry.js';

const number = z.number('A parameter must be a number.');
/** By name, or in the order of the family. */
export const parametersSetting = z
  .union([z.record(z.string(), number), z.array(number)], 'Parameters must be numbers by name.')
  .optional();

/** Parameters by name, of those given in order or by name; what is wrong with them. */
export function readParameters(of: Family, given: Parameters | readonly number[]): Parameters | Refusal {
  const required = of.parameters.filter(({ optional }) => !optional);
  const names = (specs: Family['parameters']) => specs.map(({ title }) => title).join(', ');
  if (Array.isArray(given)) {
    const numbers = given as readonly number[];
    if (numbers.length < required.length || numbers.length > of.parameters.length) {
      const least = required.length;
      const rest = of.parameters.length > least ? `, then ${names(of.parameters.slice(least))} optionally` : '';
      return refuse(`${sentenceCase(article(of.title))} distribution takes ${names(required)}, in this order${rest}.`);
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
