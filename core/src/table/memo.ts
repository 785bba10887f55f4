import type { ReadCells, Sample } from '../readings/sample.js';

/** A derived column worked out: numbers by row (NaN: none), the same as text in full precision, and the rows where it failed. */
export interface Derived {
  values: Float64Array;
  cells: string[];
  /** Rows (from 1) whose sources are there but give no finite number, such as a division by zero. */
  failed: number[];
  /** A derivation that makes no sense for these columns as a whole, in words. */
  fault: string | null;
}

interface Known<T> {
  inputs: readonly unknown[];
  result: T;
}

/** What was worked out before, by what it is called; it is worked out again only when something it looks at has changed. */
export interface DeriveMemo {
  derived: Map<string, Known<Derived>>;
  samples: Map<string, Known<Sample>>;
  /** Samples in parts, by column and parts. */
  parts: Map<string, Known<Sample>>;
  /** The cells of each column as they were read last. */
  read: Map<string, ReadCells>;
}

export const newMemo = (): DeriveMemo => ({
  derived: new Map(),
  samples: new Map(),
  parts: new Map(),
  read: new Map(),
});

/** The result for these inputs: the one known, where each input is the same one as then. */
export function remembered<T>(known: Map<string, Known<T>>, id: string, inputs: readonly unknown[], work: () => T): T {
  const before = known.get(id);
  if (before && before.inputs.length === inputs.length && before.inputs.every((input, i) => input === inputs[i])) {
    return before.result;
  }
  const result = work();
  known.set(id, { inputs, result });
  return result;
}
