import type { Change } from '@verdict/contract';
import { eq } from 'drizzle-orm';
import { cutCells } from '../cells.js';
import type { Queries } from '../database.js';
import { StoreError } from '../errors.js';
import { studies, type columns } from '../schema.js';

type StudyRow = typeof studies.$inferSelect;
export type ColumnRow = typeof columns.$inferSelect;

export interface Context {
  q: Queries;
  study: StudyRow;
  /** All columns of the study, removed ones included. */
  columns: ColumnRow[];
  who: string;
  at: Date;
}

export interface Place {
  column: string;
  row: number;
}

/** What a change did: the change that takes it back, what it did in words, its reason and its first cell where it has them. */
export interface Applied {
  inverse: Change;
  text: string;
  reason?: string | null;
  place?: Place | null;
}

export type Of<K extends Change['kind']> = Extract<Change, { kind: K }>;

export const LONGEST_TEXT = 600;

export const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

export function columnOf({ columns: all }: Context, id: string): ColumnRow {
  const found = all.find((column) => column.id === id);
  if (!found)
    throw new StoreError('invalid', 'The change names a column that this study does not have.', { field: 'column' });
  return found;
}

/** Changes the number of rows, and says what it was where that is a change. */
export async function setRowCount(
  { q, study, columns: all }: Context,
  rowCount: number,
): Promise<{ rowCount?: number }> {
  const before = study.rowCount;
  if (rowCount === before) return {};
  // Columns that are out of the table keep all their cells: a redo may bring them back with more rows than there are now.
  const standing = all.filter(({ removed }) => !removed);
  if (rowCount < before) for (const { id } of standing) await cutCells(q, id, rowCount);
  await q.update(studies).set({ rowCount }).where(eq(studies.id, study.id));
  return { rowCount: before };
}

export async function setSubject({ q, study }: Context, subject: string | null): Promise<{ subject?: string | null }> {
  const before = study.subject;
  if (subject === before) return {};
  await q.update(studies).set({ subject }).where(eq(studies.id, study.id));
  return { subject: before };
}
