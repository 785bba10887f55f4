import type { StreamState } from '../random/stream.js';
import { createBlocks, type Group } from './samples.js';
import { simulatedTest } from './simulated-tests/registry.js';
import type { TestSetting } from './simulated-tests/simulated-test.js';

/** Tests performed on the same samples, one after the other. */
export interface Rejections {
  groups: readonly Group[];
  alpha: number;
  tests: readonly ({ test: string } & Omit<TestSetting, 'sizes'>)[];
}

/** For each test the number of samples with p below the level, and the number without a p; the counts of several runs can be added. */
export function tallyRejections(
  { groups, alpha, tests }: Rejections,
  state: StreamState,
  replicates: number,
): Float64Array {
  const { size, samples, next } = createBlocks(groups);
  const sizes = groups.map(({ n }) => n);
  const made = tests.map(({ test, ...setting }) => simulatedTest(test).make({ ...setting, sizes }));
  const tallies = new Float64Array(2 * tests.length);
  const found = new Float64Array(2);
  for (let done = 0; done < replicates; done += size) {
    next(state);
    const last = Math.min(size, replicates - done);
    for (let k = 0; k < last; k++) {
      for (let t = 0; t < made.length; t++) {
        made[t]!(samples[k]!, found);
        if (found[0]! < alpha) tallies[2 * t]!++;
        else if (Number.isNaN(found[0]!)) tallies[2 * t + 1]!++;
      }
    }
  }
  return tallies;
}
