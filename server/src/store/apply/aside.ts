import { and, eq, inArray } from 'drizzle-orm';
import { setAside } from '../schema.js';
import { columnOf, type Applied, type Context, type Of } from './context.js';

type Place = { column: string; row: number };

const places = (readings: readonly Place[]) => {
  const rows = readings.map(({ row }) => row);
  return rows.length <= 5 ? `row ${rows.join(', ')}` : `${rows.length} readings`;
};

function namesOf(context: Context, readings: readonly Place[]): string {
  return [...new Set(readings.map(({ column }) => columnOf(context, column).name))].join(', ');
}

/** A reading to set aside; `by` where a change that is taken back had put back what somebody else once set aside. */
type Reading = Place & { reason: string; by?: { who: string; at: string } | undefined };

/** Rows of the table `set_aside` that go into one statement. */
const AT_ONCE = 500;

export async function insertAside({ q, study, who, at }: Context, readings: readonly Reading[]): Promise<void> {
  const rows = readings.map(({ column, row, reason, by }) => ({
    ...{ columnId: column, row, studyId: study.id, reason },
    ...(by ? { who: by.who, at: new Date(by.at) } : { who, at }),
  }));
  for (let i = 0; i < rows.length; i += AT_ONCE) await q.insert(setAside).values(rows.slice(i, i + AT_ONCE));
}

export async function setReadingsAside(context: Context, change: Of<'set-aside'>): Promise<Applied> {
  await insertAside(context, change.readings);
  const [first] = change.readings;
  return {
    inverse: { kind: 'put-back', readings: change.readings.map(({ column, row }) => ({ column, row })) },
    text: `Set aside ${places(change.readings)} of ${namesOf(context, change.readings)}`,
    reason: first!.reason,
    place: { column: first!.column, row: first!.row },
  };
}

/** Puts readings back; who set them aside, when and why stays in the change that takes this back. */
export async function putBack({ q, ...context }: Context, change: Of<'put-back'>): Promise<Applied> {
  const before: Of<'set-aside'>['readings'] = [];
  for (const column of new Set(change.readings.map((reading) => reading.column))) {
    const rows = change.readings.filter((reading) => reading.column === column).map(({ row }) => row);
    for (let i = 0; i < rows.length; i += AT_ONCE) {
      const where = and(eq(setAside.columnId, column), inArray(setAside.row, rows.slice(i, i + AT_ONCE)));
      for (const { row, reason, who, at } of await q.select().from(setAside).where(where))
        before.push({ column, row, reason, by: { who, at: at.toISOString() } });
      await q.delete(setAside).where(where);
    }
  }
  const [first] = change.readings;
  return {
    inverse: { kind: 'set-aside', readings: before },
    text: `Put back ${places(change.readings)} of ${namesOf({ q, ...context }, change.readings)}`,
    place: { column: first!.column, row: first!.row },
  };
}
