import type { Change } from '@verdict/contract';
import { and, eq, gt, inArray } from 'drizzle-orm';
import { anyWrittenBeyond, cutCells } from '../cells.js';
import type { Queries } from '../database.js';
import { StoreError } from '../errors.js';
import { MARKS, studies, type columns, type MarkTable } from '../schema.js';

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
  /** The digests of the cells of columns that it wrote as a whole. */
  cells?: Record<string, string>;
}

export type Of<K extends Change['kind']> = Extract<Change, { kind: K }>;

export const LONGEST_TEXT = 600;

export const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** A column that the change names; whether it is there was asked before (`objectionTo`). */
export const columnOf = ({ columns: all }: Context, id: string): ColumnRow => all.find((column) => column.id === id)!;

/** Refuses to shorten the table where rows that would go hold anything: they are removed as rows, so that the record keeps what they held. */
async function refuseLoss({ q, study }: Context, standing: readonly ColumnRow[], rowCount: number): Promise<void> {
  const ids = standing.map(({ id }) => id);
  if (ids.length === 0) return;
  const anyMarked = async (table: MarkTable) => {
    const beyond = and(inArray(table.columnId, ids), gt(table.row, rowCount));
    return (await q.select({ row: table.row }).from(table).where(beyond).limit(1)).length > 0;
  };
  const loses =
    (await anyMarked(MARKS.aside)) || (await anyMarked(MARKS.leftIn)) || (await anyWrittenBeyond(q, ids, rowCount));
  if (!loses) return;
  const text = `Rows ${rowCount + 1} to ${study.rowCount} contain readings. Remove the rows instead; the record then keeps their contents.`;
  throw new StoreError('invalid', text, { field: 'rowCount' });
}

/** Changes the number of rows, and says what it was where that is a change. */
export async function setRowCount(context: Context, rowCount: number): Promise<{ rowCount?: number }> {
  const { q, study, columns: all } = context;
  const before = study.rowCount;
  if (rowCount === before) return {};
  // Columns that are out of the table keep all their cells: a redo may bring them back with more rows than there are now.
  const standing = all.filter(({ removed }) => !removed);
  if (rowCount < before) {
    await refuseLoss(context, standing, rowCount);
    for (const { id } of standing) await cutCells(q, id, rowCount);
  }
  await q.update(studies).set({ rowCount }).where(eq(studies.id, study.id));
  return { rowCount: before };
}

export async function setSubject({ q, study }: Context, subject: string | null): Promise<{ subject?: string | null }> {
  const before = study.subject;
  if (subject === before) return {};
  await q.update(studies).set({ subject }).where(eq(studies.id, study.id));
  return { subject: before };
}
