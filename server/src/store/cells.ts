import { and, asc, eq, gte, inArray, sql } from 'drizzle-orm';
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

/**
 * The same as the text of a JSON object, put together from the blocks as they are stored: reading every cell of a large table only to
 * write it out again takes longer than all the rest of opening a study.
 */
export async function readCellsAsJson(q: Queries, columnIds: string[], rowCount: number): Promise<string> {
  const parts = new Map(columnIds.map((id) => [id, { pieces: [] as string[], count: 0 }]));
  const rows = columnIds.length
    ? await q
        .select({
          columnId: cellBlocks.columnId,
          block: cellBlocks.block,
          raw: sql<string>`${cellBlocks.cells}`,
          length: sql<number>`json_length(${cellBlocks.cells})`,
        })
        .from(cellBlocks)
        .where(inArray(cellBlocks.columnId, columnIds))
        .orderBy(asc(cellBlocks.columnId), asc(cellBlocks.block))
    : [];
  const pad = (part: { pieces: string[]; count: number }, to: number) => {
    if (to <= part.count) return;
    part.pieces.push(new Array<string>(to - part.count).fill('""').join(','));
    part.count = to;
  };
  for (const { columnId, block, raw, length } of rows) {
    const part = parts.get(columnId)!;
    const from = block * BLOCK;
    if (from >= rowCount || length === 0) continue;
    pad(part, from);
    const whole = from + length <= rowCount;
    const cells = whole ? raw : JSON.stringify((JSON.parse(raw) as string[]).slice(0, rowCount - from));
    part.pieces.push(cells.slice(1, -1));
    part.count = Math.min(rowCount, from + length);
  }
  const columns = [...parts].map(([id, part]) => {
    pad(part, rowCount);
    return `${JSON.stringify(id)}:[${part.pieces.join(',')}]`;
  });
  return `{${columns.join(',')}}`;
}

/** Rows of the table `cell_blocks` that go into one statement: a column of 100 000 cells in four. */
const BLOCKS_AT_ONCE = 25;

/** Writes blocks of cells from a block on. */
async function insertBlocks(q: Queries, columnId: string, from: number, cells: readonly string[]): Promise<void> {
  const blocks: (typeof cellBlocks.$inferInsert)[] = [];
  for (let at = 0; at < cells.length; at += BLOCK) {
    blocks.push({ columnId, block: from + at / BLOCK, cells: cells.slice(at, at + BLOCK) });
  }
  for (let i = 0; i < blocks.length; i += BLOCKS_AT_ONCE) {
    await q.insert(cellBlocks).values(blocks.slice(i, i + BLOCKS_AT_ONCE));
  }
}

/** Writes a whole new column. */
export const writeColumn = (q: Queries, columnId: string, cells: readonly string[]): Promise<void> =>
  insertBlocks(q, columnId, 0, cells);

/** Writes one block of several columns, as an import fills them. */
export async function writeBlock(q: Queries, block: number, columns: readonly { id: string; cells: string[] }[]) {
  await q.insert(cellBlocks).values(columns.map(({ id, cells }) => ({ columnId: id, block, cells })));
}

export async function clearColumn(q: Queries, columnId: string): Promise<void> {
  await q.delete(cellBlocks).where(eq(cellBlocks.columnId, columnId));
}

/** The cells of a column from a block on, as far as they are written. */
export async function cellsFrom(q: Queries, columnId: string, from: number): Promise<string[]> {
  const rows = await q
    .select()
    .from(cellBlocks)
    .where(and(eq(cellBlocks.columnId, columnId), gte(cellBlocks.block, from)))
    .orderBy(asc(cellBlocks.block));
  const result: string[] = [];
  for (const { block, cells } of rows) {
    while (result.length < (block - from) * BLOCK) result.push('');
    for (const text of cells) result.push(text);
  }
  return result;
}

/** Replaces the cells of a column from a block on. */
export async function rewriteFrom(q: Queries, columnId: string, from: number, cells: readonly string[]): Promise<void> {
  await q.delete(cellBlocks).where(and(eq(cellBlocks.columnId, columnId), gte(cellBlocks.block, from)));
  await insertBlocks(q, columnId, from, cells);
}

/** Texts of one column, one below the other from a row on. */
export interface Run {
  column: string;
  row: number;
  texts: string[];
}

/** Writes a run of cells and returns what stood there; touches only the blocks concerned. */
export async function replaceCells(q: Queries, { column, row, texts }: Run): Promise<Run> {
  const before: string[] = [];
  const last = row + texts.length - 1;
  for (let block = blockOf(row); block <= blockOf(last); block++) {
    const where = and(eq(cellBlocks.columnId, column), eq(cellBlocks.block, block));
    const [found] = await q.select({ cells: cellBlocks.cells }).from(cellBlocks).where(where);
    const cells = found?.cells ?? [];
    const from = Math.max(row, block * BLOCK + 1);
    const to = Math.min(last, (block + 1) * BLOCK);
    for (let r = from; r <= to; r++) {
      const at = (r - 1) % BLOCK;
      before.push(cells[at] ?? '');
      while (cells.length < at) cells.push('');
      cells[at] = texts[r - row]!;
    }
    if (found) await q.update(cellBlocks).set({ cells }).where(where);
    else await q.insert(cellBlocks).values({ columnId: column, block, cells });
  }
  return { column, row, texts: before };
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
