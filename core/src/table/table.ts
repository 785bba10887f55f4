import type { Derivation } from './derivation.js';
import type { ColumnKind } from '../readings/kind.js';
import type { Levels } from '../readings/levels.js';
import type { NumberFormat } from '../readings/number-format.js';

/** A column of a study as calculations see it. */
export interface TableColumn extends NumberFormat {
  id: string;
  name: string;
  unit: string;
  kind: ColumnKind;
  /** Given by the analyst; null means: read it from the digits. */
  resolution: number | null;
  levels: Levels | null;
  /** The id of the count column that says how often each value of this one occurred; null: once a row. */
  frequencies: string | null;
  /** How the column follows from others; null for a column that was written. */
  derivation: Derivation | null;
}

/** The readings of a study: columns, cells as written, rows that are set aside. */
export interface Table {
  rowCount: number;
  columns: readonly TableColumn[];
  /** Cells as written, by column id; derived columns have none of their own. */
  cells: Readonly<Record<string, readonly string[]>>;
  /** The rows of a column that are set aside, from 1. */
  setAside(columnId: string): ReadonlySet<number>;
}
