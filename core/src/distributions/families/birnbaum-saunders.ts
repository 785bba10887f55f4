import { exp, log, productRest, sumRest } from '../../numeric/elementary.js';
import { normalQuantile, normalSurvivalAt } from '../../numeric/standard-normal.js';
import { fillNormals } from '../../random/normal.js';
import { defineFamily, refuse, SCALE, shapeParameter, type Distribution } from '../family.js';
import { meanOf, readingsAbove } from '../readings-above.js';
import { scaled } from '../scaled.js';

const LOG_ROOT_TWO_PI = 0.918938533204672741780329736406;

/** The value whose score is z: (w + √(w² + 1))² with w = αz/2, for w < 0 as the reciprocal of its mirror image. */
function valueAt(alpha: number, z: number): number {
  const w = 0.5 * alpha * Math.abs(z);
  const root = w + Math.sqrt(w * w + 1);
  return z < 0 ? 1 / (root * root) : root * root;
}

/** Scale 1: (√x − 1/√x)/α is standard normal (Birnbaum & Saunders 1969). */
function standardOf(alpha: number): Distribution {
  const score = (x: number) => (x - 1) / (alpha * Math.sqrt(x));
  const logDensity = (x: number) => log((x + 1) / (2 * alpha)) - 1.5 * log(x) - 0.5 * score(x) ** 2 - LOG_ROOT_TWO_PI;
  /** The upper (1) or lower (−1) tail, the score carried with what it loses to rounding. */
  const tail = (x: number, side: 1 | -1): number => {
    const root = Math.sqrt(x);
    const d = x - 1;
    const divisor = alpha * root;
    const z = d / divisor;
    const back = z * divisor;
    // √x·α is off by the rest of the root and of the product; d by that of the difference.
    const square = root * root;
    const rootRest = (x - square - productRest(root, root, square)) / (2 * root);
    const divisorRest = productRest(alpha, root, divisor) + alpha * rootRest;
    const rest = (sumRest(x, -1, d) + (d - back - productRest(z, divisor, back)) - z * divisorRest) / divisor;
    return normalSurvivalAt(side * z, side * rest);
  };
  const a2 = alpha * alpha;
  const base = 5 * a2 + 4;
  return {
    density: (x) => (x > 0 ? exp(logDensity(x)) : 0),
    logDensity: (x) => (x > 0 ? logDensity(x) : -Infinity),
    cumulative: (x) => (x > 0 ? (x === Infinity ? 1 : tail(x, -1)) : 0),
    survival: (x) => (x > 0 ? (x === Infinity ? 0 : tail(x, 1)) : 1),
    quantile: (p) => valueAt(alpha, normalQuantile(p)),
    survivalQuantile: (q) => valueAt(alpha, -normalQuantile(q)),
    mean: 1 + a2 / 2,
    variance: (a2 * base) / 4,
    skewness: (4 * alpha * (11 * a2 + 6)) / (base * Math.sqrt(base)),
    kurtosis: (6 * a2 * (93 * a2 + 40)) / (base * base),
    support: { lower: 0, upper: Infinity },
    sample(stream, out) {
      fillNormals(stream, out);
      for (let i = 0; i < out.length; i++) out[i] = valueAt(alpha, out[i]!);
    },
  };
}

/** The Birnbaum–Saunders distribution: cycles until a crack has grown to its critical length. */
export const birnbaumSaunders = defineFamily({
  family: 'birnbaum-saunders',
  title: 'Birnbaum–Saunders',
  about: 'Cycles to fatigue failure: damage that accumulates up to a limit.',
  parameters: [
    { ...shapeParameter('the spread relative to the median', 0.5), name: 'shape' },
    { ...SCALE, name: 'scale', meaning: 'the median' },
  ],
  of: ({ shape, scale }) => scaled(standardOf(shape), 0, scale),
  estimation: {
    start(x) {
      const y = readingsAbove(x, 0, 'Birnbaum–Saunders');
      if ('refused' in y) return y;
      const mean = meanOf(y, (v) => v);
      const harmonic = 1 / meanOf(y, (v) => 1 / v);
      return { shape: Math.sqrt(2 * (Math.sqrt(mean / harmonic) - 1)), scale: Math.sqrt(mean * harmonic) };
    },
    fromMoments(mean, variance) {
      // The squared coefficient of variation c = α²(5α² + 4)/(2 + α²)², solved for α².
      const c = variance / (mean * mean);
      if (!(mean > 0 && c < 5))
        return refuse('No Birnbaum–Saunders distribution has a standard deviation this large relative to its mean.');
      const a2 = (2 * (c - 1) + 2 * Math.sqrt(1 + 3 * c)) / (5 - c);
      return { shape: Math.sqrt(a2), scale: mean / (1 + a2 / 2) };
    },
  },
});
