import { counted } from './resample-settings.js';
import { readFields, type TypedField, type TypedTexts } from '../../road/typed-texts.js';

const ONE: readonly TypedField[] = [
  { key: 'count', label: 'count', example: '58' },
  { key: 'n', label: 'total n', example: '110' },
];

/** What is typed in place of readings: a count, and another one to compare it with. */
export const COUNT_FIELDS: readonly TypedField[] = [
  ...ONE,
  { key: 'count2', label: 'second count', example: '41', optional: true },
  { key: 'n2', label: 'its total n', example: '100', optional: true },
];

export type CountsReading = { figures: { count: number; n: number }[] } | { field: string; problem: string };

/** Typed counts as settings; what is missing or no number is said, with its field. */
export function readCounts(texts: TypedTexts): CountsReading {
  const read = readFields(COUNT_FIELDS, texts);
  if ('problem' in read) return read;
  const { count, n, count2, n2 } = read.values as Record<'count' | 'n' | 'count2' | 'n2', number>;
  if ((count2 === undefined) !== (n2 === undefined))
    return {
      field: count2 === undefined ? 'count2' : 'n2',
      problem: `Enter ${count2 === undefined ? 'the second count' : 'its total'}.`,
    };
  const figures = [{ count, n }, ...(count2 === undefined ? [] : [{ count: count2, n: n2 }])];
  for (const [g, figure] of figures.entries()) {
    const [issue] = counted.safeParse(figure).error?.issues ?? [];
    if (issue) return { field: `${String(issue.path.at(-1) ?? 'n')}${g === 0 ? '' : '2'}`, problem: issue.message };
  }
  return { figures };
}
