import { exp, log, log1p, power, root } from '../../numeric/elementary.js';
import { logGamma } from '../../numeric/log-gamma.js';
import { defineFamily, SCALE, THRESHOLD, type Distribution } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { powerMoments, zeta } from '../power-moments.js';
import { readingsAbove } from '../readings-above.js';
import { scaled } from '../scaled.js';
import { fitLogistic } from './logistic.js';

/** log E[e^(tW)] of a standard logistic W: log Γ(1 + t)Γ(1 − t), for |t| < 1. */
const cumulantsOfLogistic = (t: number) => (Math.abs(t) < 1 ? logGamma(1 + t) + logGamma(1 - t) : Infinity);

/** e^(location + scale·W): the logarithm is logistic. Moments by Johnson, Kotz & Balakrishnan (1995), ch. 23. */
function logLogisticOf(location: number, scale: number): Distribution {
  const median = exp(location);
  /** The odds of lying below x: (x/median)^(1/scale). */
  const odds = (x: number) => root(x / median, scale);
  const quantile = (p: number) => median * power(p / (1 - p), scale);
  const survivalQuantile = (q: number) => median * power((1 - q) / q, scale);
  const logDensity = (x: number) => {
    const w = (log(x) - location) / scale;
    return -Math.abs(w) - 2 * log1p(exp(-Math.abs(w))) - log(scale) - log(x);
  };
  const moments = powerMoments(scale, cumulantsOfLogistic, (n) => (n % 2 === 0 ? (2 * zeta(n)) / n : 0));
  return {
    density: (x) => (x > 0 ? exp(logDensity(x)) : 0),
    logDensity: (x) => (x > 0 ? logDensity(x) : -Infinity),
    cumulative: (x) => (x > 0 ? 1 / (1 + 1 / odds(x)) : 0),
    survival: (x) => (x > 0 ? 1 / (1 + odds(x)) : 1),
    quantile,
    survivalQuantile,
    ...moments,
    mean: moments.mean * median,
    variance: moments.variance * median * median,
    support: { lower: 0, upper: Infinity },
    sample: sampleByInversion(quantile, survivalQuantile),
  };
}

/** The log-logistic distribution. */
export const logLogistic = defineFamily({
  family: 'log-logistic',
  title: 'log-logistic',
  about: 'Like the lognormal distribution with heavier tails; the logarithm is logistic.',
  parameters: [
    { ...SCALE, name: 'logLocation', title: 'log location', meaning: 'the log of the median', range: {}, usual: 0 },
    { ...SCALE, name: 'logScale', title: 'log scale', meaning: 'the spread of the logarithms', usual: 0.25 },
    { ...THRESHOLD, name: 'threshold' },
  ],
  of: ({ logLocation, logScale, threshold }) => scaled(logLogisticOf(logLocation, logScale), threshold, 1),
  estimation: {
    maximum(x, { threshold = 0 }) {
      const y = readingsAbove(x, threshold, 'log-logistic');
      if ('refused' in y) return y;
      const { location, scale } = fitLogistic(y.map(log));
      return { logLocation: location, logScale: scale };
    },
  },
});
