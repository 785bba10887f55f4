import { betaLower, betaUpper, logBetaPrefix } from '../../numeric/beta-tails.js';
import { betaLowerQuantile, betaUpperQuantile, type Share } from '../../numeric/beta-quantile.js';
import { exp, log } from '../../numeric/elementary.js';
import { fillGammas } from '../../random/gamma.js';
import { centralMoments } from '../../numeric/sums.js';
import { defineFamily, shapeParameter, type Distribution } from '../family.js';
import { refined } from '../refined.js';
import { isProbability } from '../scaled.js';
import { readingsAbove } from '../readings-above.js';

/** Fisher and Snedecor's F through the beta distribution of d₁x/(d₁x + d₂) (Abramowitz & Stegun 26.6.2). */
function distributionOf(d1: number, d2: number): Distribution {
  const a = d1 / 2;
  const b = d2 / 2;
  /** The odds d₁x/d₂ as a share and its complement. */
  const below = (x: number) => (x === Infinity ? 1 : (d1 * x) / (d1 * x + d2));
  const above = (x: number) => d2 / (d1 * x + d2);
  const logDensity = (x: number) => logBetaPrefix(a, b, below(x), above(x)) - log(x);
  const atZero = d1 < 2 ? Infinity : d1 === 2 ? 1 : 0;
  const d = d2 - 2;
  const density = (x: number) => (x > 0 && x < Infinity ? exp(logDensity(x)) : x === 0 ? atZero : 0);
  const cumulative = (x: number) => (x > 0 ? betaLower(a, b, below(x), above(x)) : 0);
  const survival = (x: number) => (x === Infinity ? 0 : x > 0 ? betaUpper(a, b, below(x), above(x)) : 1);
  const place = ({ x, y }: Share) => (x / y) * (d2 / d1);
  return {
    density,
    logDensity: (x) => (x > 0 ? logDensity(x) : x === 0 ? log(atZero) : -Infinity),
    cumulative,
    survival,
    quantile: (p) => (isProbability(p) ? refined(place(betaLowerQuantile(a, b, p)), p, cumulative, density, 1) : NaN),
    survivalQuantile: (q) =>
      isProbability(q) ? refined(place(betaUpperQuantile(a, b, q)), q, survival, density, -1) : NaN,
    mean: d2 > 2 ? d2 / d : Infinity,
    variance: d2 > 4 ? (2 * d2 * d2 * (d1 + d)) / (d1 * d * d * (d2 - 4)) : Infinity,
    skewness: d2 > 6 ? ((2 * d1 + d) * Math.sqrt(8 * (d2 - 4))) / ((d2 - 6) * Math.sqrt(d1 * (d1 + d))) : Infinity,
    kurtosis:
      d2 > 8
        ? (12 * (d1 * (5 * d2 - 22) * (d1 + d) + (d2 - 4) * d * d)) / (d1 * (d2 - 6) * (d2 - 8) * (d1 + d))
        : Infinity,
    support: { lower: 0, upper: Infinity },
    sample(stream, out) {
      fillGammas(stream, a, out);
      const divisors = new Float64Array(out.length);
      fillGammas(stream, b, divisors);
      for (let i = 0; i < out.length; i++) out[i] = (out[i]! / divisors[i]!) * (d2 / d1);
    },
  };
}

/** The F distribution: the ratio of two variances (Johnson, Kotz & Balakrishnan 1995, ch. 27). */
export const f = defineFamily({
  family: 'f',
  title: 'F',
  about: 'The ratio of two estimated variances.',
  parameters: [
    { ...shapeParameter('degrees of freedom of the numerator', 5, 'df1', 'df 1'), name: 'df1' },
    { ...shapeParameter('degrees of freedom of the denominator', 10, 'df2', 'df 2'), name: 'df2' },
  ],
  of: ({ df1, df2 }) => distributionOf(df1, df2),
  estimation: {
    start(x) {
      const y = readingsAbove(x, 0, 'F');
      if ('refused' in y) return y;
      const { mean } = centralMoments(y);
      return { df1: 5, df2: mean > 1.05 ? Math.min(100, (2 * mean) / (mean - 1)) : 40 };
    },
  },
});
