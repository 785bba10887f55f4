import { SHAPIRO_WILK_GREATEST_N } from '../../goodness-of-fit/normality/shapiro-wilk.js';
import type { NormalityTestName } from '../../goodness-of-fit/normality/battery.js';
import type { Explained } from '../../road/figure.js';

/** What a test of normality is called, which letter it goes by, and what it sees best. */
export interface TestFacts extends Explained {
  symbol: string;
  /** After "looks at". */
  looksAt: string;
  /** Where the formula of its p comes from; null where there is none. */
  pSource: string | null;
}

const FACTS: Record<NormalityTestName, Omit<TestFacts, 'key'>> = {
  'anderson-darling': {
    name: 'Anderson–Darling',
    symbol: 'A²',
    looksAt: 'the whole distribution, mainly the tails',
    pSource: 'D’Agostino and Stephens 1986, n ≥ 8',
    meaning:
      'The distance between the empirical distribution and the fitted normal one, with most weight on the tails.',
    formula: 'A² = −n − Σ (2i − 1)/n · (ln F(x₍ᵢ₎) + ln(1 − F(x₍ₙ₊₁₋ᵢ₎)))',
    use: 'A good choice if the kind of departure is not known.',
  },
  'shapiro-wilk': {
    name: 'Shapiro–Wilk',
    symbol: 'W',
    looksAt: 'the whole distribution',
    pSource: 'Royston 1995, 3 ≤ n ≤ 5 000',
    meaning:
      'The ratio of two estimates of the variance, from the sorted readings and the usual one; 1 for a perfectly straight plot.',
    formula: 'W = (Σ aᵢ x₍ᵢ₎)² / Σ(x − mean)², with weights by Royston (1995)',
    use: 'An equally good choice, and the most powerful against skewness in small samples.',
  },
  lilliefors: {
    name: 'Lilliefors',
    symbol: 'D',
    looksAt: 'the centre',
    pSource: null,
    meaning: 'The largest distance between the empirical distribution and the fitted normal one.',
    formula: 'D = max |steps − F(x)|',
    use: 'Low power against departures in the tails; mainly for comparison.',
  },
  'cramer-von-mises': {
    name: 'Cramér–von Mises',
    symbol: 'W²',
    looksAt: 'the whole distribution, mainly the centre',
    pSource: 'D’Agostino and Stephens 1986, n ≥ 8',
    meaning: 'The mean squared distance between the empirical distribution and the fitted normal one.',
    formula: 'W² = 1/(12n) + Σ (F(x₍ᵢ₎) − (2i − 1)/(2n))²',
  },
  skewness: {
    name: 'skewness',
    symbol: 'Z(√b₁)',
    looksAt: 'skewness',
    pSource: 'D’Agostino 1970, n ≥ 8',
    meaning: 'The skewness as a standard normal score (D’Agostino 1970); above 0 if the upper tail is longer.',
    formula: 'Johnson’s approximation to the distribution of g₁; two-sided',
    use: 'Use it only if skewness is the expected departure; it detects nothing else.',
  },
  kurtosis: {
    name: 'kurtosis',
    symbol: 'Z(b₂)',
    looksAt: 'tail weight',
    pSource: 'Anscombe and Glynn 1983, n ≥ 20',
    meaning: 'The kurtosis as a standard normal score (Anscombe and Glynn 1983); above 0 if the tails are heavier.',
    formula: 'the cube root of a scaled b₂; two-sided',
    use: 'Use it only if heavy or light tails are the expected departure.',
  },
  omnibus: {
    name: 'skewness and kurtosis',
    symbol: 'K²',
    looksAt: 'skewness and tail weight',
    pSource: 'χ² with 2 degrees of freedom, n ≥ 20',
    meaning: 'Both scores combined (D’Agostino and Pearson 1973).',
    formula: 'K² = Z(√b₁)² + Z(b₂)²',
  },
  'jarque-bera': {
    name: 'Jarque–Bera',
    symbol: 'JB',
    looksAt: 'skewness and tail weight',
    pSource: 'χ² with 2 degrees of freedom, very large n',
    meaning: 'Skewness and kurtosis combined without scores. Its formula holds for very large n only.',
    formula: 'JB = n/6 · (g1² + g2²/4)',
    use: 'For comparison with values calculated elsewhere. Use its simulated p.',
  },
  'plot-correlation': {
    name: 'correlation of the plot',
    symbol: 'r',
    looksAt: 'the straightness of the plot',
    pSource: null,
    meaning:
      'The correlation of the sorted readings with Filliben’s (1975) normal scores; 1 for a perfectly straight plot.',
    formula: 'r of x₍ᵢ₎ and Φ⁻¹(mᵢ)',
  },
};

/** The facts of a test for n readings: above 5 000 W′ takes the place of W. */
export function testFacts(test: NormalityTestName, n: number): TestFacts {
  const facts = { ...FACTS[test], key: test };
  if (test !== 'shapiro-wilk' || n <= SHAPIRO_WILK_GREATEST_N) return facts;
  return { ...facts, name: 'Shapiro–Francia', symbol: 'W′', formula: 'W′, with weights from the normal scores (1972)' };
}
