/** A word of the trade or of the house, explained in a sentence or two. */
export interface Term {
  term: string;
  /** How it stands in a text, where that is not the term itself. */
  also?: readonly string[];
  meaning: string;
  formula?: string;
  /** Where it comes from. */
  source?: string;
}

/** The words of Verdict itself. */
const OF_THE_HOUSE: readonly Term[] = [
  { term: 'study', meaning: 'A question, its readings, its evidence and its verdict.' },
  { term: 'subject', meaning: 'The column that is analysed. It is chosen in the bar above every stage.' },
  {
    term: 'set aside',
    meaning:
      'A reading that is excluded from all calculations, with a reason. It stays in the table and can be restored.',
  },
  { term: 'kept with a reason', meaning: 'A suspected outlier that was checked and stays in all calculations.' },
  {
    term: 'evidence',
    also: ['kept'],
    meaning:
      'A result kept with its settings, its seed and a fingerprint of its readings, so that anyone can recompute it.',
  },
  {
    term: 'caution',
    also: ['cautions'],
    meaning: 'A warning that limits a result. Before a verdict, each caution is answered or left open with a reason.',
  },
  {
    term: 'fingerprint',
    meaning:
      'SHA-256 of the readings used (little-endian doubles in row order). Two results with the same fingerprint use the same readings.',
    source: 'FIPS 180-4',
  },
  {
    term: 'recompute',
    also: ['recomputed', 'bit for bit'],
    meaning: 'Calculates a kept result again and compares every bit of its numbers.',
  },
  {
    term: 'resolution',
    also: ['steps of', 'rounded'],
    meaning:
      'The smallest step that an instrument shows. Coarsely rounded readings are compared with a distribution rounded in the same way.',
  },
  {
    term: 'limits',
    also: ['lower limit', 'upper limit', 'specification'],
    meaning: 'The specification limits: the range a reading must lie in. They are not calculated from the readings.',
  },
];

/** Words of the trade, with their sources. */
const OF_THE_TRADE: readonly Term[] = [
  {
    term: 'level',
    also: ['alpha', 'significance level'],
    meaning:
      'The significance level: the probability of rejecting a true hypothesis, chosen before the test. The default is 0.05.',
    formula: 'P(p ≤ level) ≤ level, if the hypothesis is true',
    source: 'Neyman & Pearson (1933)',
  },
  {
    term: 'p-value',
    also: ['p =', 'p <', 'p is', 'p of'],
    meaning:
      'The probability of data at least as extreme, if the hypothesis is true. It is not the probability that the hypothesis is true.',
    formula: 'p = P(T at least as extreme as observed | hypothesis)',
    source: 'Fisher (1925)',
  },
  {
    term: 'simulated p',
    also: ['p, simulated'],
    meaning:
      'A p-value from simulated samples for which the hypothesis is true. It is never 0, because the observed sample is counted too.',
    formula: 'p = (b + 1)/(B + 1)',
    source: 'Davison & Hinkley (1997), section 4.2',
  },
  {
    term: 'no evidence against',
    meaning:
      'The test did not reject the hypothesis. That does not show that it is true; the power shows which departures could have been missed.',
  },
  {
    term: 'power',
    also: ['power of the test'],
    meaning: 'The probability that a test detects a departure of a given size at this sample size.',
    formula: 'power = P(p ≤ level | the departure exists)',
    source: 'Neyman & Pearson (1933)',
  },
  {
    term: 'confidence interval',
    also: ['interval', 'confidence'],
    meaning: 'A range that contains the true value in the stated percentage of repeated samples.',
    source: 'Neyman (1937)',
  },
  {
    term: 'coverage interval',
    meaning:
      'The range that contains the measured quantity with the stated probability, given what is known of the inputs.',
    source: 'JCGM 101 (2008)',
  },
  { term: 'coverage', meaning: 'The proportion of samples in which an interval contains the true value.' },
  {
    term: 'standard deviation',
    also: ['SD', 'SDs', 'standard deviations'],
    meaning: 'The typical distance of readings from their mean. The divisor is n − 1 unless stated otherwise.',
    formula: 's = √(Σ(x − x̄)²/(n − 1))',
  },
  {
    term: 'standard error',
    also: ['SE'],
    meaning:
      'The standard deviation of an estimate over repeated samples: its precision, not the spread of the readings.',
    formula: 'of a mean: s/√n',
  },
  { term: 'median', meaning: 'The middle value: half of the readings lie below it, half above.' },
  {
    term: 'quartile',
    also: ['quartiles', 'percentile', 'percentiles', 'quantile', 'quantiles'],
    meaning:
      'The value below which a stated proportion of the readings lies. There are nine common definitions; the study uses one.',
    source: 'Hyndman & Fan (1996)',
  },
  {
    term: 'skewness',
    also: ['skewed'],
    meaning: 'A measure of asymmetry: above 0 if the upper tail is longer, below 0 if the lower tail is.',
    formula: 'g₁ = m₃/m₂^(3/2)',
    source: 'Joanes & Gill (1998)',
  },
  {
    term: 'kurtosis',
    also: ['tails'],
    meaning:
      'A measure of tail weight: above 0 if the tails are heavier than those of a normal distribution, below 0 if they are lighter.',
    formula: 'g₂ = m₄/m₂² − 3',
    source: 'Joanes & Gill (1998)',
  },
  {
    term: 'normal',
    also: ['normality', 'normal distribution'],
    meaning:
      'The bell-shaped distribution with a mean and a standard deviation. Sums of many small independent errors are nearly normal.',
    source: 'Gauss (1809)',
  },
  {
    term: 'probability plot',
    also: ['plotting positions', 'simultaneous band', 'band'],
    meaning:
      'Sorted readings against the values expected for a distribution: straight if the distribution fits. The band contains most samples from the distribution entirely.',
    source: 'Cunnane (1978) on positions; Stirling (1982) on bands',
  },
  {
    term: 'Anderson–Darling',
    also: ['A²'],
    meaning: 'The distance between the empirical and the fitted distribution, with most weight on the tails.',
    formula: 'A² = −n − (1/n) Σ (2i − 1)[ln F(xᵢ) + ln(1 − F(xₙ₊₁₋ᵢ))]',
    source: 'Anderson & Darling (1954)',
  },
  {
    term: 'Cramér–von Mises',
    also: ['W²'],
    meaning: 'The mean squared distance between the empirical and the fitted distribution.',
    formula: 'W² = 1/(12n) + Σ (F(xᵢ) − (2i − 1)/(2n))²',
    source: 'Stephens (1974)',
  },
  {
    term: 'Shapiro–Wilk',
    also: ['W ='],
    meaning: 'A measure of the straightness of the normal plot: near 1 for a normal sample.',
    formula: 'W = (Σ aᵢxᵢ)²/Σ(x − x̄)²',
    source: 'Shapiro & Wilk (1965), Royston (1995)',
  },
  {
    term: 'Lilliefors',
    also: ['Kolmogorov–Smirnov'],
    meaning:
      'The largest distance between the empirical and the fitted distribution. The test of Lilliefors is for a normal distribution with estimated parameters.',
    formula: 'D = max |Fₙ(x) − F(x)|',
    source: 'Lilliefors (1967)',
  },
  {
    term: 'Jarque–Bera',
    meaning: 'A test that combines skewness and kurtosis.',
    formula: 'n/6 · (g₁² + g₂²/4)',
    source: 'Jarque & Bera (1980)',
  },
  {
    term: 'chi-square',
    also: ['χ²'],
    meaning:
      'A statistic with a chi-square distribution. It compares observed with expected counts, or a standard deviation with a claimed one.',
    formula: 'counts: Σ (observed − expected)²/expected; standard deviation: (n − 1)s²/σ₀²',
    source: 'Pearson (1900)',
  },
  {
    term: 'AICc',
    meaning:
      'A measure of fit with a penalty for each parameter; smaller is better. Distributions within 2 of the best cannot be distinguished.',
    formula: 'AICc = 2k − 2 ln L + 2k(k + 1)/(n − k − 1)',
    source: 'Hurvich & Tsai (1989)',
  },
  {
    term: 'maximum likelihood',
    also: ['estimated', 'likelihood'],
    meaning: 'The parameters for which the readings have the highest probability.',
    source: 'Fisher (1922)',
  },
  {
    term: 'outlier',
    also: ['outliers', 'suspected outlier', 'suspected outliers'],
    meaning:
      'A reading more extreme than expected in a clean sample of this size. A test flags it; the analyst decides whether it is wrong.',
  },
  {
    term: 'Grubbs',
    meaning: 'A test of the most extreme reading by its distance from the mean, in standard deviations.',
    formula: 'G = max |x − x̄|/s',
    source: 'Grubbs (1950)',
  },
  {
    term: 'Dixon',
    meaning: 'A test of the most extreme reading by the gap to its neighbour, divided by the range.',
    formula: 'r₁₀ = (x₂ − x₁)/(xₙ − x₁)',
    source: 'Dixon (1950), Rorabacher (1991)',
  },
  {
    term: 'ESD',
    also: ['generalised ESD'],
    meaning: 'A test for several outliers that removes the most extreme readings one by one, which avoids masking.',
    source: 'Rosner (1983)',
  },
  {
    term: 'fences',
    also: ['fence'],
    meaning: 'Limits 1.5 IQR beyond the quartiles. A rule of thumb with many false alarms.',
    formula: 'Q₁ − 1.5·(Q₃ − Q₁), Q₃ + 1.5·(Q₃ − Q₁)',
    source: 'Tukey (1977)',
  },
  {
    term: 'modified z',
    meaning: 'The distance from the median in median absolute deviations; outliers hardly change it.',
    formula: '0.6745·(x − median)/MAD',
    source: 'Iglewicz & Hoaglin (1993)',
  },
  { term: 'masking', meaning: 'The effect that two outliers hide each other from a test for one.' },
  {
    term: 't test',
    meaning: 'A test of a mean: its distance from the claimed value in standard errors.',
    formula: 't = (x̄ − μ₀)/(s/√n)',
    source: 'Student (1908)',
  },
  {
    term: 'Welch',
    meaning: 'A t test of two means with unequal variances.',
    formula: 't = (x̄₁ − x̄₂)/√(s₁²/n₁ + s₂²/n₂)',
    source: 'Welch (1947)',
  },
  {
    term: 'signed ranks',
    also: ['signed-rank'],
    meaning: 'A test of a median by the ranks of the distances from it, for symmetric distributions.',
    source: 'Wilcoxon (1945)',
  },
  {
    term: 'Mann–Whitney',
    also: ['rank sum'],
    meaning: 'A test of whether readings of one group tend to be larger than those of another.',
    source: 'Mann & Whitney (1947)',
  },
  {
    term: 'Brown–Forsythe',
    meaning: 'A test of equal spread by the distances from the medians; it is reliable for non-normal readings.',
    source: 'Brown & Forsythe (1974)',
  },
  {
    term: 'Tukey–Kramer',
    meaning: 'Comparisons of all pairs of means, adjusted for their number.',
    source: 'Kramer (1956)',
  },
  {
    term: 'Holm',
    also: ['Holm', 'adjusted p'],
    meaning:
      'An adjustment of p-values for several tests. The probability of any false rejection is at most the significance level.',
    source: 'Holm (1979)',
  },
  {
    term: 'equivalence',
    also: ['equivalence', 'margin'],
    meaning: 'Evidence that a difference is smaller than a margin, by two one-sided tests.',
    source: 'Schuirmann (1987)',
  },
  {
    term: 'tolerance',
    also: ['tolerance interval'],
    meaning: 'Limits that contain at least a stated proportion of the population, with a stated confidence.',
    source: 'Howe (1969); exact by integration',
  },
  {
    term: 'Clopper–Pearson',
    also: ['exact binomial'],
    meaning: 'A test and an interval of a proportion with at least the stated confidence.',
    source: 'Clopper & Pearson (1934)',
  },
  {
    term: 'Fisher exact',
    also: ['Fisher’s exact'],
    meaning: 'An exact test of a 2 × 2 table with fixed totals.',
    source: 'Fisher (1935)',
  },
  {
    term: 'bootstrap',
    also: ['replicate', 'replicates'],
    meaning:
      'Resampling of the readings with replacement. The variation of a statistic over the replicates shows its precision.',
    source: 'Efron (1979)',
  },
  {
    term: 'BCa',
    meaning: 'A bootstrap interval corrected for bias and skewness.',
    source: 'Efron (1987)',
  },
  {
    term: 'permutation',
    also: ['permutations', 'permutation test', 'permuted'],
    meaning:
      'A test that permutes the labels of the readings and counts how often the difference is at least as extreme.',
    source: 'Fisher (1935), Pitman (1937)',
  },
  {
    term: 'Monte Carlo',
    meaning: 'Simulation with random numbers. The same seed gives the same samples on every computer.',
    source: 'Metropolis & Ulam (1949)',
  },
  {
    term: 'seed',
    meaning: 'The start value of the random numbers, kept with the evidence so that the result can be reproduced.',
    source: 'Blackman & Vigna (2021): xoshiro128**',
  },
  {
    term: 'Box–Cox',
    also: ['lambda', 'power transformation'],
    meaning:
      'A power transformation of the readings, or the logarithm, that makes them as close to normal as possible.',
    formula: '(x^λ − 1)/λ, ln x for λ = 0',
    source: 'Box & Cox (1964)',
  },
  {
    term: 'Poisson',
    meaning: 'Counts of independent rare events. The mean equals the variance.',
    source: 'Poisson (1837)',
  },
  {
    term: 'Weibull',
    meaning: 'A distribution of strengths and lifetimes that are determined by the weakest part.',
    source: 'Weibull (1951)',
  },
  {
    term: 'degrees of freedom',
    also: ['df'],
    meaning: 'The number of readings minus the number of estimated parameters.',
  },
];

export const TERMS_OF_THE_TRADE: readonly Term[] = OF_THE_TRADE;
export const TERMS: readonly Term[] = [...OF_THE_HOUSE, ...OF_THE_TRADE];

const bare = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
/** A word by itself: letters beside it would make it another. */
const standing = (form: string) => new RegExp(`(?<![\\p{L}\\d])${bare(form)}(?![\\p{L}\\d])`, 'iu');
const FORMS = new Map(TERMS.map((term) => [term, [term.term, ...(term.also ?? [])].map(standing)]));

/** Where a term stands first in a text; null where it does not. */
export function firstPlaceOf(term: Term, text: string): { from: number; to: number } | null {
  const places = FORMS.get(term)!.flatMap((form) => {
    const match = form.exec(text);
    return match ? [{ from: match.index, to: match.index + match[0].length }] : [];
  });
  return places.length === 0
    ? null
    : places.reduce((a, b) => (b.from < a.from || (b.from === a.from && b.to > a.to) ? b : a));
}

/** The terms that stand in a text, in the order of the list. */
export const termsIn = (text: string): Term[] => TERMS.filter((term) => firstPlaceOf(term, text) !== null);
