import { centralMoments } from '../numeric/sums.js';
import { evaluatorOf, isOfPairs, type Statistic } from './statistic.js';

/** Up to this n each reading is left out individually; above, readings are left out in blocks. */
const MOST_SINGLE = 2_000;
const BLOCKS = 200;

/** The statistic without each reading, or block of readings, of each group; for pairs without each pair. */
export function jackknife(statistic: Statistic, groups: readonly Float64Array[]): Float64Array[] {
  const evaluate = evaluatorOf(statistic);
  const together = isOfPairs(statistic);
  const means = (statistic.of === 'one' || statistic.of === 'difference') && statistic.figure.name === 'mean';
  return (together ? groups.slice(0, 1) : groups).map((values, g) => {
    const { length: n } = values;
    if (means) {
      const { mean } = centralMoments(values);
      const sign = g === 0 ? 1 : -1;
      const whole = evaluate(groups);
      return values.map((value) => whole + (sign * (mean - value)) / (n - 1));
    }
    const parts = n <= MOST_SINGLE ? n : BLOCKS;
    const without = (column: Float64Array, k: number) => column.filter((_, i) => i % parts !== k);
    return Float64Array.from({ length: parts }, (_, k) =>
      evaluate(together ? groups.map((column) => without(column, k)) : groups.with(g, without(values, k))),
    );
  });
}

/**
 * The acceleration of BCa intervals by the jackknife: Σl³/(6(Σl²)^1.5) of the influence values l (Efron 1987, equation 6.6); with several samples
 * each is weighted by its n (Efron & Tibshirani 1993, exercise 14.6). Null if leaving one out leaves too few readings.
 */
export function acceleration(statistic: Statistic, groups: readonly Float64Array[]): number | null {
  let [cubes, squares] = [0, 0];
  for (const without of jackknife(statistic, groups)) {
    const n = without.length;
    const { mean } = centralMoments(without);
    for (const value of without) {
      const influence = ((n - 1) * (mean - value)) / n;
      squares += influence ** 2;
      cubes += influence ** 3;
    }
  }
  if (!Number.isFinite(cubes) || !Number.isFinite(squares)) return null;
  return squares > 0 ? cubes / (6 * squares * Math.sqrt(squares)) : null;
}
