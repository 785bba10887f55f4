import type { Interval } from '../../claims/alternative.js';
import type { Note } from '../../readings/note.js';
import type { Piled } from '../../road/piled.js';
import type { CountedShare } from './simulate-result.js';

/** What an input adds. */
export interface Contribution {
  name: string;
  mean: number | null;
  sd: number | null;
  /** How much the result changes per unit of it; null where there is no first order. */
  sensitivity: number | null;
  /** What it adds to the variance to the first order, (cᵢuᵢ)²; null where there is no first order. */
  variance: number | null;
  /** The sd of the result while it stands still at its mean; null while it is not worked out. */
  without: number | null;
  /** By how much that takes the variance down, as a share of it; null where inputs are correlated. */
  share: number | null;
}

/** What two correlated inputs add together to the first order: 2cᵢcⱼuᵢuⱼrᵢⱼ. */
export interface Covariance {
  first: string;
  second: string;
  variance: number;
}

export interface PropagateResult extends Piled {
  available: true;
  formula: string;
  inputs: string;
  /** How many trials were drawn, and whether two digits of the sd and both ends are settled (JCGM 101, 7.9); null where so many were asked for. */
  trials: number;
  stable: boolean | null;
  confidence: number;
  seed: number;
  /** Trials without a result: a division by zero, a root of what is below it. */
  undefined: number;
  mean: number | null;
  sd: number | null;
  interval: Interval | null;
  shortest: Interval | null;
  /** Half a unit of the second digit of the sd: results are told to it. */
  tolerance: number | null;
  outside: (CountedShare & { lowerLimit: number | null; upperLimit: number | null }) | null;
  /** The law of propagation to the first order (GUM), with whether its interval agrees within the tolerance (JCGM 101, 8.1.3), as far as so many trials tell; null where too few do. */
  firstOrder: { estimate: number; sd: number; lower: number; upper: number; agrees: boolean | null } | null;
  contributions: Contribution[];
  covariances: Covariance[];
  /** Why mean and sd are not told, or null. */
  unsettled: string | null;
  median: number | null;
  notes: Note[];
}
