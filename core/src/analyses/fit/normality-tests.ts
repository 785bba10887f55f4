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
    looksAt: 'all, the tails most',
    pSource: 'D’Agostino and Stephens 1986, n ≥ 8',
    meaning: 'How far the steps of the readings lie from the fitted normal curve, the tails counting most.',
    formula: 'A² = −n − Σ (2i − 1)/n · (ln F(x₍ᵢ₎) + ln(1 − F(x₍ₙ₊₁₋ᵢ₎)))',
    use: 'A good choice when nothing is known of how the readings may depart.',
  },
  'shapiro-wilk': {
    name: 'Shapiro–Wilk',
    symbol: 'W',
    looksAt: 'all, by the straightness of the plot',
    pSource: 'Royston 1995, 3 ≤ n ≤ 5 000',
    meaning: 'The best estimate of the sd from the order of the readings beside the usual one; 1 is a straight plot.',
    formula: 'W = (Σ aᵢ x₍ᵢ₎)² / Σ(x − mean)², the weights by Royston (1995)',
    use: 'As good a choice; the strongest against a lean in small samples.',
  },
  lilliefors: {
    name: 'Lilliefors',
    symbol: 'D',
    looksAt: 'the middle',
    pSource: null,
    meaning: 'The greatest distance of the steps of the readings from the fitted normal curve.',
    formula: 'D = max |steps − F(x)|',
    use: 'Weak against long tails; for comparison.',
  },
  'cramer-von-mises': {
    name: 'Cramér–von Mises',
    symbol: 'W²',
    looksAt: 'all, the middle most',
    pSource: 'D’Agostino and Stephens 1986, n ≥ 8',
    meaning: 'The squared distance of the steps of the readings from the fitted normal curve.',
    formula: 'W² = 1/(12n) + Σ (F(x₍ᵢ₎) − (2i − 1)/(2n))²',
  },
  skewness: {
    name: 'skewness',
    symbol: 'Z(√b₁)',
    looksAt: 'the lean',
    pSource: 'D’Agostino 1970, n ≥ 8',
    meaning: 'The skewness as a standard normal score (D’Agostino 1970): above 0 the upper tail is the longer.',
    formula: 'Johnson’s approximation to the law of g1; two-sided',
    use: 'Only where a lean is what is feared: it sees nothing else.',
  },
  kurtosis: {
    name: 'kurtosis',
    symbol: 'Z(b₂)',
    looksAt: 'the weight of the tails',
    pSource: 'Anscombe and Glynn 1983, n ≥ 20',
    meaning: 'The kurtosis as a standard normal score (Anscombe and Glynn 1983): above 0 the tails are the longer.',
    formula: 'the cube root of a scaled b₂; two-sided',
    use: 'Only where long or short tails are what is feared.',
  },
  omnibus: {
    name: 'skewness and kurtosis',
    symbol: 'K²',
    looksAt: 'the lean and the tails',
    pSource: 'χ² with 2 degrees of freedom, n ≥ 20',
    meaning: 'Both scores together (D’Agostino and Pearson 1973).',
    formula: 'K² = Z(√b₁)² + Z(b₂)²',
  },
  'jarque-bera': {
    name: 'Jarque–Bera',
    symbol: 'JB',
    looksAt: 'the lean and the tails',
    pSource: 'χ² with 2 degrees of freedom, very large n',
    meaning: 'Skewness and kurtosis together, not turned into scores; its formula holds for very large n only.',
    formula: 'JB = n/6 · (g1² + g2²/4)',
    use: 'For comparison with what was worked out elsewhere; take its simulated p.',
  },
  'plot-correlation': {
    name: 'correlation of the plot',
    symbol: 'r',
    looksAt: 'the straightness of the plot',
    pSource: null,
    meaning: 'The correlation of the readings in order with Filliben’s (1975) normal scores; 1 is a straight plot.',
    formula: 'r of x₍ᵢ₎ and Φ⁻¹(mᵢ)',
  },
};

/** The facts of a test for n readings: above 5 000 W′ takes the place of W. */
export function testFacts(test: NormalityTestName, n: number): TestFacts {
  const facts = { ...FACTS[test], key: test };
  if (test !== 'shapiro-wilk' || n <= SHAPIRO_WILK_GREATEST_N) return facts;
  return { ...facts, name: 'Shapiro–Francia', symbol: 'W′', formula: 'W′, the weights by the normal scores (1972)' };
}
