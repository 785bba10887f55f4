import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Note } from '../../road/analysis.js';

export interface ComparedSample {
  name: string;
  n: number;
  mean: number;
  /** Null for one reading. */
  sd: number | null;
  median: number;
  min: number;
  max: number;
}

export interface TwoSampleTest {
  test: 'anderson-darling' | 'kolmogorov-smirnov';
  statistic: number;
  alternative: 'greater';
  pSimulated: SimulatedP | null;
}

export interface TwoSamplesResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  /** The label column, or null where the two are columns. */
  by: string | null;
  samples: [ComparedSample, ComparedSample];
  /** The others that could be asked about. */
  names: string[];
  main: TwoSampleTest['test'];
  tests: [TwoSampleTest, TwoSampleTest];
  /** Quantiles of the second sample against those of the first, at the positions of the smaller; at most 1 000 of them. */
  quantiles: { first: number[]; second: number[]; shares: number[] };
  notes: Note[];
}

export const mainOfTwo = ({ tests, main }: Pick<TwoSamplesResult, 'tests' | 'main'>): TwoSampleTest =>
  tests.find(({ test }) => test === main)!;
