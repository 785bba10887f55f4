import { formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import type { Explained, FoundFigure } from '../../road/figure.js';
import type { FittedTest } from '../../goodness-of-fit/fitted/battery.js';
import { mainFittedTest, type GoodnessOfFitResult, type GoodnessOfFitTest } from './goodness-of-fit-result.js';
import { FITTED_SYMBOLS } from './goodness-of-fit-words.js';

const FACTS: Record<FittedTest, Omit<Explained, 'key'> & { looksAt: string }> = {
  'anderson-darling': {
    name: 'Anderson–Darling',
    looksAt: 'the whole distribution, mainly the tails',
    meaning: 'The distance between the empirical distribution and the fitted one, with most weight on the tails.',
    formula: 'A² = −n − Σ (2i − 1)/n · (ln F(x₍ᵢ₎) + ln(1 − F(x₍ₙ₊₁₋ᵢ₎)))',
    use: 'A good choice if the kind of departure is not known.',
  },
  'cramer-von-mises': {
    name: 'Cramér–von Mises',
    looksAt: 'the whole distribution, mainly the centre',
    meaning: 'The mean squared distance between the empirical distribution and the fitted one.',
    formula: 'W² = 1/(12n) + Σ (F(x₍ᵢ₎) − (2i − 1)/(2n))²',
  },
  'kolmogorov-smirnov': {
    name: 'Kolmogorov–Smirnov',
    looksAt: 'the centre',
    meaning: 'The largest distance between the empirical distribution and the fitted one.',
    formula: 'D = max |steps − F(x)|',
    use: 'Low power against departures in the tails; mainly for comparison.',
  },
  'chi-square': {
    name: 'equal-probability cells',
    looksAt: 'counts in cells',
    meaning: 'Observed and expected counts in cells of equal probability under the distribution.',
    formula: 'χ² = Σ (observed − n/k)²/(n/k)',
    use: 'For comparison only: differences within a cell are not detected.',
  },
};

const pOf = (p: number | null | undefined, { alpha }: Pick<GoodnessOfFitResult, 'alpha'>) =>
  p === null || p === undefined ? null : formatP(p, alpha);

const P_FIGURES: Record<'pExact' | 'pSimulated' | 'pAsymptotic' | 'pResolution', Omit<Explained, 'key'>> = {
  pExact: {
    name: 'p, exact',
    meaning:
      'The exact probability of data at least as extreme under the claimed distribution; no parameter was estimated.',
    formula: 'Marsaglia and Marsaglia 2004 for A²; Marsaglia, Tsang and Wang 2003 for D',
    use: 'Report this one for a claimed distribution.',
  },
  pSimulated: {
    name: 'p, simulated',
    meaning:
      'The probability that a sample of this size from the fitted distribution is at least this extreme, with its parameters estimated again.',
    formula: '(b + 1)/(B + 1), b of B samples at least as extreme',
    use: 'Report this one if parameters were estimated. Tables for known parameters give a p that is much too large.',
  },
  pAsymptotic: {
    name: 'p, asymptotic',
    meaning: 'From χ² with one degree of freedom less for each estimated parameter; approximate.',
    formula: 'cells − 1 − estimated parameters degrees of freedom',
    use: 'Only for comparison with a value calculated elsewhere.',
  },
  pResolution: {
    name: 'p, rounding allowed for',
    meaning:
      'The probability that a sample from the distribution, rounded to the same resolution, is at least this extreme.',
    formula: '(b + 1)/(B + 1), with samples rounded like the readings',
    use: 'Report it with the simulated p if the resolution is coarse.',
  },
};

const NUMBERS = ['pExact', 'pSimulated', 'pAsymptotic', 'pResolution'] as const;
const numberOf = (test: GoodnessOfFitTest, key: (typeof NUMBERS)[number]): number | null => {
  const found = test[key];
  return typeof found === 'object' ? (found?.pValue ?? null) : found;
};

/** The chosen test as figures: its statistic, then its p-values. */
export function fittedTestFigures(result: GoodnessOfFitResult): FoundFigure[] {
  const test = mainFittedTest(result);
  const { looksAt: _, ...facts } = FACTS[test.test];
  const statistic = {
    ...facts,
    key: 'statistic',
    name: `${facts.name} ${FITTED_SYMBOLS[test.test]}`,
    texts: [formatFigure(test.statistic!, 'statistic')],
    note: test.df === null ? '' : `${result.cells} cells`,
  };
  const waiting = test.pSimulated === null && test.pExact === null;
  const ps = NUMBERS.flatMap((key): FoundFigure[] => {
    const p = pOf(numberOf(test, key), result) ?? (key === 'pSimulated' && waiting ? '…' : null);
    if (p === null) return [];
    const { pSimulated } = test;
    const interval = key === 'pSimulated' && pSimulated ? pSimulated.pInterval.map((end) => formatP(end)) : null;
    const note = interval ? `${groupThousands(pSimulated!.replicates)} samples: ${interval.join(' – ')}` : '';
    return [{ ...P_FIGURES[key], key, texts: [p], note }];
  });
  return [statistic, ...ps, ...differsFigures(result)];
}

/** In what the readings differ from a claim. */
function differsFigures({ differs, alpha }: GoodnessOfFitResult): FoundFigure[] {
  if (!differs) return [];
  const rows: [string, string, string, string, number | undefined][] = [
    [
      'centre',
      'p of the centre',
      'Test of whether the readings lie lower or higher than claimed.',
      'mean of the normal scores of F(x), times √n',
      differs.centre.pValue,
    ],
    [
      'spread',
      'p of the spread',
      'Test of whether the spread is smaller or larger than claimed.',
      'Σ(z − mean z)², χ² with n − 1 degrees of freedom',
      differs.spread.pValue,
    ],
    [
      'shape',
      'p of the shape',
      'Test of the type of distribution, with estimated parameters.',
      'A² of the same distribution with estimated parameters, simulated',
      differs.shape?.pValue,
    ],
  ];
  return rows.flatMap(([key, name, meaning, formula, p]) =>
    p === undefined ? [] : [{ key, name, meaning, formula, texts: [formatP(p, alpha)], note: '' }],
  );
}

/** All tests side by side; the chosen one is marked. */
export function fittedTestTable(result: GoodnessOfFitResult): FoundFigure[] {
  return result.tests.map((test) => {
    const { looksAt: _, ...facts } = FACTS[test.test];
    const statistic = test.statistic === null ? '–' : formatFigure(test.statistic, 'statistic');
    const name = `${facts.name} ${FITTED_SYMBOLS[test.test]}`;
    const note = test.test === result.main ? 'chosen' : '';
    return { ...facts, key: test.test, name, texts: [statistic, pOf(test.pValue, result) ?? '–'], note };
  });
}

/** What else is known of one of the tests. */
export function fittedTestDetails(result: GoodnessOfFitResult, key: string): { name: string; text: string }[] {
  const test = result.tests.find((one) => one.test === key);
  if (!test) return [];
  const [low, high] = test.pSimulated?.pInterval ?? [];
  const rows: [string, string | null | undefined][] = [
    ['most sensitive to', FACTS[test.test].looksAt],
    ['interval of the simulated p', test.pSimulated && `${pOf(low, result)} – ${pOf(high, result)}`],
    ...NUMBERS.map((number): [string, string | null] => [P_FIGURES[number].name, pOf(numberOf(test, number), result)]),
  ];
  return rows.flatMap(([name, text]) => (text ? [{ name, text }] : []));
}
