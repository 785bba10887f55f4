import type { Note } from '../readings/note.js';
import type { Sample } from '../readings/sample.js';
import { columnSetting } from './settings.js';

/** As many columns as come into a study at once. */
export const MOST_SCREENED = 200;

/** The settings of what looks at many columns, or at all groups of one, a row each. */
export const severalSettings = {
  column: columnSetting,
  split: columnSetting.optional(),
  beside: columnSetting
    .array()
    .min(1)
    .max(MOST_SCREENED - 1, `At most ${MOST_SCREENED} columns can be analysed together.`)
    .optional(),
};

interface Several {
  column: string;
  split?: string | undefined;
  beside?: string[] | undefined;
}

/** For `z.refine`: groups of one column, or several columns. */
export const notBoth = ({ split, beside }: Several): boolean => split === undefined || beside === undefined;
export const NOT_BOTH = {
  message: 'Choose either groups of one column or several columns, not both.',
  path: ['beside'],
};

/** The subject of the method sentence; of many columns their number. */
export function severalWords({ column, split, beside }: Several): string {
  if (split !== undefined) return `${column} by ${split}`;
  if (!beside) return column;
  return beside.length < 4 ? [column, ...beside].join(', ') : `${beside.length + 1} columns from ${column} on`;
}

/** The parts that are looked at, and what is said of those that are not. */
export function severalOf(sample: Sample): { parts: readonly Sample[]; cut: Note[] } {
  const all = sample.groups?.samples ?? [sample];
  if (all.length <= MOST_SCREENED) return { parts: all, cut: [] };
  const text = `There are ${all.length} groups; only the first ${MOST_SCREENED} are analysed.`;
  return { parts: all.slice(0, MOST_SCREENED), cut: [{ code: 'many-groups', text }] };
}
