import { groupThousands } from '../../numeric/format.js';
import type { Sample } from '../../readings/sample.js';
import type { Note } from '../../road/analysis.js';
import { leftOutNotes } from '../../road/cautions.js';
import type { CountFitRequest } from './count-fit-settings.js';

/** Counts with the trials that each is out of, in the order of the rows. */
export interface CountReadings {
  counts: Float64Array;
  /** Null where no trials are told. */
  trials: number[] | null;
  notes: Note[];
}

/** What is wrong with numbers that ought to be counts: the first that is none, with its row. */
function oddCount(values: Float64Array, rows: Int32Array, name: string): string | null {
  const odd = values.findIndex((x) => x < 0 || !Number.isInteger(x));
  if (odd < 0) return null;
  const value = values[odd]!;
  const why = value < 0 ? 'counts begin at 0' : 'counts are whole';
  return `Row ${rows[odd]} of ${name} holds ${value}: ${why}. Mend it in Readings, or look at ${name} as a measure.`;
}

/** Trials by the row, of the column beside; a count whose row tells none is left out. */
function withTrials(counts: Sample, beside: Sample): CountReadings | string {
  const fault = oddCount(beside.values, beside.rows, beside.name);
  if (fault) return fault;
  const byRow = new Map<number, number>();
  beside.rows.forEach((row, i) => byRow.set(row, beside.values[i]!));
  const kept = Array.from(counts.rows.keys()).filter((i) => byRow.has(counts.rows[i]!));
  const trials = kept.map((i) => byRow.get(counts.rows[i]!)!);
  const over = kept.findIndex((i, k) => counts.values[i]! > trials[k]!);
  if (over >= 0) {
    const i = kept[over]!;
    return `Row ${counts.rows[i]}: ${counts.values[i]} of ${counts.name} are more than the ${trials[over]} of ${beside.name}. Are the two columns the other way round?`;
  }
  const without = counts.rows.length - kept.length;
  const notes: Note[] =
    without === 0
      ? []
      : [
          {
            code: 'no-trials',
            text: `${groupThousands(without)} ${without === 1 ? 'count has' : 'counts have'} no ${beside.name} in ${without === 1 ? 'its row' : 'their rows'}: left out.`,
          },
        ];
  return { counts: Float64Array.from(kept, (i) => counts.values[i]!), trials, notes };
}

/** The counts of a sample, with their trials; why they are none. */
export function countReadings(sample: Sample, { beside, family, trials }: CountFitRequest): CountReadings | string {
  const own = beside && sample.groups ? sample.groups.samples[0]! : sample;
  const fault = oddCount(own.values, own.rows, own.name);
  if (fault) return fault;
  const left = leftOutNotes(own);
  if (family !== 'binomial') {
    return { counts: own.values, trials: null, notes: left };
  }
  if (beside && sample.groups) {
    const found = withTrials(own, sample.groups.samples[1]!);
    return typeof found === 'string' ? found : { ...found, notes: [...left, ...found.notes] };
  }
  if (trials === undefined) {
    return 'A binomial distribution needs the trials that each count is out of: say how many in the sentence, or choose the column that tells them.';
  }
  const over = own.values.findIndex((x) => x > trials);
  if (over >= 0) {
    return `Row ${own.rows[over]} of ${own.name} holds ${own.values[over]}, more than ${groupThousands(trials)} trials.`;
  }
  return { counts: own.values, trials: Array.from(own.values, () => trials), notes: left };
}
