import { plural } from '../numeric/grammar.js';
import type { Sample } from '../readings/sample.js';
import type { Note } from './analysis.js';

/** Counts with the trials that each is out of, in the order of the rows. */
export interface CountReadings {
  counts: Float64Array;
  /** Null where no trials are told. */
  trials: number[] | null;
  notes: Note[];
}

/** What is wrong with numbers that ought to be counts: the first that is none, with its row. */
export function oddCount(values: Float64Array, rows: Int32Array, name: string): string | null {
  const odd = values.findIndex((x) => x < 0 || !Number.isInteger(x));
  if (odd < 0) return null;
  const value = values[odd]!;
  const why = value < 0 ? 'counts cannot be negative' : 'counts must be whole numbers';
  return `${name} is not a column of counts: row ${rows[odd]} is ${value}, but ${why}. Choose a count column, or correct the reading.`;
}

/** Trials by the row, of the column beside; a count whose row tells none is left out. */
export function withTrials(counts: Sample, beside: Sample): CountReadings | string {
  const fault = oddCount(beside.values, beside.rows, beside.name);
  if (fault) return fault;
  const byRow = new Map<number, number>();
  beside.rows.forEach((row, i) => byRow.set(row, beside.values[i]!));
  const kept = Array.from(counts.rows.keys()).filter((i) => byRow.has(counts.rows[i]!));
  const trials = kept.map((i) => byRow.get(counts.rows[i]!)!);
  const over = kept.findIndex((i, k) => counts.values[i]! > trials[k]!);
  if (over >= 0) {
    const i = kept[over]!;
    return `Row ${counts.rows[i]}: ${counts.name} is ${counts.values[i]}, more than ${beside.name} (${trials[over]}). Check whether the two columns are swapped.`;
  }
  const without = counts.rows.length - kept.length;
  const notes: Note[] =
    without === 0
      ? []
      : [
          {
            code: 'no-trials',
            text: `${plural(without, 'count has', 'counts have')} no ${beside.name} and ${without === 1 ? 'is' : 'are'} left out.`,
          },
        ];
  return { counts: Float64Array.from(kept, (i) => counts.values[i]!), trials, notes };
}
