import { oneWay } from '../claims/spreads.js';
import { centralMoments } from '../numeric/sums.js';
import { figureOfSorted, logRatio, pairFigure, type Evaluator, type Figure } from './figure.js';
import { figuresFormula } from './formula.js';
import { TIE } from '../numeric/ties.js';

/** The statistics that can be resampled. */
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

/** The plain computation of a statistic: for the observed readings, for single replicates, and as the reference for the fast loops. */
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

/** True if a statistic is of pairs: its groups are two columns in row order. */
export const isOfPairs = (statistic: Statistic): boolean =>
  statistic.of === 'correlation' || statistic.of === 'slope' || (statistic.of === 'formula' && statistic.pairs);

/** The relative precision of readings far from 0. */
const HELD = 1e-15;

/** Tolerance for ties: values that differ only by rounding, relative to their magnitude. */
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
