import { exp, log } from '../numeric/elementary.js';

const HUGE = 2 ** 500;
const TINY = 2 ** -500;

/**
 * The geometric mean of readings that are all above 0, else null. Readings are multiplied, and the logarithm is taken only when the product leaves
 * the middle range of doubles: each factor adds half a rounding error, and n of them are divided by n again.
 */
export function geometricMean(values: Float64Array): number | null {
  let logs = 0;
  let product = 1;
  for (let i = 0; i < values.length; i++) {
    const x = values[i]!;
    if (!(x > 0)) return null;
    if (x > HUGE || x < TINY) {
      logs += log(x);
      continue;
    }
    product *= x;
    if (product > HUGE || product < TINY) {
      logs += log(product);
      product = 1;
    }
  }
  return exp((logs + log(product)) / values.length);
}
