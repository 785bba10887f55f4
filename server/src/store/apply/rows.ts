import { MOST_ROWS } from '@verdict/contract';
import { and, eq, gte } from 'drizzle-orm';
import { BLOCK, cellsFrom, rewriteFrom } from '../cells.js';
import { StoreError } from '../errors.js';
import { setAside, studies } from '../schema.js';
import { columnOf, plural, type Applied, type Context, type Of } from './context.js';

function checkRising(rows: readonly number[]): void {
  if (rows.some((row, i) => i > 0 && row <= rows[i - 1]!)) {
    throw new StoreError('invalid', 'Rows are named once each, in rising order.', { field: 'rows' });
  }
}

/** Moves the set-aside readings from a row on: `to` gives the new row, or null for one that goes. */
async function moveAside({ q, study }: Context, from: number, to: (row: number) => number | null): Promise<void> {
  const where = and(eq(setAside.studyId, study.id), gte(setAside.row, from));
  const found = await q.select().from(setAside).where(where);
  if (found.length === 0) return;
  await q.delete(setAside).where(where);
  const moved = found.flatMap((reading) => {
    const row = to(reading.row);
    return row === null ? [] : [{ ...reading, row }];
  });
  for (let i = 0; i < moved.length; i += 1_000) await q.insert(setAside).values(moved.slice(i, i + 1_000));
}

/** How many of the rising rows lie below or at a value. */
function countUpTo(rows: readonly number[], value: number): number {
  let low = 0;
  let high = rows.length;
  while (low < high) {
    const mid = (low + high) >> 1;
    if (rows[mid]! <= value) low = mid + 1;
    else high = mid;
  }
  return low;
}

const placeWords = (rows: readonly number[]) =>
  rows.length === 1
    ? `row ${rows[0]}`
    : rows.at(-1)! - rows[0]! === rows.length - 1
      ? `rows ${rows[0]} to ${rows.at(-1)}`
      : `${plural(rows.length, 'row')} from ${rows[0]} on`;

/**
 * Puts rows in. Every column takes part, removed ones too: a row stays one row, whatever is brought back later.
 */
export async function insertRows(context: Context, change: Of<'insert-rows'>): Promise<Applied> {
  const { q, study, columns: all, who, at } = context;
  const { rows, contents = [], aside = [] } = change;
  checkRising(rows);
  const rowCount = study.rowCount + rows.length;
  if (rowCount > MOST_ROWS)
    throw new StoreError('invalid', `A table has at most ${MOST_ROWS} rows.`, { field: 'rows' });
  if (rows.at(-1)! > rowCount) throw new StoreError('invalid', `There is no row ${rows.at(-1)}.`, { field: 'rows' });
  const first = Math.floor((rows[0]! - 1) / BLOCK);
  for (const { id } of all) {
    const old = await cellsFrom(q, id, first);
    const texts = contents.find(({ column }) => column === id)?.texts ?? [];
    if (old.length === 0 && texts.every((text) => text === '')) continue;
    const now: string[] = [];
    let taken = 0;
    let put = 0;
    for (let row = first * BLOCK + 1; taken < old.length || put < rows.length; row++) {
      if (rows[put] === row) now.push(texts[put++] ?? '');
      else now.push(old[taken++] ?? '');
    }
    await rewriteFrom(q, id, first, now);
  }
  await moveAside(context, rows[0]!, (row) => {
    let to = row;
    for (const put of rows) if (put <= to) to++;
    return to;
  });
  for (const { column, row, reason } of aside) {
    await q
      .insert(setAside)
      .values({ columnId: columnOf(context, column).id, row, studyId: study.id, reason, who, at });
  }
  await q.update(studies).set({ rowCount }).where(eq(studies.id, study.id));
  const text = `${contents.length ? 'Brought back' : 'Inserted'} ${placeWords(rows)}`;
  const place = all[0] ? { column: all[0].id, row: rows[0]! } : null;
  return { inverse: { kind: 'remove-rows', rows }, text, place };
}

/** Takes rows out. What they held stays in the record, in the change that brings them back. */
export async function removeRows(context: Context, { rows }: Of<'remove-rows'>): Promise<Applied> {
  const { q, study, columns: all } = context;
  checkRising(rows);
  if (rows.at(-1)! > study.rowCount)
    throw new StoreError('invalid', `There is no row ${rows.at(-1)}.`, { field: 'rows' });
  const going = new Set(rows);
  const first = Math.floor((rows[0]! - 1) / BLOCK);
  const contents: { column: string; texts: string[] }[] = [];
  for (const { id } of all) {
    const old = await cellsFrom(q, id, first);
    if (old.length === 0) continue;
    const offset = first * BLOCK + 1;
    const texts = rows.map((row) => old[row - offset] ?? '');
    if (texts.some((text) => text !== '')) contents.push({ column: id, texts });
    await rewriteFrom(
      q,
      id,
      first,
      old.filter((_, i) => !going.has(i + offset)),
    );
  }
  const found = await q.select().from(setAside).where(eq(setAside.studyId, study.id));
  const aside = found
    .filter(({ row }) => going.has(row))
    .map(({ columnId, row, reason }) => ({ column: columnId, row, reason }));
  await moveAside(context, rows[0]!, (row) => (going.has(row) ? null : row - countUpTo(rows, row)));
  await q
    .update(studies)
    .set({ rowCount: study.rowCount - rows.length })
    .where(eq(studies.id, study.id));
  const place = all[0] ? { column: all[0].id, row: Math.max(1, rows[0]! - 1) } : null;
  // `contents` is always there, empty too: it tells bringing back from inserting.
  const kept = contents.length
    ? contents
    : all.slice(0, 1).map(({ id }) => ({ column: id, texts: rows.map(() => '') }));
  return {
    inverse: { kind: 'insert-rows', rows, contents: kept, aside },
    text: `Removed ${placeWords(rows)}; what they held stays in the record`,
    place,
  };
}
