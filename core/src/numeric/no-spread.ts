/** The relative magnitude below which distances are rounding errors: 1e-12 (STATISTICS section 10). */
const ROUNDING = 1e-12;

/**
 * True where values differ by no more than rounding: their largest distance from their mean is below 1e-12 of the largest magnitude that went into them. `magnitude` is given
 * for differences and residuals, which are small beside the readings they were taken from.
 */
export function hasNoSpread(values: ArrayLike<number>, magnitude = 0): boolean {
  const n = values.length;
  if (n === 0) return true;
  let [sum, greatest] = [0, magnitude];
  for (let i = 0; i < n; i++) {
    sum += values[i]! / n;
    greatest = Math.max(greatest, Math.abs(values[i]!));
  }
  let far = 0;
  for (let i = 0; i < n; i++) far = Math.max(far, Math.abs(values[i]! - sum));
  return far <= ROUNDING * greatest;
}

/** The largest magnitude of several samples. */
export function magnitudeOf(...samples: readonly ArrayLike<number>[]): number {
  let greatest = 0;
  for (const values of samples)
    for (let i = 0; i < values.length; i++) greatest = Math.max(greatest, Math.abs(values[i]!));
  return greatest;
}
