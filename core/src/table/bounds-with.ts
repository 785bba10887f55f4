import { transformedBounds, type Bounds } from '../transform/transformation.js';
import type { Derivation } from './derivation.js';

interface Bounded {
  id: string;
  derivation: Derivation | null;
  lowerLimit: number | null;
  target: number | null;
  upperLimit: number | null;
}

type Limits = Pick<Bounded, 'lowerLimit' | 'target' | 'upperLimit'>;
type Transformed = Extract<Derivation, { kind: 'transformed' }>;

/** Limits and target of a column, as a column has them that transforms it. */
export function transformedLimits({ by, lambda }: Transformed, { lowerLimit, target, upperLimit }: Limits): Limits {
  const bounds: Bounds = { lower: lowerLimit, target, upper: upperLimit };
  const { lower, target: aim, upper } = transformedBounds(by, lambda ?? 0, bounds);
  return { lowerLimit: lower, target: aim, upperLimit: upper };
}

/** Whether two columns have the same limits and target. */
export const sameLimits = (a: Limits, b: Limits) =>
  a.lowerLimit === b.lowerLimit && a.target === b.target && a.upperLimit === b.upperLimit;

/**
 * The columns that transform this one and bear its limits and target transformed, and those after them, with what they bear once this one has others. Limits
 * that the analyst has given such a column are left alone.
 */
export function boundsWith(columns: readonly Bounded[], id: string, limits: Limits): (Limits & { column: string })[] {
  const source = columns.find((column) => column.id === id);
  if (!source) return [];
  const changed: (Limits & { column: string })[] = [];
  const waiting = [{ before: source as Limits, after: limits, id }];
  while (waiting.length > 0) {
    const { before, after, id: of } = waiting.shift()!;
    for (const column of columns) {
      const { derivation } = column;
      if (derivation?.kind !== 'transformed' || derivation.source !== of || column.id === id) continue;
      if (changed.some((one) => one.column === column.id)) continue;
      if (!sameLimits(column, transformedLimits(derivation, before))) continue;
      const next = transformedLimits(derivation, after);
      if (sameLimits(column, next)) continue;
      changed.push({ column: column.id, ...next });
      waiting.push({ before: column, after: next, id: column.id });
    }
  }
  return changed;
}
