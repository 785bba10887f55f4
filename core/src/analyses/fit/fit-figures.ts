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
      'The probability that a sample of this size from a normal distribution is at least this far from the fitted one. A small value is evidence against normality.',
    formula: '(b + 1)/(B + 1), b of B samples at least as extreme',
    use: 'Report this one. It is valid for any n, and the finding uses it.',
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
    name: 'p, asymptotic',
    meaning: 'The same p from the published approximation to this test, without simulation.',
    formula: 'published approximation',
    use: 'Only for comparison with a value calculated elsewhere with this formula. Report the simulated p.',
    text: (result) => pOf(mainTest(result).pAsymptotic, result),
  },
  {
    key: 'pResolution',
    name: 'p, rounding allowed for',
    meaning:
      'The probability that a sample from a normal distribution, rounded to the same resolution, is at least this far from it.',
    formula: '(b + 1)/(B + 1), with samples rounded like the readings',
    use: 'Report it with the simulated p if the resolution is coarse. If only this p is above the significance level, rounding explains the departure.',
    text: (result) => pOf(mainTest(result).pResolution?.pValue, result),
    note: ({ resolution, unit }) => `resolution ${resolution}${unit ? `\u00a0${unit}` : ''}`,
  },
];

/** The plot as figures. */
export const PLOT_FIGURES: readonly FigureOf<ProbabilityPlotResult>[] = [
  {
    key: 'correlation',
    name: 'correlation of this plot',
    meaning:
      'How close the plotted readings are to a straight line (1). A single outlier lowers it as much as a curve does.',
    formula: 'correlation of the sorted readings with their scores',
    use: 'It describes the plot. To judge the distribution, use the test.',
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
    ['most sensitive to', looksAt],
    ['interval of the simulated p', pSimulated && `${pOf(low, result)} – ${pOf(high, result)}`],
    [`p, asymptotic (${pSource})`, pOf(pAsymptotic, result)],
    ['p, rounding allowed for', pOf(pResolution?.pValue, result)],
  ];
  return rows.flatMap(([name, text]) => (text ? [{ name, text }] : []));
}
