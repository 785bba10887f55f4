import { centralMoments } from '../numeric/sums.js';
import { studentisedRange } from './studentised-range.js';

export interface PairOfMeans {
  /** Places of the two groups. */
  i: number;
  j: number;
  difference: number;
  pValue: number;
  interval: [number, number];
}

/** All pairs of several means with the level shared by the studentised range (Tukey 1953; Kramer 1956 for groups of unequal size). */
export function tukeyKramer(groups: readonly ArrayLike<number>[], confidence: number): PairOfMeans[] {
  const all = groups.map((values) => centralMoments(values));
  const df = all.reduce((sum, { n }) => sum + n - 1, 0);
  const variance = all.reduce((sum, { s2 }) => sum + s2, 0) / df;
  const law = studentisedRange(groups.length, df);
  const reach = law.survivalQuantile(1 - confidence);
  return all.flatMap((a, i) =>
    all.slice(i + 1).map((b, k): PairOfMeans => {
      const error = Math.sqrt((variance / 2) * (1 / a.n + 1 / b.n));
      const difference = a.mean - b.mean;
      return {
        ...{ i, j: i + 1 + k, difference, pValue: law.survival(Math.abs(difference) / error) },
        interval: [difference - reach * error, difference + reach * error],
      };
    }),
  );
}
