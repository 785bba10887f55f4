import { refuse, type Refusal } from '../distributions/family.js';

/** Limits that readings lie below, and limits that readings lie above. */
export interface Limits {
  below: Float64Array;
  above: Float64Array;
}

/** For each of the sorted values, the number of sorted limits at or below it. */
function countUpTo(values: Float64Array, limits: Float64Array, ties: boolean): Int32Array {
  let at = 0;
  return Int32Array.from(values, (value) => {
    while (at < limits.length && (ties ? limits[at]! <= value : limits[at]! < value)) at++;
    return at;
  });
}

/** A rank that is whole but for the rounding of its products. */
const whole = (rank: number) => (Math.abs(rank - Math.round(rank)) < 1e-9 ? Math.round(rank) : rank);

/**
 * The ranks of sorted uncensored readings among censored ones: n times the estimated cumulative proportion at each of them, by Kaplan & Meier (1958)
 * for readings above a limit (right-censored), and by the same estimate from the other end for readings below one (left-censored). Without censored
 * readings 1 … n; ties keep separate ranks. A reading below a limit ranks below an uncensored one that equals the limit, and one above a limit above
 * it. Refused if a left-censoring limit is greater than a right-censoring one: then neither estimate applies.
 */
export function censoredRanks(sorted: Float64Array, limits: Limits): Float64Array | Refusal {
  const below = limits.below.toSorted();
  const above = limits.above.toSorted();
  const known = sorted.length;
  const n = known + below.length + above.length;
  if (below.length > 0 && above.length > 0 && below[below.length - 1]! > above[0]!) {
    return refuse(
      `Some readings lie below ${below[below.length - 1]!} and others above ${above[0]!}: ranks cannot be determined where such limits overlap.`,
    );
  }
  const ranks = new Float64Array(known);
  const belowUpTo = countUpTo(sorted, below, true);
  const aboveBefore = countUpTo(sorted, above, false);
  // From the greatest down as far as limits from below reach: F falls by one part of those that stand up to there.
  let share = 1 - above.length / n;
  for (let i = known - 1; i >= 0; i--) {
    ranks[i] = n * share;
    const upTo = i + 1 + belowUpTo[i]!;
    share *= (upTo - 1) / upTo;
  }
  // From the least up beyond every limit from below: survival falls by one part of those that stand from there on.
  let survival = 1 - below.length / n;
  for (let i = 0; i < known; i++) {
    const from = known - i + above.length - aboveBefore[i]!;
    survival *= (from - 1) / from;
    if (below.length === 0 || sorted[i]! > below[below.length - 1]!) ranks[i] = n * (1 - survival);
  }
  return ranks.map(whole);
}
