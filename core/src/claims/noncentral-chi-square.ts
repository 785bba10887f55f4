import { exp, log } from '../numeric/elementary.js';
import { gammaUpper } from '../numeric/gamma-tails.js';
import { betaUpper } from '../numeric/beta-tails.js';
import { logGamma } from '../numeric/log-gamma.js';

const FAR = 40;

/** Weights of a Poisson below this part of the greatest add nothing. */
const NEGLIGIBLE = 1e-17;

/** The mean of a rising sequence over a Poisson of this mean, from its summit outwards. */
function overPoisson(mean: number, of: (j: number) => number): number {
  const summit = Math.floor(mean);
  const top = mean === 0 ? 1 : exp(summit * log(mean) - mean - logGamma(summit + 1));
  let sum = top * of(summit);
  for (let [j, weight] = [summit, top]; j > 0 && weight > top * NEGLIGIBLE; j--) {
    weight *= j / mean;
    sum += weight * of(j - 1);
  }
  for (let [j, weight] = [summit + 1, top]; ; j++) {
    weight *= mean / j;
    if (weight <= top * NEGLIGIBLE) return Math.min(1, sum);
    sum += weight * of(j);
  }
}

/** P(X > x) of the noncentral χ² with df degrees of freedom: χ² of df + 2j over a Poisson of half the noncentrality (Patnaik 1949). It serves power, and is not offered as a family. */
export function noncentralChiSquareSurvival(x: number, df: number, noncentrality: number): number {
  // So many sd below the mean there is nothing.
  if (x < df + noncentrality - FAR * Math.sqrt(2 * (df + 2 * noncentrality))) return 1;
  return overPoisson(noncentrality / 2, (j) => gammaUpper(df / 2 + j, x / 2));
}

/** P(F > x) of the noncentral F: the numerator a noncentral χ² (Patnaik 1949). It serves power. */
export function noncentralFSurvival(x: number, [df1, df2]: readonly [number, number], noncentrality: number): number {
  const below = (df1 * x) / (df1 * x + df2);
  const above = df2 / (df1 * x + df2);
  return overPoisson(noncentrality / 2, (j) => betaUpper(df1 / 2 + j, df2 / 2, below, above));
}
