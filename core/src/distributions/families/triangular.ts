import { log, exp } from '../../numeric/elementary.js';
import { nelderMead } from '../../numeric/nelder-mead.js';
import { defineFamily, endsFault, LOWER_END, UPPER_END, type Distribution } from '../family.js';
import { sampleByInversion } from '../inversion.js';
import { isProbability } from '../scaled.js';

function distributionOf(lower: number, mode: number, upper: number): Distribution {
  const width = upper - lower;
  const left = mode - lower;
  const right = upper - mode;
  const share = left / width;
  const density = (x: number): number => {
    if (!(x >= lower && x <= upper)) return 0;
    if (x === mode) return 2 / width;
    return x < mode ? ((x - lower) / left) * (2 / width) : ((upper - x) / right) * (2 / width);
  };
  const lowerPart = (x: number) => ((x - lower) / width) * ((x - lower) / left);
  const upperPart = (x: number) => ((upper - x) / width) * ((upper - x) / right);
  const quantile = (p: number) =>
    !isProbability(p)
      ? NaN
      : p <= share
        ? lower + Math.sqrt(p * width * left)
        : upper - Math.sqrt((1 - p) * width * right);
  const survivalQuantile = (q: number) =>
    !isProbability(q)
      ? NaN
      : q <= right / width
        ? upper - Math.sqrt(q * width * right)
        : lower + Math.sqrt((1 - q) * width * left);
  const spread = (left * left + left * right + right * right) / 18;
  return {
    density,
    logDensity: (x) => log(density(x)),
    cumulative: (x) => (x <= lower ? 0 : x >= upper ? 1 : x <= mode && left > 0 ? lowerPart(x) : 1 - upperPart(x)),
    survival: (x) => (x <= lower ? 1 : x >= upper ? 0 : x >= mode && right > 0 ? upperPart(x) : 1 - lowerPart(x)),
    quantile,
    survivalQuantile,
    mean: lower + (width + left) / 3,
    variance: spread,
    skewness: ((right - left) * (2 * left + right) * (left + 2 * right)) / (270 * spread * Math.sqrt(spread)),
    kurtosis: -0.6,
    support: { lower, upper },
    sample: sampleByInversion(quantile, survivalQuantile),
  };
}

/** The log-likelihood for these ends at its best mode, which is one of the readings (Oliver 1972), and that mode. */
function bestMode(x: Float64Array, lower: number, upper: number): { mode: number; logLikelihood: number } {
  const n = x.length;
  const width = upper - lower;
  let fromAbove = 0;
  for (let i = 0; i < n; i++) fromAbove += log(upper - x[i]!);
  let fromBelow = 0;
  let best = { mode: NaN, logLikelihood: -Infinity };
  for (let i = 0; i < n; i++) {
    const mode = x[i]!;
    fromAbove -= log(upper - mode);
    // This reading itself stands at the peak, 2/width.
    const value = fromBelow - i * log(mode - lower) + fromAbove - (n - 1 - i) * log(upper - mode);
    const logLikelihood = value + n * log(2 / width);
    if (logLikelihood > best.logLikelihood) best = { mode, logLikelihood };
    fromBelow += log(mode - lower);
  }
  return best;
}

/** The triangular distribution. */
export const triangular = defineFamily({
  family: 'triangular',
  title: 'triangular',
  about: 'Least, likeliest and greatest value are all that is known; sums of two uniform errors.',
  parameters: [
    { ...LOWER_END, name: 'lower' },
    { name: 'mode', title: 'mode', meaning: 'the likeliest value', range: {}, usual: 0.5 },
    { ...UPPER_END, name: 'upper' },
  ],
  conflict({ lower, mode, upper }) {
    if (!(lower < upper) || (mode >= lower && mode <= upper)) return endsFault({ lower, upper });
    return { name: 'mode', message: `The mode lies between the ends, ${lower} and ${upper}.` };
  },
  of: ({ lower, mode, upper }) => distributionOf(lower, mode, upper),
  estimation: {
    ends: ['lower', 'mode', 'upper'],
    maximum(x) {
      const least = x[0]!;
      const greatest = x[x.length - 1]!;
      const range = greatest - least;
      const ends = (at: Float64Array) => ({
        lower: least - range * exp(at[0]!),
        upper: greatest + range * exp(at[1]!),
      });
      const { at } = nelderMead(
        (place) => {
          const { lower, upper } = ends(place);
          return -bestMode(x, lower, upper).logLikelihood;
        },
        new Float64Array([-2.5, -2.5]),
        0.7,
      );
      const { lower, upper } = ends(at);
      return { lower, mode: bestMode(x, lower, upper).mode, upper };
    },
  },
});
