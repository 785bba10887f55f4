import { z } from 'zod';
import { groupThousands } from '../numeric/format.js';
import { listed, plural } from '../numeric/grammar.js';
import type { Note } from '../readings/note.js';
import type { Sample } from '../readings/sample.js';

/** The settings of analyses that work by group: a label column, or further columns beside the first. */
export const groupSettings = {
  split: z.string().min(1).max(200).optional(),
  beside: z.array(z.string().min(1).max(200)).min(1).max(11, 'At most 12 columns can be compared.').optional(),
};

/** More groups than this cannot be told apart in one picture. */
export const MOST_GROUPS = 12;

export interface Parts {
  /** The label column, or null for one column or several. */
  by: string | null;
  /** The parts that hold readings, at most 12; the sample itself where it is not split. */
  parts: Sample[];
  notes: Note[];
}

/** The parts of a sample that are shown, and what has to be said of the others. */
export function partsOf(sample: Sample): Parts {
  const { groups } = sample;
  if (!groups) return { by: null, parts: [sample], notes: [] };
  const filled = groups.samples.filter(({ values }) => values.length > 0);
  const notes: Note[] = [];
  if (filled.length > MOST_GROUPS) {
    const text = `${groups.by} has ${groupThousands(filled.length)} groups with readings. Only the first ${MOST_GROUPS} are shown.`;
    notes.push({ code: 'many-groups', text });
  }
  const empty = groups.samples.filter(({ values }) => values.length === 0).map(({ name }) => name);
  if (empty.length > 0) {
    const named = empty.slice(0, 3).join(', ') + (empty.length > 3 ? ` and ${empty.length - 3} more` : '');
    notes.push({ code: 'empty-groups', text: `Groups without readings are not shown: ${named}.` });
  }
  if (groups.without > 0) {
    notes.push({
      code: 'no-label',
      text: `${plural(groups.without, 'reading has', 'readings have')} no ${groups.by} and ${groups.without === 1 ? 'is' : 'are'} left out.`,
    });
  }
  const units = new Set(filled.map(({ unit }) => unit));
  if (units.size > 1) {
    const text = `The columns have different units (${[...units].map((unit) => unit || 'none').join(', ')}). The common axis shows the numbers without conversion.`;
    notes.push({ code: 'units-differ', text });
  }
  return { by: groups.by, parts: filled.slice(0, MOST_GROUPS), notes };
}

/** The subject of a method sentence: "thickness by kiln", "thickness beside width". */
export function subjectWords({
  column,
  split,
  beside,
}: {
  column?: string | undefined;
  split?: string | undefined;
  beside?: readonly string[] | undefined;
}): string {
  if (beside) return listed([String(column), ...beside]);
  return split === undefined ? String(column) : `${column} by ${split}`;
}
