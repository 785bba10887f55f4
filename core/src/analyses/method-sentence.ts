import { formatPercent, groupThousands } from '../numeric/format.js';
import type { Analysis, Condition, Field, SentencePart, Settings } from './analysis.js';

type Values = Record<string, unknown>;

export const isField = (part: SentencePart): part is Field => typeof part === 'object' && 'field' in part;

const holds = (condition: Condition | undefined, values: Values) =>
  condition !== undefined && values[condition.field] === condition.is;

/** The parts of a method sentence that have a meaning under these settings. */
export function visibleParts(parts: readonly SentencePart[], values: Values): SentencePart[] {
  return parts.filter((part) => !(typeof part === 'object' && 'hideWhen' in part && holds(part.hideWhen, values)));
}

/** How a field's value is written in the sentence. */
export function fieldText(field: Field, value: unknown): string {
  if (field.type === 'choice') return field.options.find((option) => option.value === value)?.text ?? String(value);
  if (field.type === 'percent') return formatPercent(Number(value));
  return field.field === 'seed' ? String(value) : groupThousands(Number(value));
}

/** The method of a request as a sentence: what is kept with the evidence and printed. */
export function methodOf<Request extends Settings>(
  { method, sentence }: Pick<Analysis<Request, never>, 'method' | 'sentence'>,
  request: Request,
): string {
  return sentence ? sentence(request) : methodSentence(method, { ...request } as Values);
}

/** A method sentence with its fields filled in. */
export function methodSentence(parts: readonly SentencePart[], values: Values): string {
  return visibleParts(parts, values)
    .map((part) => {
      if (typeof part === 'string') return part;
      if (isField(part)) return fieldText(part, values[part.field]);
      return 'subject' in part ? String(values.column) : part.text;
    })
    .join('');
}
