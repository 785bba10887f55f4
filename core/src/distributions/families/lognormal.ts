import { exp, expm1, log, logLess, productRest } from '../../numeric/elementary.js';
import { normalQuantile, normalSurvivalAt } from '../../numeric/standard-normal.js';
import { centralMoments } from '../../numeric/sums.js';
import { fillNormals } from '../../random/normal.js';
import { defineFamily, refuse, SCALE, THRESHOLD, type Distribution } from '../family.js';
import { readingsAbove } from '../readings-above.js';
import { scaled } from '../scaled.js';

const LOG_ROOT_TWO_PI = 0.918938533204672741780329736406;

/** From here on e^mean and the rest are multiplied. */
const LARGE_MEAN = 30;

/** e^(mean + sd·Z): the logarithm is normal. Moments by Johnson, Kotz & Balakrishnan (1994), ch. 14. */
function lognormalOf(mean: number, sd: number): Distribution {
  const logDensity = (x: number) =>
    x > 0 ? -0.5 * ((log(x) - mean) / sd) ** 2 - LOG_ROOT_TWO_PI - log(sd) - log(x) : -Infinity;
  /** The score of x > 0, and what it loses to rounding. */
  const scoreOf = (x: number) => {
    const { value, rest } = logLess(x, mean);
    const z = value / sd;
    const product = z * sd;
    return { z, rest: (value - product - productRest(z, sd, product) + rest) / sd };
  };
  /** The upper (1) or lower (−1) tail. */
  const tail = (x: number, side: 1 | -1): number => {
    if (x === Infinity) return side > 0 ? 0 : 1;
    const { z, rest } = scoreOf(x);
    return normalSurvivalAt(side * z, side * rest);
  };
  const density = (x: number): number => {
    if (!(x > 0 && x < Infinity)) return 0;
    const { z, rest } = scoreOf(x);
    return (exp(-0.5 * z * z) * (1 - z * rest)) / (x * sd * Math.sqrt(2 * Math.PI));
  };
  const growth = expm1(sd * sd);
  const w = growth + 1;
  // A sum with a large mean would lose the digits of the other part.
  const lead = Math.abs(mean) > LARGE_MEAN ? exp(mean) : 0;
  const raised = (part: number) =>
    lead > 0 && lead < Infinity && Number.isFinite(part) ? lead * exp(part) : exp(mean + part);
  return {
    density,
    logDensity,
    cumulative: (x) => (x > 0 ? tail(x, -1) : 0),
    survival: (x) => (x > 0 ? tail(x, 1) : 1),
    quantile: (p) => raised(sd * normalQuantile(p)),
    survivalQuantile: (q) => raised(-sd * normalQuantile(q)),
    mean: exp(mean + 0.5 * sd * sd),
    variance: exp(2 * mean + sd * sd) * growth,
    skewness: (w + 2) * Math.sqrt(growth),
    // w⁴ + 2w³ + 3w² − 6, written so that nothing cancels at w = 1.
    kurtosis: growth * (w * w * w + 3 * w * w + 6 * w + 6),
    support: { lower: 0, upper: Infinity },
    sample(stream, out) {
      fillNormals(stream, out);
      for (let i = 0; i < out.length; i++) out[i] = exp(mean + sd * out[i]!);
    },
  };
}

/** The lognormal distribution (Galton 1879), for the product of many small influences. */
export const lognormal = defineFamily({
  family: 'lognormal',
  title: 'lognormal',
  about: 'Many small effects multiplied: concentrations, particle sizes, repair times. The logarithm is normal.',
  parameters: [
    {
      ...SCALE,
      name: 'logMean',
      title: 'log mean',
      meaning: 'the mean of the natural logarithms',
      range: {},
      usual: 0,
    },
    {
      ...SCALE,
      name: 'logSd',
      title: 'log SD',
      meaning: 'the standard deviation of the natural logarithms',
      usual: 0.5,
    },
    { ...THRESHOLD, name: 'threshold' },
  ],
  of: ({ logMean, logSd, threshold }) => scaled(lognormalOf(logMean, logSd), threshold, 1),
  estimation: {
    maximum(x, { threshold = 0 }) {
      const y = readingsAbove(x, threshold, 'lognormal');
      if ('refused' in y) return y;
      const { mean, s2, n } = centralMoments(y.map(log));
      return { logMean: mean, logSd: Math.sqrt(s2 / n) };
    },
    fromMoments(mean, variance, { threshold = 0 }) {
      const above = mean - threshold;
      if (!(above > 0)) return refuse('The mean of a lognormal distribution must be above its threshold.');
      const s2 = log(1 + variance / (above * above));
      return { logMean: log(above) - 0.5 * s2, logSd: Math.sqrt(s2) };
    },
  },
});
