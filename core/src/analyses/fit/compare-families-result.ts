import type { PlottedLaw } from '../../distributions/fit/fitted-law.js';
import type { SimulatedP } from '../../goodness-of-fit/simulated-p.js';
import type { Note } from '../../road/analysis.js';

/** A family that could be fitted. */
export interface FittedFamily extends PlottedLaw {
  logLikelihood: number;
  aicc: number;
  /** A², null where readings lie beyond a limit, and its p by simulation with re-estimation, null until it is known and where there is no A². */
  statistic: number | null;
  pSimulated: SimulatedP | null;
  /** A small plot: expected along, observed upwards, both as shares of the range of the readings; at most 40 places. */
  small: { expected: number[]; observed: number[] };
}

/** One that is ranked by AICc. */
export interface ComparedFamily extends FittedFamily {
  /** AICc less that of the best. */
  difference: number;
  /** Akaike weight among all that are ranked. */
  weight: number;
  /** Among the best whose weights sum to 0.95, and not rejected by A². */
  plausible: boolean;
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
  /** Those whose ends are found from the outermost readings: AICc does not compare them. */
  apart: FittedFamily[];
  /** Those that say nothing about these readings, and why. */
  left: { family: string; reason: string }[];
  notes: Note[];
}

export const plausibleOf = ({ families }: Pick<CompareFamiliesResult, 'families'>): ComparedFamily[] =>
  families.filter(({ plausible }) => plausible);

/** Is a family rejected by A²? While p is simulated it is not. */
export const isRejected = ({ pSimulated }: Pick<FittedFamily, 'pSimulated'>, level: number): boolean =>
  pSimulated !== null && pSimulated.pValue < level;

/**
 * The level below which A² removes a family from the plausible set: at the level itself the test alone would remove the true family as often as the whole set may miss it.
 */
export const rejectionLevel = (alpha: number): number => alpha / 5;
