import { BLOCK, movedByInsert, movedByRemoval } from '@verdict/contract';
import { and, asc, between, desc, eq, gte, sql } from 'drizzle-orm';
import { cellsFrom, rewriteFrom } from '../cells.js';
import { MARKS, studies, type MarkTable } from '../schema.js';
import { insertMarks } from './marks.js';
import { plural, type Applied, type Context, type Of } from './context.js';

/** Marked rows one behind the other that all move by the same, or all go. */
interface Stretch {
  from: number;
  to: number;
  by: number | null;
}

function stretchesOf(rows: readonly number[], to: (row: number) => number | null): Stretch[] {
  const found: Stretch[] = [];
  for (const row of rows) {
    const target = to(row);
    const by = target === null ? null : target - row;
    const last = found.at(-1);
    if (last && last.by === by) last.to = row;
    else found.push({ from: row, to: row, by });
  }
  return found;
}

/** Moves the marked readings from a row on, a statement a stretch: `to` gives the new row, or null for one that goes. */
async function moveMarks(
  { q, study }: Context,
  table: MarkTable,
  from: number,
  to: (row: number) => number | null,
): Promise<void> {
  const own = eq(table.studyId, study.id);
  const found = await q
    .selectDistinct({ row: table.row })
    .from(table)
    .where(and(own, gte(table.row, from)))
    .orderBy(asc(table.row));
  const stretches = stretchesOf(
    found.map(({ row }) => row),
    to,
  );
  const within = (stretch: Stretch) => and(own, between(table.row, stretch.from, stretch.to));
  for (const stretch of stretches) if (stretch.by === null) await q.delete(table).where(within(stretch));
  // No reading moves onto the row of one that has yet to move: upwards from the last, downwards from the first.
  const up = stretches.filter(({ by }) => by !== null && by > 0).reverse();
  const down = stretches.filter(({ by }) => by !== null && by < 0);
  for (const stretch of [...up, ...down]) {
    const moved = { row: sql`${table.row} + ${stretch.by}` };
    const order = stretch.by! > 0 ? desc(table.row) : asc(table.row);
    await q.update(table).set(moved).where(within(stretch)).orderBy(order);
  }
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
  const { q, study, columns: all } = context;
  const { rows, contents = [], aside = [], leftIn = [] } = change;
  const rowCount = study.rowCount + rows.length;
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
  for (const table of Object.values(MARKS)) await moveMarks(context, table, rows[0]!, movedByInsert(rows));
  await insertMarks(context, MARKS.aside, aside);
  await insertMarks(context, MARKS.leftIn, leftIn);
  await q.update(studies).set({ rowCount }).where(eq(studies.id, study.id));
  const text = `${contents.length ? 'Restored' : 'Inserted'} ${placeWords(rows)}`;
  const place = all[0] ? { column: all[0].id, row: rows[0]! } : null;
  return { inverse: { kind: 'remove-rows', rows }, text, place };
}

/** The marks of rows that go, as the change that brings them back takes them. */
async function marksOf({ q, study }: Context, table: MarkTable, going: ReadonlySet<number>) {
  const [first, last] = [Math.min(...going), Math.max(...going)];
  const where = and(eq(table.studyId, study.id), between(table.row, first, last));
  const found = await q.select().from(table).where(where);
  return found
    .filter(({ row }) => going.has(row))
    .map(({ columnId, row, reason, who, at }) => ({
      ...{ column: columnId, row, reason },
      by: { who, at: at.toISOString() },
    }));
}

/** Takes rows out. What they held stays in the record, in the change that brings them back. */
export async function removeRows(context: Context, { rows }: Of<'remove-rows'>): Promise<Applied> {
  const { q, study, columns: all } = context;
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
  const aside = await marksOf(context, MARKS.aside, going);
  const left = await marksOf(context, MARKS.leftIn, going);
  for (const table of Object.values(MARKS)) await moveMarks(context, table, rows[0]!, movedByRemoval(rows));
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
    inverse: { kind: 'insert-rows', rows, contents: kept, aside, ...(left.length ? { leftIn: left } : {}) },
    text: `Removed ${placeWords(rows)}; their contents stay in the record`,
    place,
  };
}
