import { equalsP, formatFigure, formatP, groupThousands } from '../../numeric/format.js';
import { isUnavailable, type Piece, type Unavailable } from '../../road/analysis.js';
import type { FoundFigure } from '../../road/figure.js';
import { foundParts, type InParts } from '../../road/in-parts.js';
import { normalityTable } from './fit-figures.js';
import { FITTED_SYMBOLS, fitFinding } from './goodness-of-fit-words.js';
import { fittedTestTable } from './goodness-of-fit-figures.js';
import { mainFittedTest, type GoodnessOfFitResult } from './goodness-of-fit-result.js';
import { lawFigures } from './law-figures.js';
import type { ProbabilityPlotResult } from './plot-result.js';
import { mainTest, type NormalityResult } from './normality-result.js';
import { testFacts } from './normality-tests.js';
import { normalityFinding } from './normality-words.js';

/** The columns of the table of parts. */
export const PARTS_COLUMNS = ['n', 'statistic', 'p'] as const;

type Tested = NormalityResult | GoodnessOfFitResult;
const isNormality = (result: Tested): result is NormalityResult => 'mean' in result;
const said = (pieces: readonly Piece[]) => pieces.map(({ text }) => text).join('');

/** A part as a row: its n, the statistic of the chosen test and p; its finding when it is asked for. */
function partFigure(name: string, n: number, result: Tested | Unavailable): FoundFigure {
  if (isUnavailable(result)) {
    return { key: name, name, meaning: result.reason, formula: '', note: '', texts: [groupThousands(n), '–', '–'] };
  }
  const test = isNormality(result) ? mainTest(result) : mainFittedTest(result);
  const [meaning, symbol] = isNormality(result)
    ? [said(normalityFinding(result)), testFacts(result.main, n).symbol]
    : [said(fitFinding(result)), FITTED_SYMBOLS[result.main]];
  const statistic = test.statistic === null ? '–' : `${symbol}\u00a0${formatFigure(test.statistic, 'statistic')}`;
  const p = test.pValue === null ? '…' : formatP(test.pValue, result.alpha);
  const p2 = test.pResolution;
  const use = p2 ? `With rounding allowed for, ${equalsP(p2.pValue, result.alpha)}.` : undefined;
  return {
    ...{ key: name, name, meaning, note: '', texts: [groupThousands(n), statistic, p] },
    formula: 'The test of this group alone; the finding is adjusted for all groups.',
    ...(use ? { use } : {}),
  };
}

/** The chosen test of every part, a row each. */
export const partsFigures = ({ parts }: InParts<Tested>): FoundFigure[] =>
  parts.map(({ name, n, result }) => partFigure(name, n, result));

/** Results of several parts side by side: a row for each figure that any of them has. */
function beside(columns: readonly (readonly FoundFigure[])[], cell: (figure: FoundFigure) => string): FoundFigure[] {
  const rows = new Map<string, FoundFigure>();
  columns.forEach((figures, i) => {
    for (const figure of figures) {
      const row = rows.get(figure.key) ?? { ...figure, note: '', texts: columns.map(() => '–') };
      rows.set(figure.key, { ...row, texts: row.texts.with(i, cell(figure)) });
    }
  });
  return [...rows.values()];
}

/** All tests, p of every part beside one another under its name. */
export function partsTests(result: InParts<Tested>): { heads: string[]; rows: FoundFigure[] } {
  const found = foundParts(result);
  const tables = found.map(({ result: own }) => (isNormality(own) ? normalityTable(own) : fittedTestTable(own)));
  return { heads: found.map(({ name }) => name), rows: beside(tables, ({ texts }) => texts.at(-1)!) };
}

/** The distributions of all series: parameters with their standard errors, and shares outside limits. */
export function seriesLawFigures(result: InParts<ProbabilityPlotResult>): { heads: string[]; rows: FoundFigure[] } {
  const found = foundParts(result);
  const rows = beside(
    found.map(({ result: plot }) => lawFigures(plot)),
    // An interval of a share is too wide for a column of many.
    ({ key, texts, note }) =>
      key === 'outsideLimits' || note === 'given' || !note ? texts[0]! : `${texts[0]!} ${note}`,
  );
  return { heads: found.map(({ name }) => name), rows };
}
