import { exp } from '../../numeric/elementary.js';

const LEAST_N = 8;
/** The quadratic of the last stretch turns upwards beyond. */
const GREATEST = 1.1;

/** The p-value of W² with estimated mean and sd, by W²(1 + 0.5/n) (D'Agostino & Stephens 1986, table 4.9); null below n = 8 and beyond its range. */
export function cramerVonMisesAsymptotic(statistic: number, n: number): number | null {
  const w = statistic * (1 + 0.5 / n);
  if (n < LEAST_N || w > GREATEST) return null;
  if (w >= 0.092) return exp(1.111 - 34.242 * w + 12.832 * w * w);
  if (w >= 0.051) return exp(0.886 - 31.62 * w + 10.897 * w * w);
  if (w >= 0.0275) return 1 - exp(-5.903 + 179.546 * w - 1515.29 * w * w);
  return 1 - exp(-13.953 + 775.5 * w - 12542.61 * w * w);
}
