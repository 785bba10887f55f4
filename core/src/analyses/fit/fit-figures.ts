import { formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import { foundFigures, type FigureOf, type FoundFigure } from '../../road/figure.js';
import { mainTest, type NormalityResult } from './normality-result.js';
import { testFacts } from './normality-tests.js';
import type { ProbabilityPlotResult } from './probability-plot.js';

const pOf = (p: number | null | undefined, { alpha }: Pick<NormalityResult, 'alpha'>) =>
  p === null || p === undefined ? null : formatP(p, alpha);

/** The p-values of the chosen test, with which of them to quote. */
export const NORMALITY_P_FIGURES: readonly FigureOf<NormalityResult>[] = [
  {
    key: 'pSimulated',
    name: 'p, simulated',
    meaning:
      'How often a sample of this size from a normal distribution, fitted in the same way, lies at least as far off. Small speaks against normal.',
    formula: '(b + 1)/(B + 1), b of B samples at least as far off',
    use: 'The one to quote: it holds at any n, and the finding is read from it.',
    text: (result) => {
      const { pSimulated } = mainTest(result);
      return pSimulated ? pOf(pSimulated.pValue, result) : '…';
    },
    note: (result) => {
      const { pSimulated: p } = mainTest(result);
      if (!p) return '';
      const [low, high] = p.pInterval.map((end) => formatP(end));
      return `${groupThousands(p.replicates)} samples: ${low} – ${high}`;
    },
  },
  {
    key: 'pAsymptotic',
    name: 'p, by formula',
    meaning: 'The same p from the published approximation to this test, without simulation.',
    formula: 'by the published approximation',
    use: 'Only to compare with a figure that was worked out elsewhere by this formula; quote the simulated p.',
    text: (result) => pOf(mainTest(result).pAsymptotic, result),
  },
  {
    key: 'pResolution',
    name: 'p, against a rounded normal',
    meaning:
      'How often a normal that is read to the same steps lies at least as far off: what is left once the rounding is allowed for.',
    formula: '(b + 1)/(B + 1), the samples rounded as the readings are',
    use: 'Quote it beside the simulated p where the readings step coarsely: if only it is above the level, the rounding was found, not a departure.',
    text: (result) => pOf(mainTest(result).pResolution?.pValue, result),
    note: ({ resolution, unit }) => `steps of ${resolution}${unit ? `\u00a0${unit}` : ''}`,
  },
];

/** The plot as figures. */
export const PLOT_FIGURES: readonly FigureOf<ProbabilityPlotResult>[] = [
  {
    key: 'correlation',
    name: 'correlation of this plot',
    meaning: 'How straight the plotted readings lie; 1 is a line. One far reading lowers it as much as a bend does.',
    formula: 'correlation of the readings in order with their scores',
    use: 'To say how straight, not whether normal: for that there is the test.',
    text: ({ correlation }) => correlation.toFixed(4),
  },
];

/** The chosen test as figures: its statistic, then its p-values. */
export function normalityFigures(result: NormalityResult): FoundFigure[] {
  const { name, symbol, pSource, looksAt: _, ...facts } = testFacts(result.main, result.n);
  const statistic = formatFigure(mainTest(result).statistic!, 'statistic');
  return [
    { ...facts, key: 'statistic', name: `${name} ${symbol}`, texts: [statistic], note: '' },
    ...foundFigures(NORMALITY_P_FIGURES, [result]).map((figure) =>
      figure.key === 'pAsymptotic' ? { ...figure, formula: pSource ?? '' } : figure,
    ),
  ];
}

/** The columns of a table of tests. */
export const TEST_COLUMNS = ['statistic', 'p'] as const;

/** All tests side by side with their simulated p; the chosen one is marked. */
export function normalityTable(result: NormalityResult): FoundFigure[] {
  return result.tests.map((test) => {
    const { symbol, looksAt: _, pSource: __, name, ...facts } = testFacts(test.test, result.n);
    const statistic = test.statistic === null ? '–' : formatFigure(test.statistic, 'statistic');
    const note = test.test === result.main ? 'chosen' : '';
    return { ...facts, name: `${name} ${symbol}`, texts: [statistic, pOf(test.pValue, result) ?? '–'], note };
  });
}

/** What else is known of one of the tests: where it looks, its interval, its other p-values. */
export function normalityDetails(result: NormalityResult, key: string): { name: string; text: string }[] {
  const test = result.tests.find((one) => one.test === key);
  if (!test) return [];
  const { pSimulated, pAsymptotic, pResolution } = test;
  const { looksAt, pSource } = testFacts(test.test, result.n);
  const [low, high] = pSimulated?.pInterval ?? [];
  const rows: [string, string | null | undefined][] = [
    ['looks at', looksAt],
    ['p, simulated, lies in', pSimulated && `${pOf(low, result)} – ${pOf(high, result)}`],
    [`p, by formula (${pSource})`, pOf(pAsymptotic, result)],
    ['p, against a rounded normal', pOf(pResolution?.pValue, result)],
  ];
  return rows.flatMap(([name, text]) => (text ? [{ name, text }] : []));
}
