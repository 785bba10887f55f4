import { log, exp } from '../../numeric/elementary.js';
import { nelderMead, type Minimum } from '../../numeric/nelder-mead.js';
import { defineFamily, endsFault, LOWER_END, UPPER_END, type Distribution } from '../family.js';
import { counted, type Counted } from '../counted.js';
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
  const fromLower = (x: number) => ((x - lower) / width) * ((x - lower) / left);
  const fromUpper = (x: number) => ((upper - x) / width) * ((upper - x) / right);
  // Beyond the mode, what lies up to it and the mean density since then: nothing cancels next to an end that is the mode.
  const cumulative = (x: number): number =>
    x <= mode && left > 0 ? fromLower(x) : left / width + ((x - mode) / width) * (1 + (upper - x) / right);
  const survival = (x: number): number =>
    x >= mode && right > 0 ? fromUpper(x) : right / width + ((mode - x) / width) * (1 + (x - lower) / left);
  /** The distance t from the mode with t·(2 − t/side)/width = p, `side` being how far the density still falls. */
  const beyondMode = (p: number, side: number) => (p * width) / (1 + Math.sqrt(Math.max(0, 1 - (p * width) / side)));
  const quantile = (p: number): number => {
    if (!isProbability(p)) return NaN;
    if (p <= share) return lower + Math.sqrt(p * width * left);
    return p > 0.5 ? upper - Math.sqrt((1 - p) * width * right) : mode + beyondMode(p - share, right);
  };
  const survivalQuantile = (q: number): number => {
    if (!isProbability(q)) return NaN;
    if (q <= right / width) return upper - Math.sqrt(q * width * right);
    return q > 0.5 ? lower + Math.sqrt((1 - q) * width * left) : mode - beyondMode(q - right / width, left);
  };
  const spread = (left * left + left * right + right * right) / 18;
  return {
    density,
    logDensity: (x) => log(density(x)),
    cumulative: (x) => (x <= lower ? 0 : x >= upper ? 1 : cumulative(x)),
    survival: (x) => (x <= lower ? 1 : x >= upper ? 0 : survival(x)),
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
function bestMode({ values, counts }: Counted, lower: number, upper: number): { mode: number; logLikelihood: number } {
  const width = upper - lower;
  let fromAbove = 0;
  let above = 0;
  for (let i = 0; i < values.length; i++) {
    fromAbove += counts[i]! * log(upper - values[i]!);
    above += counts[i]!;
  }
  const whole = above * log(2 / width);
  let fromBelow = 0;
  let below = 0;
  let best = { mode: NaN, logLikelihood: -Infinity };
  for (let i = 0; i < values.length; i++) {
    const mode = values[i]!;
    const [toLower, toUpper] = [log(mode - lower), log(upper - mode)];
    // Readings at the mode itself stand at the peak, 2/width.
    fromAbove -= counts[i]! * toUpper;
    above -= counts[i]!;
    const logLikelihood = fromBelow - below * toLower + fromAbove - above * toUpper + whole;
    if (logLikelihood > best.logLikelihood) best = { mode, logLikelihood };
    fromBelow += counts[i]! * toLower;
    below += counts[i]!;
  }
  return best;
}

/** Logarithms of how far beyond the readings an end is looked for first, in ranges of these: on them, near, and further out. */
const STARTS = [-14, -6, -4.5, -3.5, -2.5, -1.7, -1, 0];
/** A search begins from so many of the best of these places. */
const TRIED = 2;

/** The triangular distribution. */
export const triangular = defineFamily({
  family: 'triangular',
  title: 'triangular',
  about: 'Only minimum, mode and maximum are known; sums of two uniform errors.',
  parameters: [
    { ...LOWER_END, name: 'lower' },
    { name: 'mode', title: 'mode', meaning: 'the most likely value', range: {}, usual: 0.5 },
    { ...UPPER_END, name: 'upper' },
  ],
  conflict({ lower, mode, upper }) {
    if (!(lower < upper) || (mode >= lower && mode <= upper)) return endsFault({ lower, upper });
    return { name: 'mode', message: `The mode must lie between the limits, ${lower} and ${upper}.` };
  },
  of: ({ lower, mode, upper }) => distributionOf(lower, mode, upper),
  estimation: {
    ends: ['lower', 'mode', 'upper'],
    slow: true,
    maximum(x) {
      const least = x[0]!;
      const greatest = x[x.length - 1]!;
      const range = greatest - least;
      const readings = counted(x);
      const ends = (at: Float64Array) => ({
        lower: least - range * exp(at[0]!),
        upper: greatest + range * exp(at[1]!),
      });
      const height = (place: Float64Array) => {
        const { lower, upper } = ends(place);
        return -bestMode(readings, lower, upper).logLikelihood;
      };
      // A mode that is an end itself, where the density jumps, is a peak of its own.
      const places = STARTS.flatMap((a) => STARTS.map((b) => Float64Array.of(a, b)));
      const starts = places
        .map((start) => ({ start, height: height(start) }))
        .sort((a, b) => a.height - b.height)
        .slice(0, TRIED);
      const [{ at }] = starts.map(({ start }) => nelderMead(height, start, 0.7)).sort((a, b) => a.value - b.value) as [
        Minimum,
      ];
      const { lower, upper } = ends(at);
      return { lower, mode: bestMode(readings, lower, upper).mode, upper };
    },
  },
});
