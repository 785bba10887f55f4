import type { PlottedLaw } from '../../distributions/fit/fitted-law.js';
import type { FittedTest } from '../../goodness-of-fit/fitted/battery.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Note } from '../../road/analysis.js';

export interface GoodnessOfFitTest {
  test: FittedTest;
  /** Null where there are too few readings for it. */
  statistic: number | null;
  pValue: number | null;
  pMethod: 'exact' | 'simulated' | 'asymptotic' | null;
  /** For a claim: the law of the statistic is known, whatever the family. */
  pExact: number | null;
  /** Of χ², with cells − 1 − estimated parameters degrees of freedom. */
  pAsymptotic: number | null;
  df: number | null;
  pSimulated: SimulatedP | null;
  /** Against the distribution rounded to the resolution; null where the readings step finely or none is known. */
  pResolution: SimulatedP | null;
}

/** In what the readings differ from a claimed distribution. */
export interface Differs {
  /** √n times the mean of the normal scores of the claimed shares; standard normal under the claim. */
  centre: { statistic: number; pValue: number };
  /** Σ(z − mean z)²; χ² with n − 1 degrees of freedom under the claim. */
  spread: { statistic: number; ratio: number; pValue: number };
  /** A² of the same family with its parameters estimated; null where it cannot be estimated, or is not yet simulated. */
  shape: { statistic: number; pValue: number } | null;
}

export type FitOutcome = 'no-evidence' | 'evidence' | 'rounding' | 'open';

export interface GoodnessOfFitResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  law: PlottedLaw;
  claim: boolean;
  /** The test chosen before looking. */
  main: FittedTest;
  tests: GoodnessOfFitTest[];
  /** Equally likely cells of χ²; 0 where it is not offered. */
  cells: number;
  outcome: FitOutcome;
  differs: Differs | null;
  notes: Note[];
}

export const mainFittedTest = ({ tests, main }: Pick<GoodnessOfFitResult, 'tests' | 'main'>): GoodnessOfFitTest =>
  tests.find(({ test }) => test === main)!;
