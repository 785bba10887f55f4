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
  { term: 'subject', meaning: 'The column that is looked at. It is chosen once, in the bar above every stage.' },
  {
    term: 'set aside',
    meaning: 'A reading that is left out of every figure, with a reason. It stays in the table, and can be put back.',
  },
  { term: 'left in', meaning: 'A far reading that was looked at and stays in on purpose, with a reason.' },
  {
    term: 'evidence',
    also: ['kept'],
    meaning:
      'A result that was kept with its settings, its seed and a fingerprint of its readings, so that anyone can work it out again.',
  },
  {
    term: 'caution',
    also: ['Mind'],
    meaning:
      'What a careful colleague would say beside a result. Before a verdict each is answered, or left open with a reason.',
  },
  {
    term: 'fingerprint',
    meaning:
      'SHA-256 of the readings used, as little-endian doubles in the order of the rows. Two results with the same fingerprint are about the same readings.',
    source: 'FIPS 180-4',
  },
  {
    term: 'recompute',
    also: ['recomputed', 'bit for bit'],
    meaning: 'Works a kept result out again and compares every bit of it.',
  },
  {
    term: 'resolution',
    also: ['steps of', 'rounded'],
    meaning:
      'The step in which an instrument reads. Readings that share few values are judged against a law that is rounded in the same way.',
  },
  {
    term: 'limits',
    also: ['lower limit', 'upper limit', 'specification'],
    meaning: 'Between which a reading should lie, from the specification. They are no intervals of the readings.',
  },
];

/** Words of the trade, with their sources. */
const OF_THE_TRADE: readonly Term[] = [
  {
    term: 'level',
    also: ['alpha'],
    meaning: 'How often a test may speak against something that is true: chosen before looking, 0.05 by default.',
    formula: 'P(p ≤ level) ≤ level, if what is tested is true',
    source: 'Neyman & Pearson (1933)',
  },
  {
    term: 'p-value',
    also: ['p =', 'p <', 'p is', 'p of'],
    meaning:
      'How often a sample of this size would be at least as far out, if what is tested were true. It is not the chance that it is true.',
    formula: 'p = P(T at least as far out as found | what is tested holds)',
    source: 'Fisher (1925)',
  },
  {
    term: 'simulated p',
    also: ['p, simulated', 'simulated samples'],
    meaning:
      'p counted among samples drawn as if what is tested were true; with one more counted on both sides, so that it is never 0.',
    formula: 'p = (b + 1)/(B + 1)',
    source: 'Davison & Hinkley (1997), section 4.2',
  },
  {
    term: 'no evidence against',
    meaning:
      'The test did not speak against it at the level. That does not show it to be true: the power says what so many readings could have missed.',
  },
  {
    term: 'power',
    also: ['could have missed', 'chance to notice'],
    meaning: 'How likely a test is to notice a departure of a given size, with so many readings.',
    formula: 'power = P(p ≤ level | the departure is there)',
    source: 'Neyman & Pearson (1933)',
  },
  {
    term: 'confidence interval',
    also: ['interval', 'confidence'],
    meaning: 'A range that is made so that it holds the true figure in so many of a hundred samples.',
    source: 'Neyman (1937)',
  },
  { term: 'coverage', meaning: 'In how many samples an interval really holds the true figure.' },
  {
    term: 'sd',
    also: ['standard deviation'],
    meaning:
      'Standard deviation: how far readings typically lie from their mean. The divisor is n − 1 unless it is said.',
    formula: 's = √(Σ(x − x̄)²/(n − 1))',
  },
  {
    term: 'standard error',
    also: ['SE'],
    meaning: 'The sd of a figure over repeated samples: how sure the figure is, not how far readings lie apart.',
    formula: 'of a mean: s/√n',
  },
  { term: 'median', meaning: 'The middle reading: half lie below it, half above.' },
  {
    term: 'quartile',
    also: ['quartiles', 'percentile', 'percentiles', 'quantile', 'quantiles'],
    meaning:
      'The value below which a quarter (or any share) of the readings lies. There are nine usual definitions; the study chooses one.',
    source: 'Hyndman & Fan (1996)',
  },
  {
    term: 'skewness',
    also: ['lean', 'lopsided'],
    meaning: 'Whether one side is drawn out: above 0 the upper one, below 0 the lower.',
    formula: 'g₁ = m₃/m₂^(3/2)',
    source: 'Joanes & Gill (1998)',
  },
  {
    term: 'kurtosis',
    also: ['tails'],
    meaning: 'Whether far readings are more (above 0) or fewer (below 0) than a normal distribution has.',
    formula: 'g₂ = m₄/m₂² − 3',
    source: 'Joanes & Gill (1998)',
  },
  {
    term: 'normal',
    also: ['normality', 'normal distribution'],
    meaning: 'The bell-shaped distribution, of a mean and an sd. Sums of many small independent errors are near it.',
    source: 'Gauss (1809)',
  },
  {
    term: 'probability plot',
    also: ['positions', 'whole-plot band', 'band'],
    meaning:
      'Readings in rising order against where readings of the family would be expected: straight where the family fits. The band is where samples of the family stay.',
    source: 'Cunnane (1978) on positions; Stirling (1982) on bands',
  },
  {
    term: 'Anderson–Darling',
    also: ['A²'],
    meaning: 'The distance between the readings’ steps and the fitted curve, the tails weighed most.',
    formula: 'A² = −n − (1/n) Σ (2i − 1)[ln F(xᵢ) + ln(1 − F(xₙ₊₁₋ᵢ))]',
    source: 'Anderson & Darling (1954)',
  },
  {
    term: 'Cramér–von Mises',
    also: ['W²'],
    meaning: 'The squared distance between the readings’ steps and the fitted curve, all places alike.',
    formula: 'W² = 1/(12n) + Σ (F(xᵢ) − (2i − 1)/(2n))²',
    source: 'Stephens (1974)',
  },
  {
    term: 'Shapiro–Wilk',
    also: ['W ='],
    meaning: 'How straight the normal plot is: near 1 for a normal sample.',
    formula: 'W = (Σ aᵢxᵢ)²/Σ(x − x̄)²',
    source: 'Shapiro & Wilk (1965), Royston (1995)',
  },
  {
    term: 'Lilliefors',
    also: ['Kolmogorov–Smirnov'],
    meaning: 'The greatest distance between the readings’ steps and the fitted curve, with parameters estimated.',
    formula: 'D = max |Fₙ(x) − F(x)|',
    source: 'Lilliefors (1967)',
  },
  {
    term: 'Jarque–Bera',
    meaning: 'Skewness and kurtosis in one figure.',
    formula: 'n/6 · (g₁² + g₂²/4)',
    source: 'Jarque & Bera (1980)',
  },
  {
    term: 'chi-square',
    also: ['χ²'],
    meaning: 'Counted against expected, cell by cell.',
    formula: 'χ² = Σ (observed − expected)²/expected',
    source: 'Pearson (1900)',
  },
  {
    term: 'AICc',
    meaning:
      'How well a family describes the readings, less a price for each parameter. Families within 2 of the best are not told apart by this sample.',
    formula: 'AICc = 2k − 2 ln L + 2k(k + 1)/(n − k − 1)',
    source: 'Hurvich & Tsai (1989)',
  },
  {
    term: 'maximum likelihood',
    also: ['estimated', 'likelihood'],
    meaning: 'The parameters under which these very readings are the most likely.',
    source: 'Fisher (1922)',
  },
  {
    term: 'outlier',
    also: ['outliers', 'far reading', 'far readings', 'too far out'],
    meaning:
      'A reading that lies farther out than the farthest of a clean sample of this size usually does. A rule names it; whether it is wrong is for the analyst to find out.',
  },
  {
    term: 'Grubbs',
    meaning: 'The farthest reading in sd from the mean, against the farthest of clean samples.',
    formula: 'G = max |x − x̄|/s',
    source: 'Grubbs (1950)',
  },
  {
    term: 'Dixon',
    meaning: 'The gap beside the farthest reading, over the range.',
    formula: 'r₁₀ = (x₂ − x₁)/(xₙ − x₁)',
    source: 'Dixon (1950), Rorabacher (1991)',
  },
  {
    term: 'ESD',
    also: ['generalised ESD'],
    meaning:
      'Takes the farthest readings away one by one and says how many of them are too far out: none hides behind another.',
    source: 'Rosner (1983)',
  },
  {
    term: 'fences',
    also: ['fence'],
    meaning:
      'One and a half box lengths beyond the quartiles. A rule of thumb: it names readings of many clean samples too.',
    formula: 'Q₁ − 1.5·(Q₃ − Q₁), Q₃ + 1.5·(Q₃ − Q₁)',
    source: 'Tukey (1977)',
  },
  {
    term: 'modified z',
    meaning: 'Distance from the median in median absolute deviations: far readings do not move it.',
    formula: '0.6745·(x − median)/MAD',
    source: 'Iglewicz & Hoaglin (1993)',
  },
  { term: 'masking', meaning: 'Two far readings that each hide the other from a test for one.' },
  {
    term: 't test',
    also: ['Student', 't on'],
    meaning: 'The mean of the readings against a claimed one, in standard errors.',
    formula: 't = (x̄ − μ₀)/(s/√n)',
    source: 'Student (1908)',
  },
  {
    term: 'Welch',
    meaning: 'Two means whose spreads may differ.',
    formula: 't = (x̄₁ − x̄₂)/√(s₁²/n₁ + s₂²/n₂)',
    source: 'Welch (1947)',
  },
  {
    term: 'signed ranks',
    also: ['signed-rank'],
    meaning:
      'The median against a claimed one, by the ranks of the distances from it; for readings that lean to neither side.',
    source: 'Wilcoxon (1945)',
  },
  {
    term: 'Mann–Whitney',
    also: ['rank sum', 'ranks'],
    meaning: 'Whether readings of one group tend to lie above those of the other.',
    source: 'Mann & Whitney (1947)',
  },
  {
    term: 'Brown–Forsythe',
    meaning: 'Spreads by the distances from the medians; holds its level for readings that are not normal.',
    source: 'Brown & Forsythe (1974)',
  },
  {
    term: 'Tukey–Kramer',
    meaning: 'All pairs of several means at once, the level kept for all of them together.',
    source: 'Kramer (1956)',
  },
  {
    term: 'Holm',
    also: ['Holm’s steps', 'shared by Holm'],
    meaning: 'Shares the level among several tests, so that any wrong finding among all is as rare as the level says.',
    source: 'Holm (1979)',
  },
  {
    term: 'close enough',
    also: ['equivalence', 'margin'],
    meaning: 'Shown to differ by less than a margin: both one-sided tests say so.',
    source: 'Schuirmann (1987)',
  },
  {
    term: 'tolerance',
    also: ['tolerance interval'],
    meaning: 'Limits that hold at least a share of all readings to come, with a confidence.',
    source: 'Howe (1969); exact by integration',
  },
  {
    term: 'Clopper–Pearson',
    also: ['exact binomial'],
    meaning: 'An interval of a share that never falls short of its confidence.',
    source: 'Clopper & Pearson (1934)',
  },
  {
    term: 'Fisher exact',
    also: ['Fisher’s exact'],
    meaning: 'p of a table counted among all tables with the same totals.',
    source: 'Fisher (1935)',
  },
  {
    term: 'bootstrap',
    also: ['redrawn', 'replicate', 'replicates'],
    meaning:
      'The readings drawn anew from themselves, put back each time: how far the figure moves says how sure it is.',
    source: 'Efron (1979)',
  },
  {
    term: 'BCa',
    meaning: 'A bootstrap interval corrected for bias and for a spread that changes with the figure.',
    source: 'Efron (1987)',
  },
  {
    term: 'permutation',
    also: ['shuffled', 'arrangements'],
    meaning: 'Labels dealt anew over the readings: how often chance alone makes the difference as great.',
    source: 'Fisher (1935), Pitman (1937)',
  },
  {
    term: 'Monte Carlo',
    also: ['trials'],
    meaning:
      'Samples drawn by a seeded generator in place of an integral. The same seed gives the same samples, in any engine and with any number of workers.',
    source: 'Metropolis & Ulam (1949)',
  },
  {
    term: 'seed',
    meaning: 'The number from which the random draws begin: kept with the evidence, so that they can be drawn again.',
    source: 'Blackman & Vigna (2021): xoshiro128**',
  },
  {
    term: 'Box–Cox',
    also: ['lambda'],
    meaning: 'A power of the readings, or their logarithm, that makes them as near normal as a power can.',
    formula: '(x^λ − 1)/λ, ln x for λ = 0',
    source: 'Box & Cox (1964)',
  },
  {
    term: 'Poisson',
    meaning: 'Counts of rare things that do not know of each other; mean and variance are alike.',
    source: 'Poisson (1837)',
  },
  {
    term: 'Weibull',
    meaning: 'Of the weakest of many parts: breaking forces, times to failure.',
    source: 'Weibull (1951)',
  },
  {
    term: 'degrees of freedom',
    also: ['df'],
    meaning: 'How many readings are left to tell the spread, once what was estimated is taken off.',
  },
];

export const TERMS: readonly Term[] = [...OF_THE_HOUSE, ...OF_THE_TRADE];

const bare = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
/** A word by itself: letters beside it would make it another. */
const standing = (form: string) => new RegExp(`(?<![\\p{L}\\d])${bare(form)}(?![\\p{L}\\d])`, 'iu');
const PATTERNS = TERMS.map((term) => ({ term, forms: [term.term, ...(term.also ?? [])].map(standing) }));

/** The terms that stand in a text, in the order of the list. */
export const termsIn = (text: string): Term[] =>
  PATTERNS.filter(({ forms }) => forms.some((form) => form.test(text))).map(({ term }) => term);
