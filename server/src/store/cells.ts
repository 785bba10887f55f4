import { and, asc, eq, gte, inArray } from 'drizzle-orm';
import type { Queries } from './database.js';
import { cellBlocks } from './schema.js';

/** Cells in a block: a column reads in few rows, an edit writes one. */
export const BLOCK = 1_000;

const blockOf = (row: number) => Math.floor((row - 1) / BLOCK);

/** The cells of columns as written, each as long as the table. */
export async function readCells(q: Queries, columnIds: string[], rowCount: number): Promise<Map<string, string[]>> {
  const result = new Map(columnIds.map((id) => [id, new Array<string>(rowCount).fill('')]));
  if (columnIds.length === 0) return result;
  const rows = await q
    .select()
    .from(cellBlocks)
    .where(inArray(cellBlocks.columnId, columnIds))
    .orderBy(asc(cellBlocks.columnId), asc(cellBlocks.block));
  for (const { columnId, block, cells } of rows) {
    const column = result.get(columnId)!;
    cells.forEach((text, i) => {
      const at = block * BLOCK + i;
      if (at < rowCount) column[at] = text;
    });
  }
  return result;
}

/** Writes a whole new column. */
export async function writeColumn(q: Queries, columnId: string, cells: readonly string[]): Promise<void> {
  for (let block = 0; block * BLOCK < cells.length; block++) {
    await q.insert(cellBlocks).values({ columnId, block, cells: cells.slice(block * BLOCK, (block + 1) * BLOCK) });
  }
}

/** Replaces cells by row and returns what stood there; touches only the blocks concerned. */
export async function replaceCells(
  q: Queries,
  columnId: string,
  edits: readonly { row: number; text: string }[],
): Promise<{ row: number; text: string }[]> {
  const byBlock = new Map<number, { row: number; text: string }[]>();
  for (const edit of edits) {
    const block = blockOf(edit.row);
    const inBlock = byBlock.get(block);
    if (inBlock) inBlock.push(edit);
    else byBlock.set(block, [edit]);
  }
  const before: { row: number; text: string }[] = [];
  for (const [block, inBlock] of byBlock) {
    const where = and(eq(cellBlocks.columnId, columnId), eq(cellBlocks.block, block));
    const [found] = await q.select({ cells: cellBlocks.cells }).from(cellBlocks).where(where);
    const cells = found?.cells ?? [];
    for (const { row, text } of inBlock) {
      const at = (row - 1) % BLOCK;
      before.push({ row, text: cells[at] ?? '' });
      while (cells.length < at) cells.push('');
      cells[at] = text;
    }
    if (found) await q.update(cellBlocks).set({ cells }).where(where);
    else await q.insert(cellBlocks).values({ columnId, block, cells });
  }
  return before;
}

/** Blanks what lies beyond the end of a shortened table, so that growing it again brings nothing back. */
export async function cutCells(q: Queries, columnId: string, rowCount: number): Promise<void> {
  const firstWhole = Math.ceil(rowCount / BLOCK);
  await q.delete(cellBlocks).where(and(eq(cellBlocks.columnId, columnId), gte(cellBlocks.block, firstWhole)));
  if (rowCount % BLOCK === 0) return;
  const where = and(eq(cellBlocks.columnId, columnId), eq(cellBlocks.block, firstWhole - 1));
  const [last] = await q.select({ cells: cellBlocks.cells }).from(cellBlocks).where(where);
  if (last && last.cells.length > rowCount % BLOCK) {
    await q
      .update(cellBlocks)
      .set({ cells: last.cells.slice(0, rowCount % BLOCK) })
      .where(where);
  }
}
