import type { Note } from '../readings/note.js';
import type { Sample } from '../readings/sample.js';
import { isUnavailable, type Answers, type Step, type Unavailable } from './analysis.js';
import { partsOf } from './groups.js';

/** One part of a split column, or one of several columns, and what came of it. */
export interface PartResult<R> {
  name: string;
  n: number;
  result: R | Unavailable;
}

/** The same analysis of each part of a sample by itself. */
export interface InParts<R> {
  available: true;
  /** The label column, or null where the parts are columns. */
  by: string | null;
  parts: PartResult<R>[];
  notes: Note[];
}

export const isInParts = <R>(result: R | InParts<R>): result is InParts<R> =>
  typeof result === 'object' && result !== null && 'parts' in result && Array.isArray(result.parts);

/** The parts for which there is a result, under their names. */
export const foundParts = <R>({ parts }: InParts<R>): { name: string; n: number; result: R }[] =>
  parts.flatMap(({ name, n, result }) => (isUnavailable(result) ? [] : [{ name, n, result: result as R }]));

/** "2 groups by kiln", "3 columns"; where not all of them are meant, "2 of 3 groups by kiln". */
export function partsWords({ by, parts }: Pick<InParts<unknown>, 'by' | 'parts'>, meant = parts.length): string {
  const { length } = parts;
  const what = by === null ? (length === 1 ? 'column' : 'columns') : `${length === 1 ? 'group' : 'groups'} by ${by}`;
  return meant === length ? `${length} ${what}` : `${meant} of ${length} ${what}`;
}

/** Notes of parts, each under the name of its part; what all of them say alike is said once. */
function notesOfParts(parts: readonly PartResult<unknown>[]): Note[] {
  const notes = new Map<string, { note: Note; names: string[] }>();
  for (const { name, result } of parts) {
    const own: Note[] = isUnavailable(result)
      ? [{ code: 'part-unavailable', text: result.reason }]
      : (result as { notes: Note[] }).notes;
    for (const note of own) {
      if (note.quiet) continue;
      const known = notes.get(note.text);
      if (known) known.names.push(name);
      else notes.set(note.text, { note, names: [name] });
    }
  }
  // A reason names its part itself.
  const told = ({ text }: Note, names: readonly string[]) =>
    names.length === parts.length || (names.length === 1 && text.startsWith(names[0]!));
  return [...notes.values()].map(({ note, names }) =>
    told(note, names) ? note : { code: note.code, text: `${names.join(', ')}: ${note.text}` },
  );
}

type Run<R> = Generator<Step<R | Unavailable>, R | Unavailable, Answers>;

/** Runs an analysis for each part, their repeated work ordered together: step by step, until all have ended. Every part draws from the same streams. */
export function* runInParts<R extends { notes: Note[] }>(
  sample: Sample,
  run: (part: Sample) => Run<R>,
): Generator<Step<InParts<R>>, InParts<R>, Answers> {
  const { by, parts, notes } = partsOf(sample);
  const runs = parts.map(run);
  const steps = runs.map((own) => own.next([]));
  const assembled = (): InParts<R> => {
    const found = parts.map(({ name, values }, i): PartResult<R> => {
      const step = steps[i]!;
      return { name, n: values.length, result: step.done ? step.value : step.value.partial };
    });
    return { available: true, by, parts: found, notes: [...notes, ...notesOfParts(found)] };
  };
  for (;;) {
    const orders = steps.map((step) => (step.done ? [] : step.value.orders));
    if (steps.every(({ done }) => done)) return assembled();
    const answers = yield { partial: assembled(), orders: orders.flat() };
    let at = 0;
    steps.forEach((step, i) => {
      const own = answers.slice(at, at + orders[i]!.length);
      at += orders[i]!.length;
      if (!step.done) steps[i] = runs[i]!.next(own);
    });
  }
}
