import { exp } from '../../numeric/elementary.js';
import { normalCumulative, normalQuantile, normalSurvival, normalSurvivalAt } from '../../numeric/standard-normal.js';
import { centralMoments } from '../../numeric/sums.js';
import { fillNormals } from '../../random/normal.js';
import { defineFamily, type Distribution, type ParameterSpec } from '../family.js';
import { scaled } from '../scaled.js';

/** Below this score half a unit of it is worth several units of the tail. */
const FAR = -2;
const LOG_ROOT_TWO_PI = 0.918938533204672741780329736406;

/** The standard normal: closed forms over numeric/standard-normal. */
export const standardNormal: Distribution = {
  density: (z) => exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI),
  logDensity: (z) => -0.5 * z * z - LOG_ROOT_TWO_PI,
  cumulative: (z) => (z < FAR ? normalSurvivalAt(-z, 0) : normalCumulative(z)),
  survival: (z) => (z > -FAR ? normalSurvivalAt(z, 0) : normalSurvival(z)),
  quantile: normalQuantile,
  survivalQuantile: (q) => -normalQuantile(q),
  mean: 0,
  variance: 1,
  skewness: 0,
  kurtosis: 0,
  support: { lower: -Infinity, upper: Infinity },
  sample: fillNormals,
};

const mean: ParameterSpec & { name: 'mean' } = {
  name: 'mean',
  title: 'mean',
  meaning: 'the centre of the distribution',
  range: {},
  usual: 0,
};
const sd: ParameterSpec & { name: 'sd' } = {
  name: 'sd',
  title: 'standard deviation',
  meaning: 'the spread; 68 % of values lie within one standard deviation of the mean',
  range: { above: 0 },
  usual: 1,
};

/** The normal distribution (Gauss 1809), for the sum of many small influences. */
export const normal = defineFamily({
  family: 'normal',
  title: 'normal',
  about: 'Many small effects added up: most measurement errors, and stable processes.',
  parameters: [mean, sd],
  of: ({ mean, sd }) => scaled(standardNormal, mean, sd),
  estimation: {
    maximum(x) {
      const { mean, s2, n } = centralMoments(x);
      return { mean, sd: Math.sqrt(s2 / n) };
    },
    fromMoments: (mean, variance) => ({ mean, sd: Math.sqrt(variance) }),
  },
});
