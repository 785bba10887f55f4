import type { NormalityReplicates } from '../goodness-of-fit/normality/simulation.js';
import type { OutlierReplicates } from '../outliers/replicates.js';
import { leastTie } from '../numeric/ties.js';

/** Simulated samples under the null hypothesis, whose statistics form the table for p. */
export type TableOrder =
  | { kernel: 'normality-replicates'; input: NormalityReplicates }
  | { kernel: 'outlier-replicates'; input: OutlierReplicates };

/** The number of samples in a table: p is accurate to about one hundredth of itself at 0.05. */
export const TABLE_SAMPLES = 19_999;

/** p = (b + 1)/(B + 1) for a statistic whose large values are extreme, from a sorted table (Davison & Hinkley 1997, section 4.2.1). */
export function pByTable(table: ArrayLike<number>, statistic: number): number {
  const limit = leastTie(statistic);
  let [low, high] = [0, table.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (table[middle]! < limit) low = middle + 1;
    else high = middle;
  }
  return (table.length - low + 1) / (table.length + 1);
}
