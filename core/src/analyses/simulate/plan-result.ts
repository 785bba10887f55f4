import type { Note } from '../../readings/note.js';
import type { PopulationTruth } from './simulate-result.js';

/** A size that was tried. */
export interface Tried {
  n: number;
  power: number;
  /** 95 % interval of the chance; null where it is exact. */
  lower: number | null;
  upper: number | null;
  replicates: number;
}

export interface PlanResult {
  available: true;
  missing: number;
  setAside: number;
  population: PopulationTruth;
  test: string;
  name: string;
  claim: string;
  /** What there is to notice: "a shift of 0.5 sd"; null where nothing is moved or widened. */
  effect: string | null;
  alpha: number;
  /** The least n that will do, in each group where there are two; null while it is not known, or where none does. */
  n: number | null;
  /** The chance with that n. */
  power: number | null;
  wanted: number;
  exact: boolean;
  groups: 1 | 2;
  /** What the simulation leaves open: fewer are too few for certain, and with so many it is certain. Null where it is exact. */
  atLeast: number | null;
  atMost: number | null;
  tried: Tried[];
  /** Readings drawn, where their number ended the search before its bounds were certain. */
  drawn?: number;
  /** The most that was looked at, where none does. */
  most: number | null;
  seed: number;
  notes: Note[];
}
