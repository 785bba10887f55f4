import { groupThousands } from '@verdict/core/format';
import type { ColumnKind } from '@verdict/core/readings';
import type { Derivation } from '@verdict/core/table';
import type { Bounds } from '../bounds.js';

/** A column as a change finds it. */
export interface ColumnNow extends Bounds {
  id: string;
  name: string;
  kind: ColumnKind;
  /** The id of the count column it takes its frequencies from. */
  frequencies: string | null;
  derivation: Derivation | null;
  /** Taken out of the table, but kept. */
  removed: boolean;
}

/** A study as a change finds it: what the page and the server both know of it. */
export interface StudyNow {
  rowCount: number;
  columns: readonly ColumnNow[];
  isAside(column: string, row: number): boolean;
  isLeftIn(column: string, row: number): boolean;
  /** Rows that the cells of a column reach, for one that is out of the table. */
  reachOf(column: string): number;
}

/** Why a change cannot be done, in a sentence, and the field at fault. */
export interface Objection {
  field: string;
  detail: string;
}

export const no = (field: string, detail: string): Objection => ({ field, detail });

/** The first objection of several checks, in order. */
export function firstOf(checks: Iterable<Objection | null>): Objection | null {
  for (const objection of checks) if (objection) return objection;
  return null;
}

/** An id that is named a second time. */
export function namedTwice(ids: readonly string[]): string | null {
  const seen = new Set<string>();
  for (const id of ids) {
    if (seen.has(id)) return id;
    seen.add(id);
  }
  return null;
}

/** The column of this id, in the table, or why a change cannot mean it. */
export function standing(study: StudyNow, id: string, field = 'column'): ColumnNow | Objection {
  const found = study.columns.find((column) => column.id === id);
  if (!found) return no(field, 'The change refers to a column that this study does not have.');
  return found.removed ? no(field, `${found.name} is not in the table. Restore it first.`) : found;
}

export const isObjection = (found: ColumnNow | Objection): found is Objection => 'detail' in found;

/** As many cells as a study can have: what the page and the server hold in memory at once. */
export const MOST_STUDY_CELLS = 5_000_000;

/** As many columns as a table can have. */
export const MOST_TABLE_COLUMNS = 1_000;

/** Refuses a table that would grow beyond what a study can hold; one that is too large already may shrink and be worked on. */
export function roomFor(study: StudyNow, rows: number, columns: number, field: string): Objection | null {
  const before = study.columns.filter(({ removed }) => !removed).length;
  if (columns > Math.max(before, MOST_TABLE_COLUMNS))
    return no(field, `A table may have at most ${groupThousands(MOST_TABLE_COLUMNS)} columns.`);
  const now = study.rowCount * before;
  const then = rows * columns;
  if (then <= MOST_STUDY_CELLS || then <= now) return null;
  return no(
    field,
    `The table would have ${groupThousands(then)} cells; a study may have at most ${groupThousands(MOST_STUDY_CELLS)}.`,
  );
}
