import { log, log1p } from '../../numeric/elementary.js';
import { atan, tanUpToEighth } from '../../numeric/trigonometry.js';
import { defineFamily, LOCATION, SCALE, type Distribution } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { scaled } from '../scaled.js';

/** P(Z ≤ z); far below 0 as atan(1/|z|)/π, which keeps its digits. */
function lowerTail(z: number): number {
  return z < -1 ? atan(-1 / z) / Math.PI : 0.5 + atan(z) / Math.PI;
}

/** −1/tan(πp) below a quarter, tan(π(p − ½)) around the middle. */
function quantile(p: number): number {
  if (!(p >= 0 && p <= 1)) return NaN;
  if (p < 0.25) return -1 / tanUpToEighth(Math.PI * p);
  if (p > 0.75) return 1 / tanUpToEighth(Math.PI * (1 - p));
  return p < 0.5 ? -tanUpToEighth(Math.PI * (0.5 - p)) : tanUpToEighth(Math.PI * (p - 0.5));
}

const survivalQuantile = (q: number) => -quantile(q);

const standard: Distribution = {
  density: (z) => 1 / (Math.PI * (1 + z * z)),
  logDensity: (z) => -log(Math.PI) - (Math.abs(z) < 1e150 ? log1p(z * z) : 2 * log(Math.abs(z))),
  cumulative: lowerTail,
  survival: (z) => lowerTail(-z),
  quantile,
  survivalQuantile,
  mean: NaN,
  variance: NaN,
  skewness: NaN,
  kurtosis: NaN,
  support: { lower: -Infinity, upper: Infinity },
  sample: sampleByInversion(quantile, survivalQuantile),
};

/** The Cauchy distribution: its tails are so heavy that it has no mean (Johnson, Kotz & Balakrishnan 1994, ch. 16). */
export const cauchy = defineFamily({
  family: 'cauchy',
  title: 'Cauchy',
  about: 'Very heavy tails, without a mean: ratios of normal values, resonance lines.',
  parameters: [
    { ...LOCATION, name: 'location', meaning: 'the position of the peak: the median' },
    { ...SCALE, name: 'scale', meaning: 'half of the values lie within this distance of the location' },
  ],
  of: ({ location, scale }) => scaled(standard, location, scale),
  estimation: {
    start(x) {
      const n = x.length;
      const quarter = (x[Math.floor(0.75 * (n - 1))]! - x[Math.ceil(0.25 * (n - 1))]!) / 2;
      return { location: x[n >> 1]!, scale: quarter > 0 ? quarter : (x[n - 1]! - x[0]!) / 10 };
    },
  },
});
