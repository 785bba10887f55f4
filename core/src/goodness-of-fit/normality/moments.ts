import { exp } from '../../numeric/elementary.js';

/** g1 and g2 of standard scores (divisor n − 1), into two places: in a hot loop nothing is allocated. */
export function shapeOfScores(scores: Float64Array, into: Float64Array): void {
  const n = scores.length;
  let third = 0;
  let fourth = 0;
  for (let i = 0; i < n; i++) {
    const square = scores[i]! * scores[i]!;
    third += square * scores[i]!;
    fourth += square * square;
  }
  const m2 = (n - 1) / n;
  into[0] = third / n / (m2 * Math.sqrt(m2));
  into[1] = fourth / n / (m2 * m2) - 3;
}

/** n/6 · (g1² + g2²/4) (Jarque & Bera 1980). */
export const jarqueBera = (g1: number, g2: number, n: number): number => (n / 6) * (g1 * g1 + (g2 * g2) / 4);

/** The upper tail of χ² with two degrees of freedom: of K² (D'Agostino & Pearson 1973) and, for large n only, of Jarque and Bera's statistic. */
export const chiSquareTwo = (x: number): number => exp(-x / 2);
