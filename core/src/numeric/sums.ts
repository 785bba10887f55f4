/** The sum of the values with Neumaier's (1974) compensation: exact to one rounding unless the terms cancel wholly. */
export function compensatedSum(values: ArrayLike<number>): number {
  let sum = 0;
  let lost = 0;
  for (let i = 0; i < values.length; i++) {
    const x = values[i]!;
    const t = sum + x;
    lost += Math.abs(sum) >= Math.abs(x) ? sum - t + x : x - t + sum;
    sum = t;
  }
  return sum + lost;
}

export interface CentralMoments {
  n: number;
  sum: number;
  mean: number;
  /** Sums of the 2nd, 3rd and 4th powers of the deviations from the mean. */
  s2: number;
  s3: number;
  s4: number;
}

/**
 * Sums of powers about the mean in two passes; the second corrects the rounding of the first
 * (Chan, Golub & LeVeque 1983, eq. 1.7), so a large common offset costs no digits.
 */
export function centralMoments(values: ArrayLike<number>): CentralMoments {
  const n = values.length;
  const sum = compensatedSum(values);
  const rough = sum / n;
  let drift = 0;
  for (let i = 0; i < n; i++) drift += values[i]! - rough;
  const correction = drift / n;
  let s2 = 0;
  let s3 = 0;
  let s4 = 0;
  for (let i = 0; i < n; i++) {
    const d = values[i]! - rough - correction;
    const q = d * d;
    s2 += q;
    s3 += q * d;
    s4 += q * q;
  }
  return { n, sum, mean: rough + correction, s2, s3, s4 };
}
