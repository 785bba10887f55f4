import type { Note } from '../../readings/note.js';
import type { Theory } from '../../simulation/theory.js';
import type { Piled } from '../../road/piled.js';
import type { Notation } from '../../road/formatted.js';

/** A share of samples, with its 95 % interval (Clopper & Pearson 1934). */
export interface CountedShare {
  count: number;
  of: number;
  share: number;
  lower: number;
  upper: number;
}

/** One of the first intervals that were drawn. */
export interface DrawnInterval {
  lower: number;
  upper: number;
  covers: boolean;
}

/** What is true of the population that is drawn from. */
export interface PopulationTruth {
  words: string;
  /** Null where there is none. */
  mean: number | null;
  sd: number | null;
  median: number;
  /** How many there are; null without end. */
  size: number | null;
}

export interface SimulateResult extends Piled, Notation {
  available: true;
  missing: number;
  setAside: number;
  population: PopulationTruth;
  /** Readings in a sample, of every group. */
  sizes: number[];
  repeated: 'statistic' | 'test' | 'interval';
  /** "the mean of samples of 10", "p of the t test of the mean". */
  what: string;
  /** How many samples were drawn, of how many that are wanted, and from which seed on. */
  replicates: number;
  wanted: number;
  seed: number;
  alpha: number;
  confidence: number;
  /** Samples of which there is no such figure, or no p, or no interval. */
  undefined: number;
  /** Of a statistic: of the values that there are. */
  mean: number | null;
  sd: number | null;
  quantiles: { share: number; value: number }[];
  /** What the statistic, or the interval, is after; null where that is not known. */
  truth: number | null;
  theory:
    | (Theory & {
        /** How many samples it gives each value, or each bin, of the distribution. */
        expected: number[];
      })
    | null;
  /** Of a test: true where what it claims holds of the population. */
  holds: boolean | null;
  /** Why it does not, or what it claims: "its mean is 8.02". */
  claim: string;
  /** What there is to notice: "a shift of 0.5 sd"; null where nothing is moved or widened. */
  effect: string | null;
  /** Of a test whose p is read from a simulated table: the samples in the table; null where p has a formula, or is exact. */
  table: number | null;
  /** Samples whose p is below the level. */
  belowAlpha: CountedShare | null;
  /** Intervals that cover what is true, and those that lie below it, and above. */
  coverage: (CountedShare & { tooLow: number; tooHigh: number; width: number | null }) | null;
  firsts: DrawnInterval[];
  notes: Note[];
}
