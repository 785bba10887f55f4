import { BLOCK } from '@verdict/contract';
import { and, asc, between, desc, eq, gte, inArray, sql } from 'drizzle-orm';
import type { Queries } from './database.js';
import { cellBlocks } from './schema.js';

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

/** How many texts a JSON list of texts holds. Counted here: the database gives no count for a text that it takes for no JSON. */
export function countTexts(list: string): number {
  let count = 0;
  for (let at = list.indexOf('"'); at >= 0; at = list.indexOf('"', at + 1)) {
    count++;
    let end = list.indexOf('"', at + 1);
    while (isEscaped(list, end)) end = list.indexOf('"', end + 1);
    at = end;
  }
  return count;
}

function isEscaped(list: string, quote: number): boolean {
  let slashes = 0;
  while (list.charCodeAt(quote - 1 - slashes) === BACKSLASH) slashes++;
  return slashes % 2 === 1;
}
const BACKSLASH = 92;

/** Blocks that are read at once: between two such reads other requests have their turn. */
const BLOCKS_READ = 100;

/**
 * The cells of a column as the text of a JSON list, put together from the blocks as they are stored: reading every cell of a large table
 * only to write it out again takes longer than all the rest of opening a study.
 * @param gone true once nobody waits for the answer any more; what is read so far is then returned
 */
async function columnAsJson(q: Queries, columnId: string, rowCount: number, gone: () => boolean): Promise<string> {
  const pieces: string[] = [];
  let count = 0;
  const padTo = (to: number) => {
    if (to <= count) return;
    pieces.push(new Array<string>(to - count).fill('""').join(','));
    count = to;
  };
  for (let first = 0; first * BLOCK < rowCount && !gone(); first += BLOCKS_READ) {
    const blocks = await q
      .select({ block: cellBlocks.block, raw: sql<string>`${cellBlocks.cells}` })
      .from(cellBlocks)
      .where(and(eq(cellBlocks.columnId, columnId), between(cellBlocks.block, first, first + BLOCKS_READ - 1)))
      .orderBy(asc(cellBlocks.block));
    for (const { block, raw } of blocks) {
      const from = block * BLOCK;
      const length = countTexts(raw);
      if (from >= rowCount || length === 0) continue;
      padTo(from);
      const whole = from + length <= rowCount;
      const cells = whole ? raw : JSON.stringify((JSON.parse(raw) as string[]).slice(0, rowCount - from));
      pieces.push(cells.slice(1, -1));
      count = Math.min(rowCount, from + length);
    }
  }
  padTo(rowCount);
  return `[${pieces.join(',')}]`;
}

/** The cells of columns as the text of a JSON object: a list of texts a column, each as long as the table. */
export async function readCellsAsJson(
  q: Queries,
  columnIds: string[],
  rowCount: number,
  gone: () => boolean = () => false,
): Promise<string> {
  const columns: string[] = [];
  for (const id of columnIds) columns.push(`${JSON.stringify(id)}:${await columnAsJson(q, id, rowCount, gone)}`);
  return `{${columns.join(',')}}`;
}

/** The last row that a column's stored cells reach. */
export async function reachOfCells(q: Queries, columnId: string): Promise<number> {
  const [last] = await q
    .select({ block: cellBlocks.block, cells: cellBlocks.cells })
    .from(cellBlocks)
    .where(eq(cellBlocks.columnId, columnId))
    .orderBy(desc(cellBlocks.block))
    .limit(1);
  return last ? last.block * BLOCK + last.cells.length : 0;
}

/** True where a column holds anything but empty cells behind a row. */
export async function anyWrittenBeyond(q: Queries, columnIds: readonly string[], row: number): Promise<boolean> {
  const first = Math.floor(row / BLOCK);
  for (const id of columnIds) {
    const cells = await cellsFrom(q, id, first);
    if (cells.some((text, i) => text !== '' && first * BLOCK + i >= row)) return true;
  }
  return false;
}

/** Rows of the table `cell_blocks` that go into one statement: a column of 100 000 cells in four. */
export const BLOCKS_AT_ONCE = 25;

/** Writes blocks of cells from a block on. */
async function insertBlocks(q: Queries, columnId: string, from: number, cells: readonly string[]): Promise<void> {
  const blocks: Block[] = [];
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

export type Block = typeof cellBlocks.$inferInsert;

/** Writes blocks of any columns, as an import fills them. */
export async function writeBlocks(q: Queries, blocks: readonly Block[]): Promise<void> {
  if (blocks.length > 0) await q.insert(cellBlocks).values([...blocks]);
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

/** Blocks of a column as they are written; empty where there is none. */
export async function blocksOf(q: Queries, columnId: string, from: number, count: number): Promise<string[][]> {
  const rows = await q
    .select({ block: cellBlocks.block, cells: cellBlocks.cells })
    .from(cellBlocks)
    .where(and(eq(cellBlocks.columnId, columnId), between(cellBlocks.block, from, from + count - 1)));
  const found = new Map(rows.map(({ block, cells }) => [block, cells]));
  return Array.from({ length: count }, (_, i) => found.get(from + i) ?? []);
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
