import { z } from 'zod';

const TYPES: Record<string, string> = {
  string: 'text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object with named settings',
  record: 'an object with named settings',
  null: 'empty',
  date: 'a date',
};

type Issue = Parameters<NonNullable<NonNullable<ReturnType<typeof z.config>>['customError']>>[0];

function boundWords(
  { origin, inclusive }: Issue & { origin?: string; inclusive?: boolean },
  bound: unknown,
  least: boolean,
) {
  if (origin === 'string') return `must have ${least ? 'at least' : 'at most'} ${String(bound)} characters`;
  if (origin === 'array' || origin === 'set')
    return `must have ${least ? 'at least' : 'at most'} ${String(bound)} entries`;
  const side = least ? (inclusive === false ? 'above' : 'at least') : inclusive === false ? 'below' : 'at most';
  return `must be ${side} ${String(bound)}`;
}

/**
 * What is wrong with a value, where its schema has no words of its own: which setting it is and what it takes. The library's own words ("Invalid input:
 * expected number, received NaN") are for programmers.
 */
function sentenceOf(issue: Issue): string {
  const path = (issue.path ?? []).map(String).join('.');
  const what = path ? `The setting “${path}”` : 'The request';
  switch (issue.code) {
    case 'invalid_type':
      return `${what} must be ${TYPES[issue.expected] ?? issue.expected}.`;
    case 'invalid_value':
      return `${what} must be ${issue.values.length > 1 ? 'one of ' : ''}${issue.values.map(String).join(', ')}.`;
    case 'too_small':
      return `${what} ${boundWords(issue, issue.minimum, true)}.`;
    case 'too_big':
      return `${what} ${boundWords(issue, issue.maximum, false)}.`;
    case 'unrecognized_keys':
      return `There is no setting ${issue.keys.map((key) => `“${key}”`).join(', ')} here.`;
    case 'not_multiple_of':
      return `${what} must be a multiple of ${String(issue.divisor)}.`;
    default:
      return `${what} is not valid.`;
  }
}

z.config({ customError: sentenceOf });
