import { SIMULATED_INTERVALS } from '../../simulation/intervals.js';
import { SIMULATED_TESTS } from '../../simulation/simulated-tests/registry.js';
import { STATISTIC_FACTS } from '../../road/statistic-settings.js';
import { SIMULATED_STATISTICS } from './asked-settings.js';

export type LookGroup = 'a statistic' | 'the p of a test' | 'an interval';

/** What can be looked at in samples, for one list: `setting` is where it stands in a request. */
export interface Look {
  setting: 'statistic' | 'test' | 'interval';
  id: string;
  text: string;
  group: LookGroup;
}

export const thingsToLookAt: readonly Look[] = [
  ...SIMULATED_STATISTICS.map((id): Look => ({
    ...{ setting: 'statistic', id, group: 'a statistic', text: STATISTIC_FACTS[id].word },
  })),
  ...SIMULATED_TESTS.map(({ id, name }): Look => ({
    ...{ setting: 'test', id, group: 'the p of a test', text: `the ${name}` },
  })),
  ...SIMULATED_INTERVALS.map(({ id, name }): Look => ({
    ...{ setting: 'interval', id, group: 'an interval', text: `the ${name}` },
  })),
];
