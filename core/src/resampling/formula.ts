import type { MathNode } from 'mathjs/number';
import { quartilesOfSorted } from '../describe/quantiles.js';
import { evaluate } from '../table/evaluate.js';
import { readFormula } from '../table/formula.js';
import { figureOfSorted, pairFigure, type Evaluator } from './figure.js';

type Named = (sorted: Float64Array) => number;
const of =
  (name: 'mean' | 'median' | 'sd' | 'variance' | 'cv' | 'skewness'): Named =>
  (sorted) =>
    figureOfSorted({ name }, sorted);

/** The statistics of a group that a formula may name. */
const FIGURES: Readonly<Record<string, Named>> = {
  mean: of('mean'),
  median: of('median'),
  sd: of('sd'),
  variance: of('variance'),
  cv: of('cv'),
  skewness: of('skewness'),
  q1: (sorted) => quartilesOfSorted(sorted, 7)[0],
  q3: (sorted) => quartilesOfSorted(sorted, 7)[1],
  least: (sorted) => sorted[0]!,
  greatest: (sorted) => sorted.at(-1)!,
  n: (sorted) => sorted.length,
};
const PAIRS = ['correlation', 'slope'] as const;

/** The names in a formula over one group, over two ("mean1", "mean2"), and over pairs. */
export function namesFor(groups: number, pairs: boolean): string[] {
  const names = Object.keys(FIGURES);
  if (groups === 1) return names;
  return [...names.flatMap((name) => [`${name}1`, `${name}2`]), ...(pairs ? PAIRS : [])];
}

/** Parses a formula over statistics; errors are reported in words. */
export function readFiguresFormula(
  formula: string,
  groups: number,
  pairs: boolean,
): { uses: readonly string[]; node: MathNode } | { problem: string } {
  const names = namesFor(groups, pairs);
  const read = readFormula(
    formula,
    names.map((name) => ({ id: name, name })),
  );
  if (!read.ok) return { problem: read.message.replace('There is no column', 'There is no statistic') };
  if (read.uses.length === 0) return { problem: `A formula must contain at least one statistic: ${names.join(', ')}.` };
  return { uses: read.uses, node: read.node };
}

const inOrder = (values: Float64Array) => values.slice().sort();

function figureIn(name: string, groups: readonly Float64Array[], sorted: readonly Float64Array[]): number {
  if (name === 'correlation' || name === 'slope') return pairFigure(name, groups[0]!, groups[1]!);
  const plain = FIGURES[name];
  if (plain) return plain(sorted[0]!);
  return FIGURES[name.slice(0, -1)]!(sorted[name.endsWith('1') ? 0 : 1]!);
}

/** The value of a formula over statistics of groups; NaN if it gives no number. Throws if it cannot be parsed: check it first. */
export function figuresFormula({ formula, pairs }: { formula: string; pairs: boolean }): Evaluator {
  const read = [1, 2].map((groups) => readFiguresFormula(formula, groups, groups === 2 && pairs));
  return (groups) => {
    const own = read[groups.length - 1]!;
    if ('problem' in own) throw new RangeError(own.problem);
    const sorted = pairs ? groups.map(inOrder) : groups;
    const found = evaluate(own.node, { rowCount: 1, column: (k) => figureIn(own.uses[k]!, groups, sorted) });
    const value = typeof found === 'number' ? found : NaN;
    return Number.isFinite(value) ? value : NaN;
  };
}
