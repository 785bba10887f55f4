import type { Population } from '../../goodness-of-fit/normality/anderson-darling-simulation.js';
import type { NormalityTestName } from '../../goodness-of-fit/normality/battery.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Note } from '../../road/analysis.js';

/** What the test says at the level; `open` while p is not known, `rounding` where only coarse rounding speaks against normal. */
export type Outcome = 'no-evidence' | 'evidence' | 'rounding' | 'open';

export interface NormalityTest {
  test: NormalityTestName;
  /** Null where there are fewer readings than the test takes. */
  statistic: number | null;
  /** Of A²: A²(1 + 0.75/n + 2.25/n²), which the asymptotic formula takes. */
  adjusted?: number;
  /** Which side of the statistic speaks against normal. */
  alternative: 'greater' | 'less' | 'two-sided';
  pValue: number | null;
  pMethod: 'simulated' | 'asymptotic' | null;
  pAsymptotic: number | null;
  pSimulated: SimulatedP | null;
  /**
   * Against a normal that is rounded as the readings are; null without a resolution. Coarse readings (an sd below 8 steps) are compared by
   * `roundedStatistic`, replicates likewise; finer ones by A² of replicates that are rounded before it is taken.
   */
  pResolution: SimulatedP | null;
  /** A² of the counted steps against the rounded normal; null where the steps are fine. */
  roundedStatistic: number | null;
  /** True where so many rounded replicates share the greatest statistic that p can never be below the level. */
  tooCoarse: boolean;
}

/** How often a sample of this size from another population would have passed at the level. */
export interface Missed {
  population: Exclude<Extract<Population, string>, 'normal'>;
  share: number;
  replicates: number;
}

export interface NormalityResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  mean: number;
  sd: number;
  /** The test of the study, chosen before looking: the finding is read from it. */
  main: NormalityTestName;
  tests: NormalityTest[];
  missed: Missed[];
  /** What the main test says, and which tests find evidence against normal at the level, which do not. */
  summary: { outcome: Outcome; against: NormalityTestName[]; without: NormalityTestName[] };
  notes: Note[];
}

/** The test that the finding is read from. A result kept before there was a choice (version 3) holds A² alone and names none. */
export const mainTest = ({ tests, main }: Pick<NormalityResult, 'tests' | 'main'>): NormalityTest =>
  tests.find(({ test }) => test === main) ?? tests[0]!;
