import type { Sample } from '../../readings/sample.js';
import { exactPower } from '../../simulation/exact-power.js';
import type { Rejections } from '../../simulation/rejections.js';
import { isUnavailable, type Unavailable } from '../../road/analysis.js';
import { shareOf } from './simulated-source.js';
import { simulated } from './simulated.js';
import type { Drawn, Simulated, SimulationAsked } from './simulated-parts.js';

/** A test of one size of sample, ready to be done: what the kernel takes, and its power where a formula gives it. */
export interface TestedAt {
  made: Simulated;
  test: Rejections['tests'][number];
  /** The chance that p is below the level, where that is exact; null where it has to be simulated. */
  exact: ((n: number, m: number) => number) | null;
}

/** What a test is asked of, with everything but its settings. */
export type TestAsked = Omit<SimulationAsked, 'statistic' | 'test' | 'interval'>;

export function testedAt(id: string, asked: TestAsked, sample: Sample, drawn?: Drawn): TestedAt | Unavailable {
  const made = simulated({ ...asked, test: id }, sample, drawn);
  if (isUnavailable(made)) return made;
  const { repeated, groups, laws, source } = made as Simulated;
  if (repeated.what !== 'test') throw new RangeError('Only a test has power. Choose a test.');
  const { what: _, ...test } = repeated;
  const { counted } = test.claim;
  const exact = exactPower({
    ...{ test: id, alternative: asked.alternative, alpha: asked.alpha, claim: test.claim },
    ...{ population: groups[0]!.population, law: laws[0]!, plain: source.law },
    share: counted ? shareOf(laws[0]!, counted) : 0,
  });
  return { made: made as Simulated, test, exact };
}
