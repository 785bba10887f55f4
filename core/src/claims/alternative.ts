/** The alternative hypothesis: the true figure differs from the claim, is less, or is greater. */
export type Alternative = 'two-sided' | 'less' | 'greater';

/** Both tails of a statistic under the claim: the probabilities of a value at most, and at least, as great. */
export interface Tails {
  lower: number;
  upper: number;
}

/** The p of an alternative; for the two-sided one twice the smaller tail, at most 1. */
export function pOfTails({ lower, upper }: Tails, alternative: Alternative): number {
  if (alternative === 'less') return Math.min(1, lower);
  return Math.min(1, alternative === 'greater' ? upper : 2 * Math.min(lower, upper));
}

/** An interval; null for an open end. */
export interface Interval {
  lower: number | null;
  upper: number | null;
}

/**
 * The confidence interval that corresponds to an alternative: two-sided, or open on the side of the alternative. `margin` gives the half-width for a
 * tail probability.
 */
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

/** The probability excluded on each side on which the interval has an end. */
export const tailOf = (confidence: number, alternative: Alternative): number =>
  alternative === 'two-sided' ? (1 - confidence) / 2 : 1 - confidence;

/** The confidence of the two-sided interval that shares an end with a one-sided one. */
export const bothSidesFor = (confidence: number, alternative: Alternative): number =>
  1 - 2 * tailOf(confidence, alternative);

/** A two-sided interval without the end that the alternative leaves open. */
export const openEnd = ([lower, upper]: readonly [number, number], alternative: Alternative): Interval => ({
  lower: alternative === 'less' ? null : lower,
  upper: alternative === 'greater' ? null : upper,
});
