import type { Field } from '@verdict/core/road';
import { typedNumber } from '../../components/fields/typed-number.js';
import { decimalMark } from '../../language/language.js';

/** What a field of a sentence can hold; undefined where it is left out. */
export type FieldValue = string | number | readonly number[] | readonly string[] | undefined;

/** A field that is typed into. */
export type TypedInto = Exclude<Field, { type: 'choice' | 'choices' }>;

/** A range so wide that it need not be stated. */
const ANY_SIZE = 1e9;

/** What a field takes, in words. */
export function rangeOf(field: TypedInto): string {
  switch (field.type) {
    case 'percent':
      return `a percentage from ${round(field.min * 100)} to ${round(field.max * 100)}`;
    case 'whole':
      return `a whole number from ${field.min} to ${field.max}`;
    case 'parameters':
      return 'a number for each parameter, separated by spaces';
    case 'numbers':
      if (field.max >= ANY_SIZE) return 'numbers separated by spaces';
      return `numbers from ${field.min} to ${field.max}, separated by spaces`;
    case 'text':
      return `up to ${field.most} characters`;
    case 'number': {
      const kind = field.whole ? 'a whole number' : 'a number';
      if (field.above !== undefined) return `${kind} above ${field.above}`;
      return field.from === undefined ? kind : `${kind} from ${field.from} to ${field.to}`;
    }
  }
}

const round = (value: number) => Number(value.toPrecision(12));

function fits(field: TypedInto, value: number): boolean {
  if (!Number.isFinite(value)) return false;
  if (field.type === 'parameters') return true;
  if (field.type === 'text') return false;
  if (field.type === 'number') {
    const { above = -Infinity, from = -Infinity, to = Infinity, whole } = field;
    return value > above && value >= from && value <= to && (!whole || Number.isInteger(value));
  }
  const whole = field.type !== 'whole' || Number.isInteger(value);
  return whole && value >= field.min && value <= field.max;
}

/** "0,5 1,5" and "0,5; 1,5" are numbers with decimal commas where the reader writes them so; a comma before a blank always lies between two numbers. */
const betweenNumbers = (text: string) =>
  decimalMark.value === 'comma' || /\d,\d+\s*;/.test(text) ? /[\s;]+|,\s+/ : /[\s;,]+/;

/** The setting that a typed text stands for; null if it is invalid. Optional fields may be emptied. */
export function typedValue(field: TypedInto, text: string): { value: FieldValue } | null {
  const plain = text.trim();
  const mayBeEmpty = 'empty' in field;
  if (plain === '' || (mayBeEmpty && plain === field.empty)) return mayBeEmpty ? { value: undefined } : null;
  if (field.type === 'text') return plain.length > field.most ? null : { value: plain };
  if (field.type === 'parameters') {
    // "mean 8, sd 0.1" is typed over: the names may stay or go.
    const values = plain
      .split(/[\s;=]+|,\s+/)
      .map(typedNumber)
      .filter(Number.isFinite);
    return values.length > 0 ? { value: values } : null;
  }
  if (field.type === 'numbers') {
    const values = plain.split(betweenNumbers(plain)).filter(Boolean).map(typedNumber);
    return values.every((value) => fits(field, value)) ? { value: values } : null;
  }
  const number = typedNumber(plain.replace('%', ''));
  // Back from percent without a tail: 95 → 0.95.
  const value = field.type === 'percent' ? round(number / 100) : number;
  return fits(field, value) ? { value } : null;
}

/** What a percentage that was typed as a share wants: "For 95 % enter 95."; nothing for other texts. */
export function shareSlip(field: TypedInto, text: string): string {
  const share = typedNumber(text.replace('%', ''));
  const percent = round(share * 100);
  const slipped = field.type === 'percent' && share > 0 && share < 1 && fits(field, share);
  return slipped ? ` For ${percent}\u00a0% enter ${percent}.` : '';
}

/** A setting as the address holds it. */
export const asText = (value: Exclude<FieldValue, undefined>): string =>
  typeof value === 'object' ? value.join(' ') : String(value);

/** A setting out of the address; undefined where the field would refuse it. */
export function fromText(field: Field, text: string): FieldValue {
  if (field.type === 'choice') return field.options.some(({ value }) => value === text) ? text : undefined;
  if (field.type === 'choices') {
    const known = text.split(' ').filter((one) => field.options.some(({ value }) => value === one));
    return known.length > 0 ? known : undefined;
  }
  if (field.type === 'numbers' || field.type === 'parameters' || field.type === 'text')
    return typedValue(field, text)?.value;
  const value = typedNumber(text);
  return fits(field, value) ? value : undefined;
}
