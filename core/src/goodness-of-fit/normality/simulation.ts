import type { StreamState } from '../../random/stream.js';
import type { RoundedNormal } from '../rounded-normal.js';
import { drawOf, simulateAndersonDarling, type AndersonDarlingReplicates } from './anderson-darling-simulation.js';
import { createBattery, extremeness, NORMALITY_TESTS, type NormalityTestName } from './battery.js';
import { leastTie } from '../../numeric/ties.js';

export interface NormalityReplicates extends AndersonDarlingReplicates {
  test: NormalityTestName;
}

/** The statistic of replicates for one test in the order drawn, greater for a clearer departure. */
export function simulateNormality(
  { test, ...input }: NormalityReplicates,
  state: StreamState,
  replicates: number,
): Float64Array {
  if (test === 'anderson-darling') return simulateAndersonDarling(input, state, replicates);
  const { n, population, rounding } = input;
  const battery = createBattery(n);
  const found = new Float64Array(NORMALITY_TESTS.length);
  const place = NORMALITY_TESTS.indexOf(test);
  const far = new Float64Array(replicates);
  const draw = drawOf(population, rounding);
  for (let r = 0; r < replicates; r++) {
    draw(battery.values, state);
    battery.measure(found);
    far[r] = extremeness(test, found[place]!);
  }
  return far;
}

export interface NormalityTallies {
  n: number;
  /** A normal in steps, every draw of which is rounded to whole ones; null: not rounded. */
  rounding: RoundedNormal | null;
  /** The statistics of the readings, in the order of NORMALITY_TESTS; null where a test has none. */
  observed: readonly (number | null)[];
}

/** The number of replicates that are at least as extreme as the readings, by test; counts of several runs can be added. */
export function tallyNormality(
  { n, rounding, observed }: NormalityTallies,
  state: StreamState,
  replicates: number,
): Float64Array {
  const battery = createBattery(n);
  const found = new Float64Array(NORMALITY_TESTS.length);
  const tallies = new Float64Array(NORMALITY_TESTS.length);
  const limits = NORMALITY_TESTS.map((test, k) => {
    const statistic = observed[k];
    if (statistic === null || statistic === undefined) return Infinity;
    const far = extremeness(test, statistic);
    return leastTie(far, Math.max(Math.abs(far), Math.abs(statistic)));
  });
  const draw = drawOf('normal', rounding);
  for (let r = 0; r < replicates; r++) {
    draw(battery.values, state);
    battery.measure(found);
    for (let k = 0; k < NORMALITY_TESTS.length; k++) {
      if (extremeness(NORMALITY_TESTS[k]!, found[k]!) >= limits[k]!) tallies[k] = tallies[k]! + 1;
    }
  }
  return tallies;
}
