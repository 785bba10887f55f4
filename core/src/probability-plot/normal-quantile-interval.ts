import { noncentralT } from '../claims/noncentral-t.js';
import { bracketedRoot } from '../numeric/bracketed-root.js';
import { normalCumulative, normalQuantile } from '../numeric/standard-normal.js';

/** Mean and sd (divisor n − 1) of n normal readings. */
export interface NormalFit {
  n: number;
  mean: number;
  sd: number;
}

/**
 * The exact interval of the quantile of a normal from its readings: (q − x̄)√n/s has a noncentral t on n − 1 degrees of freedom with noncentrality √n·z (Owen 1968; Hahn & Meeker
 * 1991, section 4.4). For the median it is the t interval of the mean.
 */
export function normalQuantileInterval({ n, mean, sd }: NormalFit, p: number, confidence: number) {
  const root = Math.sqrt(n);
  const law = noncentralT(n - 1, root * normalQuantile(p));
  const tail = (1 - confidence) / 2;
  return { lower: mean + (sd * law.quantile(tail)) / root, upper: mean + (sd * law.quantile(1 - tail)) / root };
}

/** As far as a noncentrality is looked for. */
const MOST = 60;

/** The exact interval of the proportion of a normal below a value, by the same distribution solved for its noncentrality. */
export function normalShareInterval({ n, mean, sd }: NormalFit, value: number, confidence: number) {
  const root = Math.sqrt(n);
  const t = (root * (value - mean)) / sd;
  const tail = (1 - confidence) / 2;
  // The larger the noncentrality, the less likely a value so far down.
  const at = (share: number) => {
    const off = (delta: number) => noncentralT(n - 1, delta).cumulative(t) - share;
    let [low, high] = [Math.min(0, t) - 2, Math.max(0, t) + 2];
    for (let reach = 2; off(low) < 0 && reach < MOST * root; reach *= 2) low = Math.min(0, t) - reach;
    for (let reach = 2; off(high) > 0 && reach < MOST * root; reach *= 2) high = Math.max(0, t) + reach;
    if (off(low) < 0 || off(high) > 0) return null;
    return normalCumulative(bracketedRoot(off, low, high, 1e-9) / root);
  };
  const [lower, upper] = [at(1 - tail), at(tail)];
  return lower === null || upper === null ? null : { lower, upper };
}
