import { DRIFT_LEAST_N } from '../describe/drift.js';
import { smallestNoticeable } from './power-of-t.js';

/** The efficiency of ranks for a linear trend over equally spaced rows, in readings (Stuart 1954): (3/π)^(1/3). */
const KEPT_BY_RANKS = 0.984745;

/**
 * The rise from the first to the last of n normal readings, in sds about the trend, that this test detects 80 % of the time: that of the slope by t (its standard error is
 * σ/√Σ(i − ī)²) with a little more for ranks. Within 0.03 of simulated power from n = 10 on (tested). Null below n = 10, where nothing is tested.
 */
export function detectableDrift(n: number, alpha: number): number | null {
  if (n < DRIFT_LEAST_N) return null;
  const rows = Math.sqrt((n * (n * n - 1)) / 12);
  const found = smallestNoticeable({ df: n - 2, perSd: 1 }, alpha, 'two-sided');
  return found === null ? null : (found * (n - 1)) / rows / Math.sqrt(KEPT_BY_RANKS);
}
