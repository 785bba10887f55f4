import { groupThousands } from '@verdict/core/format';
import { LONGEST_CELL } from '@verdict/core/readings';
import { BLOCK, CellsDigest, MOST_ROWS, MOST_STUDY_CELLS, type Change, type ImportHead } from '@verdict/contract';
import { inArray, lt } from 'drizzle-orm';
import { columnsAdded, insertColumns } from './apply/columns.js';
import { clearColumn, writeBlocks, type Block } from './cells.js';
import { alreadyDone, contextOf, recordChange, refuseStale, type Made } from './changes.js';
import type { Database, Queries } from './database.js';
import { StoreError } from './errors.js';
import { refuseObjection } from './objections.js';
import { stagedColumns } from './schema.js';
import { lockStudy, requireStudy } from './study-row.js';

/** Cells that are gathered before they are written: one statement, one flush to the disk. */
const CELLS_AT_ONCE = 20_000;

function refuseSize(rows: number, columns: number): void {
  if (rows > MOST_ROWS)
    throw new StoreError('invalid', `A table may have at most ${groupThousands(MOST_ROWS)} rows.`, { field: 'rows' });
  if (rows * columns <= MOST_STUDY_CELLS) return;
  throw new StoreError(
    'invalid',
    `A study may have at most ${groupThousands(MOST_STUDY_CELLS)} cells; this file has more.`,
    {
      field: 'rows',
    },
  );
}

function checkedCell(text: string, row: number): string {
  if (text.length <= LONGEST_CELL) return text;
  const said = `Row ${row} has a cell of ${text.length} characters; a cell may have at most ${LONGEST_CELL}.`;
  throw new StoreError('invalid', said, { field: 'cells' });
}

/** Fills new columns, each from its place in a row, some blocks at a time, so that the file is never held as a whole. Returns the rows there were and the digests of the columns. */
async function fillColumns(
  db: Database,
  ids: readonly string[],
  positions: readonly number[],
  rows: AsyncIterable<string[]>,
): Promise<{ reach: number; digests: Record<string, string> }> {
  let count = 0;
  const digests = ids.map(() => new CellsDigest());
  let full: Block[] = [];
  let open = ids.map(() => [] as string[]);
  const close = () => {
    const block = Math.floor((count - 1) / BLOCK);
    for (const [j, columnId] of ids.entries()) full.push({ columnId, block, cells: open[j]! });
    open = ids.map(() => []);
  };
  const write = async () => {
    await writeBlocks(db, full);
    full = [];
  };
  for await (const row of rows) {
    refuseSize(++count, ids.length);
    for (const [j, cells] of open.entries()) {
      const text = checkedCell(row[positions[j]!] ?? '', count);
      cells.push(text);
      digests[j]!.add(text);
    }
    if (count % BLOCK !== 0) continue;
    close();
    if (full.length * BLOCK >= CELLS_AT_ONCE) await write();
  }
  if (count % BLOCK !== 0) close();
  await write();
  return { reach: count, digests: Object.fromEntries(ids.map((id, j) => [id, digests[j]!.end()])) };
}

/** Takes the ids for cells on their way; refuses ids that are taken, by a column or by another import. */
async function stage(db: Database, ids: readonly string[]): Promise<void> {
  await db.transaction(async (q) => {
    const taken = await q
      .select()
      .from(stagedColumns)
      .where(inArray(stagedColumns.id, [...ids]));
    if (taken.length > 0) throw new StoreError('under-way', 'This import is already in progress. Nothing was stored.');
    const at = new Date();
    await q.insert(stagedColumns).values(ids.map((id) => ({ id, at })));
  });
}

async function unstage(q: Queries, ids: readonly string[]): Promise<void> {
  await q.delete(stagedColumns).where(inArray(stagedColumns.id, [...ids]));
}

async function discard(db: Database, ids: readonly string[]): Promise<void> {
  for (const id of ids) await clearColumn(db, id);
  await unstage(db, ids);
}

/** Much longer than any import takes: older remains come from a server that was killed. */
const LEFT_OVER_MILLISECONDS = 3_600_000;

/** Throws away cells of imports that never came to their end. */
export async function discardLeftOver(db: Database): Promise<void> {
  const before = new Date(Date.now() - LEFT_OVER_MILLISECONDS);
  const left = await db.select({ id: stagedColumns.id }).from(stagedColumns).where(lt(stagedColumns.at, before));
  if (left.length > 0)
    await discard(
      db,
      left.map(({ id }) => id),
    );
}

const changeOf = ({ columns, note }: ImportHead): Extract<Change, { kind: 'add-columns' }> => ({
  kind: 'add-columns',
  columns: columns.map((column) => ({ ...column, cells: [], aside: [] })),
  note,
});

/** Everything that can be refused before the file has arrived is. */
async function begin(db: Database, studyId: string, head: ImportHead): Promise<Made | null> {
  const study = await requireStudy(db, studyId);
  const done = await alreadyDone(db, studyId, head.token);
  if (done) return { done, announced: null };
  await refuseStale(db, study, head.revision);
  if (head.columns.some(({ derivation }) => derivation)) {
    throw new StoreError('invalid', 'A derived column has no cells to import.', { field: 'columns' });
  }
  if (head.positions && head.positions.length !== head.columns.length) {
    throw new StoreError('invalid', 'Every column must have exactly one position in the file.', { field: 'positions' });
  }
  await refuseObjection(await contextOf(db, study, head.who, new Date()), changeOf(head));
  return null;
}

/**
 * Adds columns whose cells arrive as a stream of rows: the same change as adding them at once. The cells are stored first, apart from the
 * study: however slowly a file comes, nobody waits for it. Then, in one transaction, the columns take their place after whatever
 * was changed meanwhile. When the stream breaks off, nothing has happened.
 * @param gone true once the sender has hung up: what nobody waits for any more is not stored
 */
export async function importColumns(
  db: Database,
  studyId: string,
  head: ImportHead,
  rows: AsyncIterable<string[]>,
  gone: () => boolean,
): Promise<Made> {
  const before = await begin(db, studyId, head);
  if (before) return before;
  const ids = head.columns.map(({ id }) => id);
  await stage(db, ids);
  try {
    const filled = await fillColumns(db, ids, head.positions ?? [...ids.keys()], rows);
    if (gone()) throw new StoreError('invalid', 'The import was stopped. Nothing was stored.', { field: 'file' });
    return await takePlace(db, studyId, head, filled);
  } catch (error) {
    // Where the database is away, the next start discards what is left.
    await discard(db, ids).catch(() => undefined);
    throw error;
  }
}

function takePlace(
  db: Database,
  studyId: string,
  head: ImportHead,
  { reach, digests }: Awaited<ReturnType<typeof fillColumns>>,
): Promise<Made> {
  return db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    const { token, who, columns, note } = head;
    const at = new Date();
    const context = await contextOf(q, study, who, at);
    const detail = changeOf(head);
    await refuseObjection(context, detail, reach);
    await insertColumns(context, columns);
    const applied = { ...(await columnsAdded(context, columns, reach, note)), cells: digests };
    const made = await recordChange(q, study, { token, kind: 'add-columns', detail, who, at, applied });
    await unstage(
      q,
      columns.map(({ id }) => id),
    );
    return { done: made, announced: { ...made, token, who, change: null } };
  });
}
