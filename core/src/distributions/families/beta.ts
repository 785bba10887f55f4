import { betaLower, betaPrefix, betaUpper, logBetaPrefix } from '../../numeric/beta-tails.js';
import { betaLowerQuantile, betaUpperQuantile, type Share } from '../../numeric/beta-quantile.js';
import { digamma } from '../../numeric/digamma.js';
import { log } from '../../numeric/elementary.js';
import { trigamma } from '../../numeric/trigamma.js';
import { centralMoments } from '../../numeric/sums.js';
import { fillGammas } from '../../random/gamma.js';
import { nextOpenUnit, type StreamState } from '../../random/stream.js';
import {
  defineFamily,
  endsFault,
  LOWER_END,
  UPPER_END,
  refuse,
  shapeParameter,
  type Distribution,
  type Parameters,
  type Refusal,
} from '../family.js';
import { refined } from '../refined.js';
import { isProbability } from '../scaled.js';
import { meanOf } from '../readings-above.js';

/** Density at an end of 0 … 1, for the shape that belongs to it. */
const atEnd = (own: number, other: number) => (own < 1 ? Infinity : own === 1 ? other : 0);

/** The beta distribution over lower … upper; positions in it are kept as shares from both ends, so that neither tail loses digits. */
function distributionOf(a: number, b: number, lower: number, upper: number): Distribution {
  const width = upper - lower;
  const below = (x: number) => (x - lower) / width;
  const above = (x: number) => (upper - x) / width;
  const ends = { lower, upper };
  const sum = a + b;
  const density = (x: number): number => {
    if (x === lower) return atEnd(a, b) / width;
    if (x === upper) return atEnd(b, a) / width;
    if (!(x > lower && x < upper)) return 0;
    return betaPrefix(a, b, below(x), above(x)) / (below(x) * above(x)) / width;
  };
  const cumulative = (x: number) => (x <= lower ? 0 : x >= upper ? 1 : betaLower(a, b, below(x), above(x)));
  const survival = (x: number) => (x <= lower ? 1 : x >= upper ? 0 : betaUpper(a, b, below(x), above(x)));
  const place = ({ x, y }: Share) => (x <= y ? lower + width * x : upper - width * y);
  return {
    density,
    logDensity: (x) =>
      x > lower && x < upper
        ? logBetaPrefix(a, b, below(x), above(x)) - log(below(x)) - log(above(x)) - log(width)
        : log(density(x)),
    cumulative,
    survival,
    quantile: (p) =>
      isProbability(p) ? refined(place(betaLowerQuantile(a, b, p)), p, cumulative, density, 1, ends) : NaN,
    survivalQuantile: (q) =>
      isProbability(q) ? refined(place(betaUpperQuantile(a, b, q)), q, survival, density, -1, ends) : NaN,
    mean: lower + (width * a) / sum,
    variance: (width * width * a * b) / (sum * sum * (sum + 1)),
    skewness: (2 * (b - a) * Math.sqrt(sum + 1)) / ((sum + 2) * Math.sqrt(a * b)),
    kurtosis: (6 * ((a - b) ** 2 * (sum + 1) - a * b * (sum + 2))) / (a * b * (sum + 2) * (sum + 3)),
    support: ends,
    sample(stream, out) {
      const others = new Float64Array(out.length);
      fillGammas(stream, a, out);
      fillGammas(stream, b, others);
      for (let i = 0; i < out.length; i++) out[i] = place(shares(out[i]!, others[i]!, stream));
    },
  };
  /** Two gamma draws as shares; both can underflow for tiny shapes, and then one end or the other is meant. */
  function shares(first: number, second: number, stream: StreamState): Share {
    const total = first + second;
    if (total > 0) return { x: first / total, y: second / total };
    return nextOpenUnit(stream) < a / sum ? { x: 1, y: 0 } : { x: 0, y: 1 };
  }
}

/** Shapes that add up to more than this stand for a spike that 1 − x cannot tell from a single value. */
const GREATEST_SUM = 1e10;

function shapesFromMoments(mean: number, variance: number): { shape1: number; shape2: number } | Refusal {
  const common = (mean * (1 - mean)) / variance - 1;
  if (!(mean > 0 && mean < 1)) return refuse('The mean of a beta distribution must lie between its limits.');
  if (!(common > 0)) return refuse('No beta distribution has a standard deviation this large between these limits.');
  if (common > GREATEST_SUM)
    return refuse('The readings cover too small a part of the range of a beta distribution to estimate its shape.');
  return { shape1: mean * common, shape2: (1 - mean) * common };
}

/** ψ(a) − ψ(a + b) = g1 and ψ(b) − ψ(a + b) = g2, by Newton's steps on the logarithms of a and b. */
function solveShapes(g1: number, g2: number, a: number, b: number): Parameters {
  for (let round = 0; round < 200; round++) {
    const shared = trigamma(a + b);
    const e1 = digamma(a) - digamma(a + b) - g1;
    const e2 = digamma(b) - digamma(a + b) - g2;
    const j11 = (trigamma(a) - shared) * a;
    const j12 = -shared * b;
    const j21 = -shared * a;
    const j22 = (trigamma(b) - shared) * b;
    const det = j11 * j22 - j12 * j21;
    const limit = (step: number) => Math.max(-1, Math.min(1, step));
    const s1 = limit((e1 * j22 - e2 * j12) / det);
    const s2 = limit((e2 * j11 - e1 * j21) / det);
    a *= 1 - s1 > 0.2 ? 1 - s1 : 0.2;
    b *= 1 - s2 > 0.2 ? 1 - s2 : 0.2;
    if (Math.abs(s1) + Math.abs(s2) < 1e-13) break;
  }
  return { shape1: a, shape2: b };
}

/** The beta distribution (Johnson, Kotz & Balakrishnan 1995, ch. 25). */
export const beta = defineFamily({
  family: 'beta',
  title: 'beta',
  about: 'Proportions and other values between two fixed limits: yields, coverages.',
  parameters: [
    {
      ...shapeParameter('a large value shifts the distribution towards the upper limit', 2, 'shape1', 'shape 1'),
      name: 'shape1',
    },
    {
      ...shapeParameter('a large value shifts the distribution towards the lower limit', 3, 'shape2', 'shape 2'),
      name: 'shape2',
    },
    { ...LOWER_END, name: 'lower', optional: true },
    { ...UPPER_END, name: 'upper', optional: true },
  ],
  conflict: endsFault,
  of: ({ shape1, shape2, lower, upper }) => distributionOf(shape1, shape2, lower, upper),
  estimation: {
    given: ['lower', 'upper'],
    maximum(x, { lower = 0, upper = 1 }) {
      if (!(x[0]! > lower && x[x.length - 1]! < upper)) {
        return refuse(`A beta distribution needs all readings between its limits, ${lower} and ${upper}.`);
      }
      const width = upper - lower;
      const shares = x.map((v) => (v - lower) / width);
      const { mean, s2, n } = centralMoments(shares);
      const first = shapesFromMoments(mean, s2 / n);
      if ('refused' in first) return first;
      return solveShapes(
        meanOf(shares, log),
        meanOf(x, (v) => log((upper - v) / width)),
        first.shape1,
        first.shape2,
      );
    },
    fromMoments(mean, variance, { lower = 0, upper = 1 }) {
      const width = upper - lower;
      return shapesFromMoments((mean - lower) / width, variance / (width * width));
    },
  },
});
