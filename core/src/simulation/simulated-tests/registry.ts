import { MEANS } from './means.js';
import { NORMALITY } from './normality.js';
import { OUTLIERS } from './outliers.js';
import { RANKS } from './ranks.js';
import { SHARES } from './shares.js';
import type { SimulatedTest } from './simulated-test.js';
import { SPREADS } from './spreads.js';

/** The registry of tests that can be simulated. */
export const SIMULATED_TESTS: readonly SimulatedTest[] = [
  ...MEANS.filter(({ groups }) => groups === 1),
  ...RANKS.filter(({ groups }) => groups === 1),
  ...SPREADS.filter(({ groups }) => groups === 1),
  ...SHARES.filter(({ groups }) => groups === 1),
  ...NORMALITY,
  ...OUTLIERS,
  ...[...MEANS, ...RANKS, ...SPREADS, ...SHARES].filter(({ groups }) => groups === 2),
];

/** The test of an id; throws where there is none, which no request can ask. */
export function simulatedTest(id: string): SimulatedTest {
  const found = SIMULATED_TESTS.find((test) => test.id === id);
  if (!found) throw new RangeError(`There is no test “${id}”.`);
  return found;
}
