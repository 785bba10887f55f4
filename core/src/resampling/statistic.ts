import { oneWay } from '../claims/spreads.js';
import { centralMoments } from '../numeric/sums.js';
import { figureOfSorted, logRatio, pairFigure, type Evaluator, type Figure } from './figure.js';
import { figuresFormula } from './formula.js';

/** What is looked at in every replicate. */
export type Statistic =
  | { of: 'one'; figure: Figure }
  /** Of the first group less that of the second. */
  | { of: 'difference'; figure: Figure }
  /** ln(sd of the first / sd of the second). */
  | { of: 'log-ratio' }
  /** Of several groups: F of one-way analysis of variance, and the greatest less the least mean. */
  | { of: 'f' }
  | { of: 'largest-difference' }
  /** Of two columns in pairs; the slope is that of the first over the second. */
  | { of: 'correlation' }
  | { of: 'slope' }
  /** A formula over figures of the groups. */
  | { of: 'formula'; formula: string; pairs: boolean };

function largestDifference(groups: readonly Float64Array[]): number {
  const means = groups.map((values) => centralMoments(values).mean);
  return means.reduce((a, b) => Math.max(a, b)) - means.reduce((a, b) => Math.min(a, b));
}

const SD = { name: 'sd' } as const;

/** NaN where no group has any spread. */
function fOf(groups: readonly Float64Array[]): number {
  const { statistic } = oneWay(groups);
  return Number.isFinite(statistic) ? statistic : NaN;
}

/** The slow and obvious way to work out a statistic: of the readings as they are, of one replicate, and what the fast loops are held against. */
export function evaluatorOf(statistic: Statistic): Evaluator {
  switch (statistic.of) {
    case 'one':
      return ([values]) => figureOfSorted(statistic.figure, values!);
    case 'difference':
      return ([a, b]) => figureOfSorted(statistic.figure, a!) - figureOfSorted(statistic.figure, b!);
    case 'log-ratio':
      return ([a, b]) => logRatio(figureOfSorted(SD, a!), figureOfSorted(SD, b!));
    case 'f':
      return fOf;
    case 'largest-difference':
      return largestDifference;
    case 'correlation':
    case 'slope':
      return ([x, y]) => pairFigure(statistic.of, x!, y!);
    case 'formula':
      return figuresFormula(statistic);
  }
}

/** True where a statistic looks at pairs: its groups are two columns in the order of the rows. */
export const isOfPairs = (statistic: Statistic): boolean =>
  statistic.of === 'correlation' || statistic.of === 'slope' || (statistic.of === 'formula' && statistic.pairs);

const TIE = 1e-10;
/** Readings far away from 0 are held no better than this part of them. */
const HELD = 1e-15;

/** Values that rounding alone has parted are ties: as near as this, by the size of what is looked at. */
export function tieOf(statistic: Statistic, observed: number, groups: readonly Float64Array[]): number {
  if (statistic.of !== 'one' && statistic.of !== 'difference' && statistic.of !== 'largest-difference')
    return TIE * Math.max(Math.abs(observed), statistic.of === 'slope' ? 0 : 1e-3);
  let [least, greatest] = [Infinity, -Infinity];
  for (const values of groups)
    for (const value of values) {
      if (value < least) least = value;
      if (value > greatest) greatest = value;
    }
  const named = statistic.of === 'largest-difference' ? 'mean' : statistic.figure.name;
  const range = greatest - least;
  const held = HELD * Math.max(Math.abs(least), Math.abs(greatest));
  if (named !== 'variance' && named !== 'cv' && named !== 'skewness') return TIE * range + held;
  return TIE * (named === 'variance' ? range * range : 1e-3);
}
