/** In which direction evidence is sought: that the true figure is another than claimed, less, or greater. */
export type Alternative = 'two-sided' | 'less' | 'greater';

/** Both tails of a statistic under the claim: how likely one at most as great is, and one at least as great. */
export interface Tails {
  lower: number;
  upper: number;
}

/** The p of an alternative; of both directions twice the smaller tail, at most 1. */
export function pOfTails({ lower, upper }: Tails, alternative: Alternative): number {
  if (alternative === 'less') return Math.min(1, lower);
  return Math.min(1, alternative === 'greater' ? upper : 2 * Math.min(lower, upper));
}

/** An interval; null for an open end. */
export interface Interval {
  lower: number | null;
  upper: number | null;
}

/** The interval that goes with an alternative: both ends, or open on the side that evidence is sought on. `margin` gives how far to go for a tail of that share. */
export function intervalFor(
  centre: number,
  margin: (tail: number) => number,
  confidence: number,
  alternative: Alternative,
): Interval {
  const half = margin(tailOf(confidence, alternative));
  return {
    lower: alternative === 'less' ? null : centre - half,
    upper: alternative === 'greater' ? null : centre + half,
  };
}

/** The chance that an interval leaves out on each side that it has an end on. */
export const tailOf = (confidence: number, alternative: Alternative): number =>
  alternative === 'two-sided' ? (1 - confidence) / 2 : 1 - confidence;

/** The confidence of a two-sided interval whose one end is that of a one-sided one. */
export const bothSidesFor = (confidence: number, alternative: Alternative): number =>
  1 - 2 * tailOf(confidence, alternative);

/** A two-sided interval with the end that the alternative leaves open. */
export const openEnd = ([lower, upper]: readonly [number, number], alternative: Alternative): Interval => ({
  lower: alternative === 'less' ? null : lower,
  upper: alternative === 'greater' ? null : upper,
});
