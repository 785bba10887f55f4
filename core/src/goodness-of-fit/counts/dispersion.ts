/**
 * The dispersion of counts relative to their family: Σ (x − mean)²/mean for Poisson (Fisher 1950), Σ (x − m·p)²/(m·p·(1 − p)) for binomial counts out
 * of m trials each. About n − 1 if the family holds, with a distribution near χ² with n − 1 degrees of freedom if the expected counts are not small.
 */
export function dispersionOf(counts: Float64Array, trials: readonly number[] | null): number {
  const n = counts.length;
  let total = 0;
  for (let i = 0; i < n; i++) total += counts[i]!;
  let squares = 0;
  if (!trials) {
    const mean = total / n;
    for (let i = 0; i < n; i++) squares += (counts[i]! - mean) ** 2;
    return squares / mean;
  }
  let all = 0;
  for (const m of trials) all += m;
  const p = total / all;
  for (let i = 0; i < n; i++) {
    const m = trials[i]!;
    if (m > 0) squares += (counts[i]! - m * p) ** 2 / (m * p * (1 - p));
  }
  return squares;
}

/** The number of zeros. */
export function zerosOf(counts: Float64Array): number {
  let zeros = 0;
  for (let i = 0; i < counts.length; i++) if (counts[i] === 0) zeros++;
  return zeros;
}
