import type { Parameters } from '../../distributions/family.js';
import type { CountFamily } from '../../goodness-of-fit/counts/model.js';
import type { CountCell } from '../../goodness-of-fit/counts/cells.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Note } from '../../road/analysis.js';

export interface ObservedCell extends CountCell {
  observed: number;
}

interface Interval {
  lower: number;
  upper: number;
}

/** One test of counts; its p by simulation is null until it is known. */
export interface CountTest {
  statistic: number;
  df: number;
  alternative: 'greater' | 'two-sided';
  /** By the χ² curve, where what is expected is enough for it. */
  pAsymptotic: number | null;
  pSimulated: SimulatedP | null;
}

/** A family that could be fitted to the counts. */
export interface RankedCounts {
  family: CountFamily;
  parameters: Parameters;
  logLikelihood: number;
  aicc: number;
}

/** One that is ranked by AICc: how far behind the first, and its Akaike weight. */
export interface ComparedCounts extends RankedCounts {
  difference: number;
  weight: number;
}

export interface CountFitResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  alpha: number;
  confidence: number;
  family: CountFamily;
  parameters: Parameters;
  standardErrors: Record<string, number | null>;
  /** Of the binomial: the trials of every count alike, or null where each has its own; all of them together. */
  trials: { each: number | null; total: number } | null;
  total: number;
  mean: number;
  variance: number;
  /** Variance over mean. */
  varianceRatio: number;
  /** Of the mean: exact by the family (Poisson: Garwood 1936; null for the others), and by t from the spread of the counts. */
  meanIntervals: { exact: Interval | null; t: Interval | null };
  /** Of the binomial: successes over trials, with the interval of Clopper & Pearson (1934). */
  rate: { value: number; interval: Interval } | null;
  /** Values between the least and the greatest count, for the picture. */
  cells: ObservedCell[];
  /** Pooled for χ²; empty where there are too few counts for two cells. */
  pooled: ObservedCell[];
  main: 'chi-square' | 'dispersion';
  chiSquare: CountTest | null;
  /** Of Poisson and binomial counts. */
  dispersion: CountTest | null;
  zeros: { observed: number; expected: number; pSimulated: SimulatedP | null };
  /** By AICc, the best first; and those that say nothing of these counts. */
  families: ComparedCounts[];
  /** Whose ends are the minimum and maximum of the counts: AICc does not compare them. */
  apart: RankedCounts[];
  left: { family: CountFamily; reason: string }[];
  notes: Note[];
}

/** The test that the finding is read from: the chosen one, or the other where these counts do not allow it. */
export const mainCountTest = (result: Pick<CountFitResult, 'main' | 'chiSquare' | 'dispersion'>): CountTest | null =>
  result.main === 'dispersion' ? (result.dispersion ?? result.chiSquare) : (result.chiSquare ?? result.dispersion);

/** p as the finding takes it. */
export const pOfCountTest = ({ pSimulated, pAsymptotic }: CountTest): number | null =>
  pSimulated?.pValue ?? pAsymptotic;
