import type { Distribution, Parameters } from '../distributions/family.js';
import { distribution, familyByName } from '../distributions/registry.js';
import { rounderOf } from '../numeric/round-to.js';
import { centralMoments } from '../numeric/sums.js';
import { mixedLaw, moved, movedLaw, roundedLaw, type Law, type Move } from './laws.js';

/** The source of readings before any changes: a family with all its parameters, or the readings of a column. */
export type Base = { family: string; parameters: Parameters } | { values: ArrayLike<number>; replacement: boolean };

/** Contamination: a proportion of the readings is shifted, has a greater spread, or comes from another family. */
export interface Mixed {
  share: number;
  from: { move: Move } | { family: string; parameters: Parameters };
}

/** The population of a simulation. Readings are contaminated first, then all shifted, then rounded as by an instrument. */
export interface Population {
  base: Base;
  mixed: Mixed | null;
  move: Move | null;
  /** The rounding step; null for none. */
  step: number | null;
}

export const isColumn = (base: Base): base is Extract<Base, { values: ArrayLike<number> }> => 'values' in base;

export const familyLaw = ({ family, parameters }: { family: string; parameters: Parameters }): Distribution =>
  distribution(familyByName(family), parameters);

/** A half is kept by a double only nearly. */
const NEAR = 1e-9;

/** The same, with what lies strictly below a value where the family holds whole numbers only. */
function steppedLaw(part: { family: string; parameters: Parameters }): Law {
  const law = familyLaw(part);
  if (!familyByName(part.family).discrete) return law;
  const last = (x: number) => Math.ceil(x - NEAR) - 1;
  return {
    ...{ mean: law.mean, variance: law.variance, quantile: law.quantile },
    ...{ cumulative: law.cumulative, survival: law.survival },
    below: (x) => law.cumulative(last(x)),
    from: (x) => law.survival(last(x)),
  };
}

/** The empirical distribution of a column: each reading equally likely. Variance with divisor n, since the column is the whole population. */
export function columnLaw(values: ArrayLike<number>): Law {
  const sorted = new Float64Array(values).sort();
  const { n, mean, s2 } = centralMoments(sorted);
  /** How many are at most x. */
  const rank = (x: number): number => {
    let [low, high] = [0, n];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (sorted[middle]! <= x) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  return {
    mean,
    variance: s2 / n,
    cumulative: (x) => rank(x) / n,
    survival: (x) => (n - rank(x)) / n,
    quantile: (p) => sorted[Math.min(n - 1, Math.max(0, Math.ceil(p * n * (1 - 4 * Number.EPSILON)) - 1))]!,
  };
}

/** The distribution of a population after all changes. */
export function lawOf({ base, mixed, move, step }: Population): Law {
  /** What of a column can be done to each reading is done to them: the law is then exact. */
  const of = (before: Move | null): Law => {
    if (!isColumn(base)) return finished(before ? movedLaw(steppedLaw(base), before) : steppedLaw(base));
    if (!before && !move && step === null) return columnLaw(base.values);
    const place = placing(move, step);
    return columnLaw(new Float64Array(base.values).map((x) => place(before ? moved(x, before) : x)));
  };
  const finished = (law: Law): Law => {
    const there = move ? movedLaw(law, move) : law;
    return step === null ? there : roundedLaw(there, step);
  };
  if (!mixed) return of(null);
  const { from, share } = mixed;
  return mixedLaw(of(null), 'move' in from ? of(from.move) : finished(steppedLaw(from)), share);
}

/** Moves a reading and rounds it. */
export function placing(move: Move | null, step: number | null): (x: number) => number {
  const round = step === null ? null : rounderOf(step, 'up');
  return (x) => {
    const there = move ? moved(x, move) : x;
    return round ? round(there) : there;
  };
}
