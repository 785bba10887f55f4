import { exp, log, log1p } from '../../numeric/elementary.js';
import { centralMoments } from '../../numeric/sums.js';
import { defineFamily, LOCATION, SCALE, type Distribution, type Parameters } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { scaled } from '../scaled.js';

/** log(p/(1 − p)), exact also next to p = ½, where it is 2·artanh(2p − 1). */
export function logit(p: number): number {
  const d = 2 * p - 1;
  return Math.abs(d) < 0.1 ? log1p((2 * d) / (1 - d)) : log(p / (1 - p));
}

const survivalQuantile = (q: number) => -logit(q);
/** The lower tail at z; the upper tail is that of −z. */
const tail = (z: number) => (z > 0 ? 1 / (1 + exp(-z)) : exp(z) / (1 + exp(z)));

const VARIANCE = (Math.PI * Math.PI) / 3;

const standard: Distribution = {
  density: (z) => tail(z) * tail(-z),
  logDensity: (z) => -Math.abs(z) - 2 * log1p(exp(-Math.abs(z))),
  cumulative: tail,
  survival: (z) => tail(-z),
  quantile: logit,
  survivalQuantile,
  mean: 0,
  variance: VARIANCE,
  skewness: 0,
  kurtosis: 1.2,
  support: { lower: -Infinity, upper: Infinity },
  sample: sampleByInversion(logit, survivalQuantile),
};

/** Gradient and Hessian of the log-likelihood, at a and b as below. */
function likelihoodAt(x: Float64Array, a: number, b: number) {
  let [value, ga, gb, haa, hab, hbb] = [x.length * log(a), x.length / a, 0, -x.length / (a * a), 0, 0];
  for (let i = 0; i < x.length; i++) {
    const z = a * x[i]! - b;
    const e = exp(-Math.abs(z));
    const lower = z > 0 ? 1 / (1 + e) : e / (1 + e);
    const slope = 2 * lower - 1;
    const bend = 2 * lower * (1 - lower);
    value -= Math.abs(z) + 2 * log1p(e);
    ga -= x[i]! * slope;
    gb += slope;
    haa -= x[i]! * x[i]! * bend;
    hab += x[i]! * bend;
    hbb -= bend;
  }
  return { value, ga, gb, haa, hab, hbb };
}

/**
 * The greatest likelihood of a logistic by Newton's steps in a = 1/scale and b = location/scale, in which its logarithm is concave (Burridge 1981), so
 * that a halved step always climbs.
 */
export function fitLogistic(x: Float64Array): { location: number; scale: number } {
  const { mean, s2, n } = centralMoments(x);
  const unit = Math.sqrt(s2 / n);
  // About 0 and of one size: neither an offset nor the unit costs digits.
  const y = x.map((v) => (v - mean) / unit);
  let a = Math.sqrt(VARIANCE);
  let b = 0;
  let here = likelihoodAt(y, a, b);
  for (let round = 0; round < 100; round++) {
    const { ga, gb, haa, hab, hbb } = here;
    const det = haa * hbb - hab * hab;
    let [da, db] = [(hab * gb - hbb * ga) / det, (hab * ga - haa * gb) / det];
    if (!Number.isFinite(da + db)) break;
    let next = here;
    for (let halving = 0; halving < 30; halving++, da /= 2, db /= 2) {
      if (a + da <= 0) continue;
      next = likelihoodAt(y, a + da, b + db);
      if (next.value >= here.value - 1e-13 * Math.abs(here.value)) break;
    }
    if (!(a + da > 0)) break;
    [a, b, here] = [a + da, b + db, next];
    // The error of the next step would be the square of this one.
    if (Math.abs(da) < 1e-9 * a && Math.abs(db) < 1e-9) break;
  }
  return { location: mean + (unit * b) / a, scale: unit / a };
}

/** The logistic distribution (Johnson, Kotz & Balakrishnan 1995, ch. 23). */
export const logistic = defineFamily({
  family: 'logistic',
  title: 'logistic',
  about: 'Symmetric like the normal distribution, with somewhat heavier tails.',
  parameters: [
    { ...LOCATION, name: 'location', meaning: 'the centre: the mean and the median' },
    { ...SCALE, name: 'scale', meaning: 'the standard deviation is 1.81 times this' },
  ],
  of: ({ location, scale }) => scaled(standard, location, scale),
  estimation: {
    maximum: (x): Parameters => ({ ...fitLogistic(x) }),
    fromMoments: (mean, variance) => ({ location: mean, scale: Math.sqrt(variance / VARIANCE) }),
  },
});
