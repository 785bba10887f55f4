import { LONGEST_CELL } from '@verdict/core';
import { MOST_ROWS, type Change, type ImportHead } from '@verdict/contract';
import { columnsAdded, insertColumns } from './apply/columns.js';
import { BLOCK, writeBlock } from './cells.js';
import { alreadyDone, contextOf, lockStudy, recordChange, refuseStale, type Made } from './changes.js';
import type { Database, Queries } from './database.js';
import { StoreError } from './errors.js';

/** Fills new columns row by row: a block of each is written as soon as it is full, so that the file is never held as a whole. */
async function fillColumns(q: Queries, ids: readonly string[], rows: AsyncIterable<string[]>): Promise<number> {
  let count = 0;
  let pending = ids.map((id) => ({ id, cells: [] as string[] }));
  const write = async () => {
    await writeBlock(q, Math.floor((count - 1) / BLOCK), pending);
    pending = ids.map((id) => ({ id, cells: [] as string[] }));
  };
  for await (const row of rows) {
    count++;
    if (count > MOST_ROWS) throw new StoreError('invalid', `A table has at most ${MOST_ROWS} rows.`, { field: 'rows' });
    for (const [j, column] of pending.entries()) {
      const text = row[j] ?? '';
      if (text.length > LONGEST_CELL) {
        const said = `Row ${count} has a cell of ${text.length} characters; a cell holds at most ${LONGEST_CELL}.`;
        throw new StoreError('invalid', said, { field: 'cells' });
      }
      column.cells.push(text);
    }
    if (count % BLOCK === 0) await write();
  }
  if (count % BLOCK !== 0) await write();
  return count;
}

/**
 * Adds columns whose cells arrive as a stream of rows: the same change as adding them at once, in one transaction. When the stream
 * breaks off, nothing has happened.
 * @param gone true once the sender has hung up: what nobody waits for any more is not stored
 */
export async function importColumns(
  db: Database,
  studyId: string,
  head: ImportHead,
  rows: AsyncIterable<string[]>,
  gone: () => boolean,
): Promise<Made> {
  return db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    const done = await alreadyDone(q, studyId, head.token);
    if (done) return { done, announced: null };
    await refuseStale(q, study, head.revision);
    const { token, who, columns, note } = head;
    const at = new Date();
    const context = await contextOf(q, study, who, at);
    await insertColumns(context, columns);
    const reach = await fillColumns(
      q,
      columns.map(({ id }) => id),
      rows,
    );
    const applied = await columnsAdded(context, columns, reach, note);
    if (gone()) throw new StoreError('invalid', 'The import was stopped. Nothing was stored.', { field: 'file' });
    const detail: Change = { kind: 'add-columns', columns: columns.map((c) => ({ ...c, cells: [], aside: [] })), note };
    const made = await recordChange(q, study, { token, kind: 'add-columns', detail, who, at, applied });
    return { done: made, announced: { ...made, token, who, change: null } };
  });
}
