import { betaLower, logBeta } from '../../numeric/beta-tails.js';
import { betaLowerQuantile } from '../../numeric/beta-quantile.js';
import { exp, log, log1p, power } from '../../numeric/elementary.js';
import { fillGammas } from '../../random/gamma.js';
import { fillNormals } from '../../random/normal.js';
import { centralMoments } from '../../numeric/sums.js';
import { defineFamily, LOCATION, refuse, SCALE, shapeParameter, type Distribution } from '../family.js';
import { scaled } from '../scaled.js';

const BLOCK = 512;

/** Student's t through the beta distribution of df/(df + t²) (Abramowitz & Stegun 26.5.27). */
function standardT(df: number): Distribution {
  const half = df / 2;
  const logNorm = -logBeta(half, 0.5) - 0.5 * log(df);
  const norm = exp(logNorm);
  const root = Math.sqrt(df);
  /** P(T > t) for t ≥ 0. */
  const upper = (t: number): number => {
    const r = t / root;
    // From here on 1 + r² is r² to the last digit, and r² itself might overflow.
    const x = r > 1e9 ? 1 / r / r : 1 / (1 + r * r);
    const y = r > 1 ? 1 - x : (r * r) / (1 + r * r);
    return r > 1e9 && x === 0
      ? 0.5 * exp(half * -2 * log(r) - log(half) - logBeta(half, 0.5))
      : 0.5 * betaLower(half, 0.5, x, y);
  };
  /** P(−t < T < t) near 0, where one minus both tails would cancel. */
  const central = (t: number): number => {
    const r2 = (t / root) * (t / root);
    return betaLower(0.5, half, r2 / (1 + r2), 1 / (1 + r2));
  };
  const survival = (t: number): number => {
    if (t >= 0) return upper(t);
    const beyond = upper(-t);
    return beyond < 0.25 ? 1 - beyond : 0.5 + 0.5 * central(-t);
  };
  const lowerQuantile = (p: number): number => {
    const { x, y } = betaLowerQuantile(half, 0.5, 2 * p);
    return -root * Math.sqrt(y / x);
  };
  const quantile = (p: number) => (p > 0.5 ? -lowerQuantile(1 - p) : lowerQuantile(p));
  const logKernel = (t: number) => {
    const r = Math.abs(t) / root;
    return -0.5 * (df + 1) * (r > 1e9 ? 2 * log(r) : log1p(r * r));
  };
  return {
    density: (t) => {
      const r = Math.abs(t) / root;
      return r > 0.5 && r < 1e9 ? norm * power(1 + r * r, -0.5 * (df + 1)) : norm * exp(logKernel(t));
    },
    logDensity: (t) => logNorm + logKernel(t),
    cumulative: (t) => survival(-t),
    survival,
    quantile,
    survivalQuantile: (q) => -quantile(q),
    mean: df > 1 ? 0 : NaN,
    variance: df > 2 ? df / (df - 2) : df > 1 ? Infinity : NaN,
    skewness: df > 3 ? 0 : NaN,
    kurtosis: df > 4 ? 6 / (df - 4) : df > 2 ? Infinity : NaN,
    support: { lower: -Infinity, upper: Infinity },
    sample(stream, out) {
      fillNormals(stream, out);
      const block = new Float64Array(Math.min(BLOCK, out.length));
      for (let i = 0; i < out.length; i += block.length) {
        const part = block.subarray(0, Math.min(block.length, out.length - i));
        fillGammas(stream, half, part);
        for (let j = 0; j < part.length; j++) out[i + j] = out[i + j]! * Math.sqrt(half / part[j]!);
      }
    },
  };
}

/** Student's t (1908), with location and scale. */
export const studentT = defineFamily({
  family: 'student-t',
  title: 'Student t',
  about: 'A mean divided by its estimated standard error; symmetric, with heavier tails for fewer degrees of freedom.',
  parameters: [
    { ...shapeParameter('degrees of freedom: few mean heavy tails, many nearly normal', 5, 'df', 'df'), name: 'df' },
    { ...LOCATION, name: 'location', meaning: 'the centre of the distribution', optional: true },
    { ...SCALE, name: 'scale', optional: true },
  ],
  of: ({ df, location, scale }) => scaled(standardT(df), location, scale),
  estimation: {
    start(x) {
      const { s2, s4, n } = centralMoments(x);
      const excess = (n * s4) / (s2 * s2) - 3;
      const df = excess > 0.1 ? Math.min(50, 4 + 6 / excess) : 50;
      const middle = 0.5 * (x[(n - 1) >> 1]! + x[n >> 1]!);
      return { df, location: middle, scale: Math.sqrt((s2 / n) * (1 - 2 / df)) };
    },
    fromMoments: (mean, variance, { df = NaN }) =>
      df > 2
        ? { df, location: mean, scale: Math.sqrt((variance * (df - 2)) / df) }
        : refuse('A Student t distribution has a variance only for more than 2 degrees of freedom.'),
  },
});
