import { erf, erfc } from '../../numeric/error-function.js';
import { exp } from '../../numeric/elementary.js';
import { normalQuantile } from '../../numeric/standard-normal.js';
import { scaledBy, solveTail } from '../../numeric/tail-root.js';
import { fillNormals } from '../../random/normal.js';
import { defineFamily, refuse, SCALE, type Distribution } from '../family.js';
import { meanOf, readingsAbove } from '../readings-above.js';
import { scaled } from '../scaled.js';

const LOG_ROOT_TWO_PER_PI = -0.22579135264472743236;
const MEAN = Math.sqrt(2 / Math.PI);
const VARIANCE = 1 - 2 / Math.PI;

/** erf(z/√2) = p: from the normal's tail where that is exact, else by solving, since 1 − p would lose a small p. */
function quantile(p: number): number {
  if (!(p >= 0 && p <= 1)) return NaN;
  if (p === 0) return 0;
  if (p > 0.25) return -normalQuantile((1 - p) / 2);
  let z = p * Math.sqrt(Math.PI / 2);
  solveTail(
    p,
    false,
    (out) => {
      out.tail = erf(z * Math.SQRT1_2);
      out.slope = z * MEAN * exp(-0.5 * z * z);
      out.bend = 1 - z * z;
    },
    (step) => {
      z = scaledBy(z, step);
    },
  );
  return z;
}

/** |Z| of a standard normal Z. */
const standard: Distribution = {
  density: (x) => (x >= 0 ? MEAN * exp(-0.5 * x * x) : 0),
  logDensity: (x) => (x >= 0 ? LOG_ROOT_TWO_PER_PI - 0.5 * x * x : -Infinity),
  cumulative: (x) => (x > 0 ? erf(x * Math.SQRT1_2) : 0),
  survival: (x) => (x > 0 ? erfc(x * Math.SQRT1_2) : 1),
  quantile,
  survivalQuantile: (q) => (q > 0.75 ? quantile(1 - q) : -normalQuantile(q / 2)),
  mean: MEAN,
  variance: VARIANCE,
  skewness: (MEAN * (4 / Math.PI - 1)) / (VARIANCE * Math.sqrt(VARIANCE)),
  kurtosis: (8 * (Math.PI - 3)) / (Math.PI - 2) ** 2,
  support: { lower: 0, upper: Infinity },
  sample(stream, out) {
    fillNormals(stream, out);
    for (let i = 0; i < out.length; i++) out[i] = Math.abs(out[i]!);
  },
};

/** The half-normal distribution: the absolute value of a normal deviation (Johnson, Kotz & Balakrishnan 1994, ch. 13). */
export const halfNormal = defineFamily({
  family: 'half-normal',
  title: 'half-normal',
  about: 'The absolute value of a normal deviation: flatness, eccentricity, absolute errors.',
  parameters: [{ ...SCALE, name: 'scale', meaning: 'the standard deviation of the signed deviations' }],
  of: ({ scale }) => scaled(standard, 0, scale),
  estimation: {
    maximum(x) {
      const y = readingsAbove(x, 0, 'half-normal', true);
      return 'refused' in y ? y : { scale: Math.sqrt(meanOf(y, (v) => v * v)) };
    },
    fromMoments: (mean) =>
      mean > 0 ? { scale: mean / MEAN } : refuse('The mean of a half-normal distribution must be above 0.'),
  },
});
