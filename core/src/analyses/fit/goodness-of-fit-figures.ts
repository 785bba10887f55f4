import { formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import type { Explained, FoundFigure } from '../../road/figure.js';
import type { FittedTest } from '../../goodness-of-fit/fitted/battery.js';
import { mainFittedTest, type GoodnessOfFitResult, type GoodnessOfFitTest } from './goodness-of-fit-result.js';
import { FITTED_SYMBOLS } from './goodness-of-fit-words.js';

const FACTS: Record<FittedTest, Omit<Explained, 'key'> & { looksAt: string }> = {
  'anderson-darling': {
    name: 'Anderson–Darling',
    looksAt: 'all, the tails most',
    meaning: 'How far the steps of the readings lie from the distribution, the tails counting most.',
    formula: 'A² = −n − Σ (2i − 1)/n · (ln F(x₍ᵢ₎) + ln(1 − F(x₍ₙ₊₁₋ᵢ₎)))',
    use: 'A good choice when nothing is known of how the readings may depart.',
  },
  'cramer-von-mises': {
    name: 'Cramér–von Mises',
    looksAt: 'all, the middle most',
    meaning: 'The squared distance of the steps of the readings from the distribution.',
    formula: 'W² = 1/(12n) + Σ (F(x₍ᵢ₎) − (2i − 1)/(2n))²',
  },
  'kolmogorov-smirnov': {
    name: 'Kolmogorov–Smirnov',
    looksAt: 'the middle',
    meaning: 'The greatest distance of the steps of the readings from the distribution.',
    formula: 'D = max |steps − F(x)|',
    use: 'Weak against long tails; for comparison.',
  },
  'chi-square': {
    name: 'equally likely cells',
    looksAt: 'counts in cells',
    meaning: 'Readings counted in cells that the distribution makes equally likely, beside what is expected in each.',
    formula: 'χ² = Σ (counted − n/k)²/(n/k)',
    use: 'For comparison: what goes on within a cell is not seen.',
  },
};

const pOf = (p: number | null | undefined, { alpha }: Pick<GoodnessOfFitResult, 'alpha'>) =>
  p === null || p === undefined ? null : formatP(p, alpha);

const P_FIGURES: Record<'pExact' | 'pSimulated' | 'pAsymptotic' | 'pResolution', Omit<Explained, 'key'>> = {
  pExact: {
    name: 'p, exact',
    meaning:
      'How often readings of exactly the claimed distribution lie at least as far off: known, as nothing was estimated.',
    formula: 'Marsaglia and Marsaglia 2004 for A²; Marsaglia, Tsang and Wang 2003 for D',
    use: 'The one to quote for a claim.',
  },
  pSimulated: {
    name: 'p, simulated',
    meaning:
      'How often a sample of this size from the distribution, fitted anew in the same way, lies at least as far off.',
    formula: '(b + 1)/(B + 1), b of B samples at least as far off',
    use: 'The one to quote where parameters were estimated: tables for known parameters are far too kind then.',
  },
  pAsymptotic: {
    name: 'p, by formula',
    meaning: 'χ² with one degree of freedom less for each estimated parameter: about right only.',
    formula: 'cells − 1 − estimated parameters degrees of freedom',
    use: 'Only to compare with a figure worked out elsewhere.',
  },
  pResolution: {
    name: 'p, against the rounded',
    meaning:
      'How often the distribution, read to the same steps, lies at least as far off: what is left once the rounding is allowed for.',
    formula: '(b + 1)/(B + 1), the samples rounded as the readings are',
    use: 'Quote it beside the simulated p where the readings step coarsely.',
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
      'p, centre',
      'Whether the readings lie lower or higher than the claim, whatever their spread.',
      'mean of the normal scores of F(x), times √n',
      differs.centre.pValue,
    ],
    [
      'spread',
      'p, spread',
      'Whether they spread more or less widely than the claim.',
      'Σ(z − mean z)², χ² with n − 1 degrees of freedom',
      differs.spread.pValue,
    ],
    [
      'shape',
      'p, shape',
      'Whether the family itself is another, its parameters being estimated.',
      'A² of the same family, estimated, simulated',
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
    ['looks at', FACTS[test.test].looksAt],
    ['p, simulated, lies in', test.pSimulated && `${pOf(low, result)} – ${pOf(high, result)}`],
    ...NUMBERS.map((number): [string, string | null] => [P_FIGURES[number].name, pOf(numberOf(test, number), result)]),
  ];
  return rows.flatMap(([name, text]) => (text ? [{ name, text }] : []));
}
