import type { Sample } from '../../readings/sample.js';
import type { Note, Unavailable } from '../../road/analysis.js';
import { plural } from '../../numeric/grammar.js';
import { whyCensored } from '../../road/beyond-limits.js';
import { leftOutNotes, unavailable, whyNotEven } from '../../road/cautions.js';
import { pairsOf } from '../../road/pairs.js';
import { twoOf } from '../../road/two-of.js';
import type { Head } from './claim-source.js';

/** Two groups that a claim is about. */
export interface Two {
  a: Sample;
  b: Sample;
  /** What both are of. */
  of: { name: string; by: string | null };
  head: Head;
}

interface Asked {
  column?: string | undefined;
  split?: string | undefined;
  beside?: readonly string[] | undefined;
  first?: string | undefined;
  second?: string | undefined;
}

/** The two groups with what is said of them; why there are none. */
export function twoSource(
  sample: Sample,
  asked: Asked,
  { least, purpose, censored = false }: { least: number; purpose: string; censored?: boolean },
): Two | Unavailable {
  if (asked.column === undefined || !sample.groups)
    return unavailable(sample, 'Choose a label column to split by, or a second column.');
  const found = twoOf(sample, asked);
  if (typeof found === 'string') return unavailable(sample, found);
  const [a, b] = found;
  for (const part of [a, b]) {
    const reason = whyNotEven(part, least, purpose) ?? (censored ? null : whyCensored(part, purpose));
    if (reason) return unavailable(sample, reason);
  }
  const sum = (key: 'missing' | 'setAside') => a[key] + b[key];
  const notes: Note[] = [a, b].flatMap((part) =>
    leftOutNotes(part).map((note) => ({ ...note, text: `${part.name}: ${note.text}` })),
  );
  return {
    ...{ a, b, of: { name: sample.name, by: sample.groups.by } },
    head: {
      ...{ typed: false, n: a.values.length + b.values.length, missing: sum('missing'), setAside: sum('setAside') },
      unit: a.unit === b.unit ? a.unit : '',
      resolution: a.resolution === b.resolution ? a.resolution : null,
      notes:
        a.unit === b.unit
          ? notes
          : [
              ...notes,
              {
                code: 'units-differ',
                text: `The units differ: ${a.name} is in ${a.unit || 'no unit'}, ${b.name} in ${b.unit || 'no unit'}. The numbers are compared without conversion.`,
              },
            ],
    },
  };
}

/** The pairs of two columns, one a row; why there are none. */
export function pairSource(
  { a, b, of, head }: Two,
  least: number,
): { differences: Float64Array; first: Float64Array; second: Float64Array; head: Head } | string {
  if (of.by !== null)
    return 'A paired test needs two columns whose rows belong together. Choose a second column instead of a split.';
  if (a.tallied || b.tallied) return 'Readings entered as frequencies cannot be paired.';
  const { first, second, without } = pairsOf(a, b);
  const n = first.length;
  if (n < least)
    return `${a.name} and ${b.name} have ${plural(n, 'row')} with both readings; at least ${least} are needed.`;
  const text = `${plural(without, 'reading has', 'readings have')} no partner in the same row and ${without === 1 ? 'is' : 'are'} left out.`;
  const notes = without ? [...head.notes, { code: 'no-partner', text }] : head.notes;
  return { first, second, differences: first.map((x, i) => x - second[i]!), head: { ...head, n, notes } };
}
