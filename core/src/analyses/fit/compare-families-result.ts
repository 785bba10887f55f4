import type { PlottedLaw } from '../../distributions/fit/fitted-law.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Note } from '../../road/analysis.js';

/** One family that could be fitted, and how well it describes the readings. */
export interface ComparedFamily extends PlottedLaw {
  logLikelihood: number;
  aicc: number;
  /** AICc less that of the best. */
  difference: number;
  /** A², null where readings lie beyond a limit, and its p by simulation with re-estimation, null until it is known and where there is no A². */
  statistic: number | null;
  pSimulated: SimulatedP | null;
  /** A small plot: expected along, observed upwards, both as shares of the range of the readings; at most 40 places. */
  small: { expected: number[]; observed: number[] };
}

export interface CompareFamiliesResult {
  available: true;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  alpha: number;
  /** By AICc, the best first. */
  families: ComparedFamily[];
  /** Those that say nothing about these readings, and why. */
  left: { family: string; reason: string }[];
  notes: Note[];
}

/** Within so much AICc of the best a family is not told apart from it (Burnham & Anderson 2002, section 2.6). */
export const NOT_TOLD_APART = 2;

export const notToldApart = ({ families }: Pick<CompareFamiliesResult, 'families'>): ComparedFamily[] =>
  families.filter(({ difference }) => difference <= NOT_TOLD_APART);
