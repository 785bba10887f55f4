import { groupThousands } from '../../numeric/format.js';
import type { Sample } from '../../readings/sample.js';
import { oddCount, withTrials, type CountReadings } from '../../road/counted.js';
import { leftOutNotes } from '../../road/cautions.js';
import type { CountFitRequest } from './count-fit-settings.js';

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
    return 'A binomial distribution needs the number of trials of each count. Enter it in the method, or choose the column that holds it.';
  }
  const over = own.values.findIndex((x) => x > trials);
  if (over >= 0) {
    return `Row ${own.rows[over]} of ${own.name} holds ${own.values[over]}, more than ${groupThousands(trials)} trials.`;
  }
  return { counts: own.values, trials: Array.from(own.values, () => trials), notes: left };
}
