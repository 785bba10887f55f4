import type { Distribution, Frame, Replicates } from '../resampling/distribution.js';

/** What replicates are as a picture piles them up. */
export interface Piled {
  distribution: Distribution;
  /** How they are piled up; null until a pilot has told. */
  frame: Frame | null;
  /** The statistics of the replicates in the order of their drawing, while these are no more than 200; none beyond. Null where a replicate has no such figure. */
  dots: (number | null)[];
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
export const withoutNumbers = <R extends Piled>(result: R): R => ({
  ...result,
  dots: [],
  distribution: { ...result.distribution, examples: result.distribution.examples.map(() => 0) },
});

/** As many replicates are drawn as dots. */
export const MOST_DOTS = 200;
