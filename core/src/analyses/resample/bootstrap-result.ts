import type { Interval } from '../../claims/alternative.js';
import type { Note } from '../../readings/note.js';
import type { Distribution, Frame, Replicates } from '../../resampling/distribution.js';
import type { IntervalName, ResampledInterval } from '../../resampling/intervals.js';
import type { Scale } from '../../road/told.js';

/** What both redrawing and shuffling tell of what they look at. */
export interface ResampledHead {
  available: true;
  typed: boolean;
  n: number;
  missing: number;
  setAside: number;
  unit: string;
  resolution: number | null;
  as: Scale['as'];
  /** What the statistic is: a place, a spread, a difference, or a bare number. */
  kind: 'location' | 'spread' | 'difference';
  /** "the mean of thickness". */
  what: string;
  groups: { name: string; n: number }[];
  observed: number;
  /** How many replicates were drawn, of how many that are wanted, and from which seed on. */
  replicates: number;
  wanted: number;
  seed: number;
  distribution: Distribution;
  /** How they are piled up; null until a pilot has told. */
  frame: Frame | null;
  /** The statistics of the replicates in the order of their drawing, while these are no more than 200; none beyond. Null where a replicate has no such figure. */
  dots: (number | null)[];
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

/** The statistics of a few replicates, each in its place. */
export const dotsOf = ({ chunks, stride }: Replicates, by = 0): (number | null)[] =>
  chunks.flatMap((chunk) =>
    Array.from(
      chunk.filter((_, i) => i % stride === 0),
      (value) => (Number.isFinite(value) ? value + by : null),
    ),
  );

/** A picture that grows names no replicate: chunks that are still under way leave gaps among the numbers. */
export const withoutNumbers = <R extends ResampledHead>(result: R): R => ({
  ...result,
  dots: [],
  distribution: { ...result.distribution, examples: result.distribution.examples.map(() => 0) },
});

/** As many replicates are drawn as dots. */
export const MOST_DOTS = 200;
