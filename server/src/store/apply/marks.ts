import type { Change } from '@verdict/contract';
import { and, eq, inArray } from 'drizzle-orm';
import { MARKS, type MarkTable } from '../schema.js';
import { columnOf, type Applied, type Context, type Of } from './context.js';

type Place = { column: string; row: number };

/** A reading with its mark; `by` if undoing a change brings back a mark that somebody else had set. */
type Marked = Place & { reason: string; by?: { who: string; at: string } | undefined };

const places = (readings: readonly Place[]) => {
  const rows = readings.map(({ row }) => row);
  return rows.length <= 5 ? `row ${rows.join(', ')}` : `${rows.length} readings`;
};

function namesOf(context: Context, readings: readonly Place[]): string {
  return [...new Set(readings.map(({ column }) => columnOf(context, column).name))].join(', ');
}

/** Rows that go into one statement. */
const AT_ONCE = 500;

export async function insertMarks(
  { q, study, who, at }: Context,
  table: MarkTable,
  readings: readonly Marked[],
): Promise<void> {
  const rows = readings.map(({ column, row, reason, by }) => ({
    ...{ columnId: column, row, studyId: study.id, reason },
    ...(by ? { who: by.who, at: new Date(by.at) } : { who, at }),
  }));
  for (let i = 0; i < rows.length; i += AT_ONCE) await q.insert(table).values(rows.slice(i, i + AT_ONCE));
}

/** Takes marks away; who made them, when and why is returned, for the change that takes this back. */
async function takeMarks({ q }: Context, table: MarkTable, readings: readonly Place[]): Promise<Marked[]> {
  const before: Marked[] = [];
  for (const column of new Set(readings.map((reading) => reading.column))) {
    const rows = readings.filter((reading) => reading.column === column).map(({ row }) => row);
    for (let i = 0; i < rows.length; i += AT_ONCE) {
      const where = and(eq(table.columnId, column), inArray(table.row, rows.slice(i, i + AT_ONCE)));
      for (const { row, reason, who, at } of await q.select().from(table).where(where))
        before.push({ column, row, reason, by: { who, at: at.toISOString() } });
      await q.delete(table).where(where);
    }
  }
  return before;
}

const placeOf = ([first]: readonly Place[]) => ({ column: first!.column, row: first!.row });
const bare = (readings: readonly Place[]) => readings.map(({ column, row }) => ({ column, row }));

/** Marks readings: the inverse takes the marks away. */
async function mark(
  context: Context,
  table: MarkTable,
  readings: readonly Marked[],
  told: { inverse: 'put-back' | 'look-again'; words: (places: string, names: string) => string },
): Promise<Applied> {
  await insertMarks(context, table, readings);
  return {
    inverse: { kind: told.inverse, readings: bare(readings) } satisfies Change,
    text: told.words(places(readings), namesOf(context, readings)),
    reason: readings[0]!.reason,
    place: placeOf(readings),
  };
}

/** Takes marks away: the inverse brings them back as they were. */
async function unmark(
  context: Context,
  table: MarkTable,
  readings: readonly Place[],
  told: { inverse: 'set-aside' | 'leave-in'; words: (places: string, names: string) => string },
): Promise<Applied> {
  const before = await takeMarks(context, table, readings);
  return {
    inverse: { kind: told.inverse, readings: before } satisfies Change,
    text: told.words(places(readings), namesOf(context, readings)),
    place: placeOf(readings),
  };
}

export const setReadingsAside = (context: Context, { readings }: Of<'set-aside'>): Promise<Applied> =>
  mark(context, MARKS.aside, readings, { inverse: 'put-back', words: (at, of) => `Set aside ${at} of ${of}` });

export const putBack = (context: Context, { readings }: Of<'put-back'>): Promise<Applied> =>
  unmark(context, MARKS.aside, readings, { inverse: 'set-aside', words: (at, of) => `Restored ${at} of ${of}` });

export const leaveIn = (context: Context, { readings }: Of<'leave-in'>): Promise<Applied> =>
  mark(context, MARKS.leftIn, readings, {
    inverse: 'look-again',
    words: (at, of) => `Kept with a reason: ${at} of ${of}`,
  });

export const lookAgain = (context: Context, { readings }: Of<'look-again'>): Promise<Applied> =>
  unmark(context, MARKS.leftIn, readings, {
    inverse: 'leave-in',
    words: (at, of) => `No longer kept with a reason: ${at} of ${of}`,
  });
