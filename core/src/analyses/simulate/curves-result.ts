import type { Note } from '../../readings/note.js';
import type { Along } from './curves-settings.js';
import type { PopulationTruth } from './simulate-result.js';

/** How often a test has a p below the level, at one place of the axis. */
export interface CurvePoint {
  value: number;
  /** Readings in a sample, of every group. */
  sizes: number[];
  count: number;
  replicates: number;
  /** Null until it is simulated. */
  share: number | null;
  lower: number | null;
  upper: number | null;
  /** By a formula that is exact; null where there is none. */
  exact: number | null;
  /** Samples without a p. */
  undefined: number;
  /** True where what the test claims holds there: the share is one of errors. */
  holds: boolean;
}

export interface Curve {
  test: string;
  name: string;
  short: string;
  points: CurvePoint[];
  /** Where the chance that is wanted is reached, between two points; null where it is not. */
  crossing: number | null;
}

export interface CurvesResult {
  available: true;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  population: PopulationTruth;
  along: Along;
  curves: Curve[];
  /** What there is to notice besides what is changed: "a shift of 0.5 sd". */
  effect: string | null;
  alpha: number;
  /** The chance that is wanted. */
  power: number;
  replicates: number;
  seed: number;
  notes: Note[];
}
