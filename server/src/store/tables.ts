import { sourcesOf, type Table } from '@verdict/core/table';
import { and, asc, eq } from 'drizzle-orm';
import { readCells } from './cells.js';
import type { Queries } from './database.js';
import { columns, setAside, type studies } from './schema.js';

export type ColumnRow = typeof columns.$inferSelect;

export const standingColumns = (q: Queries, studyId: string): Promise<ColumnRow[]> =>
  q
    .select()
    .from(columns)
    .where(and(eq(columns.studyId, studyId), eq(columns.removed, false)))
    .orderBy(asc(columns.position), asc(columns.id));

/** These columns and all that they follow, by way of others too. */
function withSourcesOf(all: readonly ColumnRow[], ids: readonly string[]): Set<string> {
  const found = new Set<string>();
  const waiting = [...ids];
  while (waiting.length > 0) {
    const id = waiting.pop()!;
    const column = all.find((c) => c.id === id);
    if (!column || found.has(id)) continue;
    found.add(id);
    if (column.derivation) waiting.push(...sourcesOf(column.derivation));
    if (column.frequencies) waiting.push(column.frequencies);
  }
  return found;
}

/** The study's readings as far as these columns need them, the way the core takes a table. */
export async function readTable(
  q: Queries,
  study: Pick<typeof studies.$inferSelect, 'id' | 'rowCount'>,
  columnIds: readonly string[],
): Promise<Table & { columns: ColumnRow[] }> {
  const all = await standingColumns(q, study.id);
  const needed = withSourcesOf(all, columnIds);
  const written = all.filter(({ id, derivation }) => needed.has(id) && !derivation).map(({ id }) => id);
  const cells = Object.fromEntries(await readCells(q, written, study.rowCount));
  const found = await q
    .select({ column: setAside.columnId, row: setAside.row })
    .from(setAside)
    .where(eq(setAside.studyId, study.id));
  const aside = new Map<string, Set<number>>();
  for (const { column, row } of found) aside.set(column, (aside.get(column) ?? new Set()).add(row));
  const nothing = new Set<number>();
  return { rowCount: study.rowCount, columns: all, cells, setAside: (id) => aside.get(id) ?? nothing };
}
