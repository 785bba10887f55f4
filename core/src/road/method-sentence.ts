import { formatPercent, formatValue, groupThousands } from '../numeric/format.js';
import type { Analysis, Condition, Field, SentencePart, Settings } from './analysis.js';
import { listed } from '../numeric/grammar.js';

type Values = Record<string, unknown>;

/** A sentence in named parts, which a page can show in places of their own. The blank between two sentences ends the first. */
export type NamedParts<Name extends string = string> = Readonly<Record<Name, readonly SentencePart[]>>;

/** All parts in their order: the sentence as a whole. */
export const wholeSentence = (parts: NamedParts): SentencePart[] => Object.values(parts).flat();

export const isField = (part: SentencePart): part is Field => typeof part === 'object' && 'field' in part;

/** Of several values one is enough. */
const holds = ({ field, is }: Condition, values: Values) => {
  const value = values[field];
  const wanted = typeof is === 'string' ? [is] : is;
  return (Array.isArray(value) ? value : [value]).some((one) => wanted.includes(String(one)));
};

/** The condition that takes a part out of the sentence under these settings, and whether it is one that should hold; null where the part stands. */
function hiddenBy(part: SentencePart, values: Values): { condition: Condition; wanted: boolean } | null {
  if (typeof part === 'string') return null;
  const { hideWhen, showWhen = [] } = part;
  if (hideWhen && holds(hideWhen, values)) return { condition: hideWhen, wanted: false };
  const conditions: readonly Condition[] = Array.isArray(showWhen) ? showWhen : [showWhen];
  const missing = conditions.find((condition) => !holds(condition, values));
  return missing ? { condition: missing, wanted: true } : null;
}

/** The parts of a method sentence that have a meaning under these settings. */
export const visibleParts = (parts: readonly SentencePart[], values: Values): SentencePart[] =>
  parts.filter((part) => hiddenBy(part, values) === null);

const settingWords = (value: unknown) =>
  value === undefined ? 'not set' : typeof value === 'string' ? `“${value}”` : JSON.stringify(value);

/** Why one of the settings that were given has no effect beside the others, naming both; null where each has one. */
export function unusedSetting(
  parts: readonly SentencePart[],
  values: Values,
  given: readonly string[],
): { field: string; text: string } | null {
  for (const name of given) {
    const places = parts.filter((part) => isField(part) && part.field === name);
    const hidden = places.map((part) => hiddenBy(part, values));
    if (hidden.length === 0 || hidden.includes(null)) continue;
    const { condition, wanted } = hidden[0]!;
    const allowed = typeof condition.is === 'string' ? [condition.is] : condition.is;
    const named = listed(
      allowed.map((one) => (one === 'undefined' ? 'not set' : `“${one}”`)),
      'or',
    );
    const text = `${name} has no effect ${wanted ? 'unless' : 'where'} ${condition.field} is ${named}; here ${condition.field} is ${settingWords(values[condition.field])}. Remove one of the two.`;
    return { field: name, text };
  }
  return null;
}

/** Parameters as a sentence names them: logMean as "log mean". No name may hold a number: the text is typed over. */
const SHORT: Readonly<Record<string, string>> = { sd: 'standard deviation', logSd: 'log SD' };
const spelled = (name: string) => SHORT[name] ?? name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);

/** How a field's value is written in the sentence. */
export function fieldText(field: Field, value: unknown): string {
  switch (field.type) {
    case 'choice':
      return field.options.find((option) => option.value === String(value))?.text ?? String(value);
    case 'choices': {
      const chosen = (value ?? []) as readonly string[];
      return listed(chosen.map((one) => field.options.find((option) => option.value === one)?.text ?? one));
    }
    case 'percent':
      return value === undefined ? (field.empty ?? '') : formatPercent(Number(value));
    case 'number':
      return value === undefined ? field.empty : formatValue(Number(value));
    case 'text':
      return value === undefined || value === '' ? field.empty : String(value);
    case 'numbers': {
      const numbers = (value ?? []) as readonly number[];
      return numbers.length === 0 ? field.empty : numbers.join(', ');
    }
    case 'parameters': {
      const given = Object.entries((value ?? {}) as Record<string, number>);
      return given.length === 0 ? field.empty : given.map(([name, number]) => `${spelled(name)} ${number}`).join(', ');
    }
    case 'whole':
      return field.field === 'seed' ? String(value) : groupThousands(Number(value));
  }
}

/** The parts of a method sentence, where a request tells them. */
export const partsFor = <Request extends Settings>(
  method: Analysis<Request>['method'],
  request: Request,
): readonly SentencePart[] => (typeof method === 'function' ? method(request) : method);

/** The method of a request as a sentence: what is kept with the evidence and printed. */
export function methodOf<Request extends Settings>(
  { method, subject }: Pick<Analysis<Request, never>, 'method' | 'subject'>,
  request: Request,
): string {
  return methodSentence(partsFor(method, request), { ...request } as Values, subject?.(request));
}

/** A method sentence with its fields filled in. */
export function methodSentence(
  parts: readonly SentencePart[],
  values: Values,
  subject = String(values.column),
): string {
  return visibleParts(parts, values)
    .map((part) => {
      if (typeof part === 'string') return part;
      if (isField(part)) return fieldText(part, values[part.field]);
      return 'subject' in part ? subject : part.text;
    })
    .join('');
}
