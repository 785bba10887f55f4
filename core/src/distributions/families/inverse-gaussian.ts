import { exp, log } from '../../numeric/elementary.js';
import { millsRatio, normalCumulative, normalQuantile, normalSurvival } from '../../numeric/standard-normal.js';
import { scaledBy, solveTail } from '../../numeric/tail-root.js';
import { nextNormal } from '../../random/normal.js';
import { nextOpenUnit, type StreamState } from '../../random/stream.js';
import { defineFamily, refuse, SCALE, shapeParameter, type Distribution } from '../family.js';
import { meanOf, readingsAbove } from '../readings-above.js';
import { isProbability, scaled } from '../scaled.js';

const ROOT_TWO_PI = Math.sqrt(2 * Math.PI);

/** 1 − t·M(t), M being Mills's ratio: beyond t = 1 by its continued fraction, since the difference cancels there. */
function millsFall(t: number): number {
  if (t < 1) return 1 - t * millsRatio(t);
  let f = t;
  for (let k = Math.ceil(20 + 300 / (t * t)); k >= 2; k--) f = t + k / f;
  return 1 / ((t + 1 / f) * f);
}

/** Nodes and weights of Gauss & Legendre's rule of 12 points (Abramowitz & Stegun table 25.4). */
const RULE = [
  [0.12523340851146892, 0.2491470458134028],
  [0.36783149899818019, 0.23349253653835481],
  [0.58731795428661745, 0.20316742672306592],
  [0.76990267419430469, 0.16007832854334623],
  [0.90411725637047486, 0.10693932599531843],
  [0.98156063424671925, 0.047175336386511827],
] as const;

/** M(r) − M(r + width) for r + width > |r|: the integral of 1 − t·M(t) where the two are close, since their difference cancels. */
function millsDrop(r: number, width: number): number {
  const s = r + width;
  if (s > 3 * r && s > 1) return millsRatio(r) - millsRatio(s);
  const half = width / 2;
  const middle = r + half;
  let sum = 0;
  for (const [node, weight] of RULE)
    sum += weight * (millsFall(middle - half * node) + millsFall(middle + half * node));
  return half * sum;
}

/** Places a tail of p may lie near: nearly normal on the logarithmic scale (Whitmore & Yalovsky 1978), nearly a first passage without drift, or nearly exponential. */
function guesses(shape: number, p: number, upper: boolean): number[] {
  const z = upper ? -normalQuantile(p) : normalQuantile(p);
  const passage = normalQuantile(upper ? 0.5 + p / 2 : p / 2);
  const near = exp(Math.max(-600, Math.min(600, z / Math.sqrt(shape) - 0.5 / shape)));
  return [near, shape / (passage * passage), ...(upper ? [Math.max(1, -2 * log(p)) / shape] : [])];
}

/** Michael, Schucany & Haas (1976); the smaller root as a quotient, so that it does not cancel. */
function drawInto(shape: number, stream: StreamState, out: Float64Array): void {
  for (let i = 0; i < out.length; i++) {
    const z = nextNormal(stream);
    const w = (z * z) / shape;
    const root = 1 / (1 + 0.5 * w + Math.sqrt(w + 0.25 * w * w));
    out[i] = nextOpenUnit(stream) * (1 + root) <= 1 ? root : 1 / root;
  }
}

/** The inverse Gaussian with mean 1 and shape λ (Tweedie 1957; Johnson, Kotz & Balakrishnan 1994, ch. 15). */
function standardOf(shape: number): Distribution {
  const gap = (x: number) => Math.sqrt(shape / x) * (x - 1);
  const sum = (x: number) => Math.sqrt(shape / x) * (x + 1);
  const logDensity = (x: number) => 0.5 * log(shape / (2 * Math.PI)) - 1.5 * log(x) - 0.5 * gap(x) ** 2;
  // φ(gap) = e^(2λ)·φ(sum): the second term of the textbook formula is φ(gap)·M(sum), which cannot overflow.
  const mirror = (x: number) => (exp(-0.5 * gap(x) ** 2) / ROOT_TWO_PI) * millsRatio(sum(x));
  const cumulative = (x: number) => (x > 0 ? (x === Infinity ? 1 : normalCumulative(gap(x)) + mirror(x)) : 0);
  const survival = (x: number): number => {
    if (!(x > 0)) return 1;
    if (x === Infinity) return 0;
    const r = gap(x);
    const width = 2 * Math.sqrt(shape / x);
    // Below the mean the mirror's part is small beside the other, unless the two lie near each other.
    if (r < -1) return normalSurvival(r) - mirror(x);
    return (exp(-0.5 * r ** 2) / ROOT_TWO_PI) * millsDrop(r, width);
  };
  const solve = (p: number, upper: boolean): number => {
    const tail = upper ? survival : cumulative;
    let x = NaN;
    let error = Infinity;
    for (const guess of guesses(shape, p, upper)) {
      const there = tail(guess);
      const off = there < 1 ? Math.abs(log(there / p)) : Infinity;
      if (off < error || !(x > 0)) [x, error] = [guess, off];
    }
    solveTail(
      p,
      upper,
      (out) => {
        out.tail = tail(x);
        out.slope = x * exp(logDensity(x));
        out.bend = -0.5 - 0.5 * shape * (x - 1 / x);
      },
      (step) => {
        x = scaledBy(x, step);
      },
    );
    return x;
  };
  const quantile = (p: number) =>
    !isProbability(p) ? NaN : p === 0 ? 0 : p === 1 ? Infinity : p <= 0.5 ? solve(p, false) : solve(1 - p, true);
  const survivalQuantile = (q: number) =>
    !isProbability(q) ? NaN : q === 0 ? Infinity : q === 1 ? 0 : q <= 0.5 ? solve(q, true) : solve(1 - q, false);
  return {
    density: (x) => (x > 0 ? exp(logDensity(x)) : 0),
    logDensity: (x) => (x > 0 ? logDensity(x) : -Infinity),
    cumulative,
    survival,
    quantile,
    survivalQuantile,
    mean: 1,
    variance: 1 / shape,
    skewness: 3 / Math.sqrt(shape),
    kurtosis: 15 / shape,
    support: { lower: 0, upper: Infinity },
    sample: (stream, out) => drawInto(shape, stream, out),
  };
}

/** The inverse Gaussian distribution. */
export const inverseGaussian = defineFamily({
  family: 'inverse-gaussian',
  title: 'inverse Gaussian',
  about: 'The time until a randomly drifting quantity reaches a limit: wear, first-passage times.',
  parameters: [
    { ...SCALE, name: 'mean', title: 'mean', meaning: 'the mean, in the unit of the readings' },
    {
      ...shapeParameter('a large value relative to the mean is narrow; the variance is mean³/shape', 2),
      name: 'shape',
    },
  ],
  of: ({ mean, shape }) => scaled(standardOf(shape / mean), 0, mean),
  estimation: {
    maximum(x) {
      const y = readingsAbove(x, 0, 'inverse Gaussian');
      if ('refused' in y) return y;
      const mean = meanOf(y, (v) => v);
      // Σ(1/x − 1/mean) as Σ(x − mean)²/(x·mean²), in which nothing cancels.
      const excess = meanOf(y, (v) => ((v - mean) * (v - mean)) / v) / (mean * mean);
      return { mean, shape: 1 / excess };
    },
    fromMoments: (mean, variance) =>
      mean > 0
        ? { mean, shape: (mean * mean * mean) / variance }
        : refuse('The mean of an inverse Gaussian distribution must be above 0.'),
  },
});
