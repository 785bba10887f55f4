import { log } from '../../numeric/elementary.js';
import { digamma } from '../../numeric/digamma.js';
import { gammaLowerQuantile, gammaUpperQuantile } from '../../numeric/gamma-quantile.js';
import { gammaLower, gammaPrefix, gammaUpper, logGammaPrefix } from '../../numeric/gamma-tails.js';
import { trigamma } from '../../numeric/trigamma.js';
import { fillGammas } from '../../random/gamma.js';
import { defineFamily, refuse, SCALE, shapeParameter, THRESHOLD, type Distribution } from '../family.js';
import { meanOf, readingsAbove } from '../readings-above.js';
import { scaled } from '../scaled.js';

/** The gamma distribution with scale 1; also what chi-square and the waiting for several events rest on. */
export function standardGamma(shape: number): Distribution {
  const atZero = shape < 1 ? Infinity : shape === 1 ? 1 : 0;
  return {
    density: (x) => (x > 0 ? (shape * gammaPrefix(shape, x)) / x : x === 0 ? atZero : 0),
    logDensity: (x) => (x > 0 ? log(shape) + logGammaPrefix(shape, x) - log(x) : x === 0 ? log(atZero) : -Infinity),
    cumulative: (x) => gammaLower(shape, x),
    survival: (x) => gammaUpper(shape, x),
    quantile: (p) => gammaLowerQuantile(shape, p),
    survivalQuantile: (q) => gammaUpperQuantile(shape, q),
    mean: shape,
    variance: shape,
    skewness: 2 / Math.sqrt(shape),
    kurtosis: 6 / shape,
    support: { lower: 0, upper: Infinity },
    sample: (stream, out) => fillGammas(stream, shape, out),
  };
}

/**
 * The shape where log a − ψ(a) = `gap`, the log of the mean less the mean of the logs: Minka's (2002) generalised Newton
 * steps from his starting value; four or five reach the last digit.
 */
function shapeOf(gap: number): number {
  let a = (3 - gap + Math.sqrt((gap - 3) ** 2 + 24 * gap)) / (12 * gap);
  for (let round = 0; round < 40; round++) {
    const next = 1 / (1 / a + (log(a) - digamma(a) - gap) / (a * a * (1 / a - trigamma(a))));
    const moved = Math.abs(next - a);
    a = next;
    if (moved < 1e-14 * a) break;
  }
  return a;
}

/** The gamma distribution (Johnson, Kotz & Balakrishnan 1994, ch. 17). */
export const gamma = defineFamily({
  family: 'gamma',
  title: 'gamma',
  about: 'Waiting time for several events; right-skewed amounts such as wear or rainfall.',
  parameters: [
    { ...shapeParameter('the shape: 1 is exponential, large values are nearly normal', 2), name: 'shape' },
    { ...SCALE, name: 'scale' },
    { ...THRESHOLD, name: 'threshold' },
  ],
  of: ({ shape, scale, threshold }) => scaled(standardGamma(shape), threshold, scale),
  estimation: {
    maximum(x, { threshold = 0 }) {
      const y = readingsAbove(x, threshold, 'gamma');
      if ('refused' in y) return y;
      const mean = meanOf(y, (v) => v);
      // About 1, so that neither a large offset nor the unit costs digits.
      const gap = -meanOf(y, (v) => log(v / mean));
      if (!(gap > 1e-13)) {
        return refuse(
          'The readings vary too little relative to their distance from the threshold to estimate a shape.',
        );
      }
      const shape = shapeOf(gap);
      return { shape, scale: mean / shape };
    },
    fromMoments(mean, variance, { threshold = 0 }) {
      const above = mean - threshold;
      if (!(above > 0)) return refuse('The mean of a gamma distribution must be above its threshold.');
      return { shape: (above * above) / variance, scale: variance / above };
    },
    information: ({ shape, scale }, n) => ({
      names: ['shape', 'scale'],
      matrix: [
        [n * trigamma(shape!), n / scale!],
        [n / scale!, (n * shape!) / (scale! * scale!)],
      ],
    }),
  },
});
