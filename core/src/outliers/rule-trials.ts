import { createSorter } from '../numeric/sort.js';
import { fillNormals } from '../random/normal.js';
import type { StreamState } from '../random/stream.js';
import { namedBy, type Judging, type Limits } from './named.js';
import type { Rule } from './rules.js';

/** The outliers in a simulated sample: none; one reading; two at one end; one at each end. */
export const ARRANGEMENTS = ['clean', 'one', 'same-end', 'each-end'] as const;
export type Arrangement = (typeof ARRANGEMENTS)[number];

export interface RuleTrials extends Judging {
  n: number;
  arrangement: Arrangement;
  /** The outward shift of the outliers in SD: on the tested side, upwards for either side. */
  shift: number;
  judges: readonly { rule: Rule; limits: number | readonly number[] }[];
}

const SHIFTED: Record<Arrangement, readonly number[]> = {
  clean: [],
  one: [1],
  'same-end': [1, 1],
  'each-end': [1, -1],
};

/** Two numbers for each rule. */
export const TALLIES = 2;

/**
 * For each rule: the number of normal samples in which it flags all shifted readings (in clean samples: any reading), and the number in which it
 * flags others besides or instead.
 */
export function tallyRules(input: RuleTrials, state: StreamState, replicates: number): Float64Array {
  const { n, arrangement, shift, judges, side } = input;
  const outwards = side === 'lower' ? -shift : shift;
  const signs = SHIFTED[arrangement];
  const values = new Float64Array(n);
  const shifted = new Float64Array(signs.length);
  const sort = createSorter(n);
  const tallies = new Float64Array(judges.length * TALLIES);
  for (let r = 0; r < replicates; r++) {
    fillNormals(state, values);
    for (let i = 0; i < signs.length; i++) shifted[i] = values[i]! += signs[i]! * outwards;
    sort(values);
    for (let k = 0; k < judges.length; k++) {
      const { low, high } = namedBy(judges[k]!.rule, values, judges[k]!.limits as Limits, input);
      let found = 0;
      for (let i = 0; i < shifted.length; i++)
        if ((high > 0 && shifted[i]! >= values[n - high]!) || (low > 0 && shifted[i]! <= values[low - 1]!)) found++;
      const others = low + high - found;
      if (signs.length === 0 ? others > 0 : found === signs.length) tallies[k * TALLIES]!++;
      if (others > 0) tallies[k * TALLIES + 1]!++;
    }
  }
  return tallies;
}
