/** The mean distance from a centre. */
export function meanDistance(values: Float64Array, centre: number): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += Math.abs(values[i]! - centre);
  return sum / values.length;
}

/**
 * The median absolute deviation from the median of readings in rising order (raw, not scaled). The distances rise on both sides of the median, so
 * they are merged from the middle outwards and need no sorting.
 */
export function medianDistance(sorted: Float64Array, median: number): number {
  const n = sorted.length;
  let right = 0;
  while (right < n && sorted[right]! < median) right++;
  let left = right - 1;
  const middle = n >> 1;
  let before = 0;
  let distance = 0;
  for (let k = 0; k <= middle; k++) {
    before = distance;
    const down = left >= 0 ? median - sorted[left]! : Infinity;
    const up = right < n ? sorted[right]! - median : Infinity;
    if (down < up) {
      distance = down;
      left--;
    } else {
      distance = up;
      right++;
    }
  }
  return n % 2 === 1 ? distance : before + (distance - before) / 2;
}
