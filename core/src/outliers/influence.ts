import { centralMoments } from '../numeric/sums.js';

/** Mean and SD without each reading in turn, in the given order. At least three readings. */
export interface Influence {
  mean: Float64Array;
  sd: Float64Array;
}

/**
 * Mean and SD with each reading left out: the mean changes by −(x − mean)/(n − 1), the sum of squares decreases by n/(n − 1)·(x − mean)² (the
 * updating formulas of Chan, Golub & LeVeque 1983, reversed). If rounding errors would dominate the remainder, it is computed directly.
 */
export function influenceOf(values: Float64Array): Influence {
  const { n, mean, s2 } = centralMoments(values);
  const means = new Float64Array(n);
  const sds = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const d = values[i]! - mean;
    means[i] = mean - d / (n - 1);
    const rest = s2 - (n / (n - 1)) * d * d;
    const squares = rest > 1e-6 * s2 ? rest : centralMoments(values.filter((_, k) => k !== i)).s2;
    sds[i] = Math.sqrt(squares / (n - 2));
  }
  return { mean: means, sd: sds };
}
