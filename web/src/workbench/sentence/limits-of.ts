import type { StudyColumn } from '@verdict/contract';

/** The limits and the target of a column as settings of an analysis: those that are given. */
export function limitsOf({ lowerLimit, target, upperLimit }: StudyColumn): Record<string, number> {
  const given = Object.entries({ lowerLimit, target, upperLimit });
  return Object.fromEntries(given.filter((entry): entry is [string, number] => entry[1] !== null));
}
