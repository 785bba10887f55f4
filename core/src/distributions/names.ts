import { formatValue } from '../numeric/format.js';
import { article } from '../numeric/grammar.js';
import type { Parameters, ParameterSpec } from './family.js';
import { familyByName } from './registry.js';

/** "a normal distribution with mean 8.02 and sd 0.11"; optional parameters are named where they are not at their usual value. */
export function distributionName(name: string, parameters: Parameters): string {
  const family = familyByName(name);
  return `${article(family.title)} distribution with ${parameterWords(name, parameters)}`;
}

/** "mean 8.02 and sd 0.11", each as `write` writes it. */
export function parameterWords(
  name: string,
  parameters: Parameters,
  write: (value: number, spec: ParameterSpec) => string = formatValue,
): string {
  const said = familyByName(name)
    .parameters.filter((spec) => !spec.optional || parameters[spec.name] !== spec.usual)
    .map((spec) => `${spec.title} ${write(parameters[spec.name] ?? spec.usual, spec)}`);
  return said.length < 2 ? said.join('') : `${said.slice(0, -1).join(', ')} and ${said[said.length - 1]}`;
}
