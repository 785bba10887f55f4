import type { Interval } from '../../claims/alternative.js';
import type { Note } from '../../readings/note.js';
import type { IntervalName, ResampledInterval } from '../../resampling/intervals.js';
import type { Piled } from '../../road/piled.js';
import type { Notation } from '../../road/formatted.js';

/** What both redrawing and shuffling tell of what they look at. */
export interface ResampledHead extends Piled, Notation {
  available: true;
  typed: boolean;
  n: number;
  missing: number;
  setAside: number;
  /** "the mean of thickness". */
  what: string;
  groups: { name: string; n: number }[];
  observed: number;
  /** How many replicates were drawn, of how many that are wanted, and from which seed on. */
  replicates: number;
  wanted: number;
  seed: number;
  notes: Note[];
}

export interface BootstrapResult extends ResampledHead {
  /** How many times as many readings were drawn as there are. */
  times: number;
  /** Replicates of which there is no such figure: no spread, or a mean of 0 to divide by. */
  undefined: number;
  /** The mean of the replicates. */
  mean: number | null;
  standardError: number | null;
  /** The mean of the replicates less what was observed. */
  bias: number | null;
  confidence: number;
  intervals: Record<IntervalName, ResampledInterval | null>;
  /** Which of them the finding quotes, and which one is recommended; null while there is none. */
  main: IntervalName | null;
  recommended: IntervalName | null;
  /** Why that one is. */
  why: string;
  /** The interval by formula, where there is one. */
  formula: (Interval & { name: string }) | null;
  /** How many different values the replicates have, where these are few. */
  different: number | null;
}
