import { and, eq, inArray } from 'drizzle-orm';
import { StoreError } from '../errors.js';
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

/** The set-aside readings among these places. */
async function asideAmong({ q }: Context, readings: readonly Place[]) {
  const ids = [...new Set(readings.map(({ column }) => column))];
  const found = await q.select().from(setAside).where(inArray(setAside.columnId, ids));
  return new Map(found.map((reading) => [`${reading.columnId}/${reading.row}`, reading]));
}

export async function setReadingsAside(context: Context, change: Of<'set-aside'>): Promise<Applied> {
  const { q, study, who, at } = context;
  for (const { column } of change.readings) columnOf(context, column);
  const already = await asideAmong(context, change.readings);
  for (const { column, row } of change.readings) {
    if (row > study.rowCount) throw new StoreError('invalid', `There is no row ${row}.`, { field: 'row' });
    if (already.has(`${column}/${row}`))
      throw new StoreError('invalid', `Row ${row} is already set aside.`, { field: 'row' });
  }
  const rows = change.readings.map(({ column, row, reason }) => ({
    columnId: column,
    row,
    studyId: study.id,
    reason,
    who,
    at,
  }));
  for (let i = 0; i < rows.length; i += 1_000) await q.insert(setAside).values(rows.slice(i, i + 1_000));
  const [first] = change.readings;
  return {
    inverse: { kind: 'put-back', readings: change.readings.map(({ column, row }) => ({ column, row })) },
    text: `Set aside ${places(change.readings)} of ${namesOf(context, change.readings)}`,
    reason: first!.reason,
    place: { column: first!.column, row: first!.row },
  };
}

export async function putBack(context: Context, change: Of<'put-back'>): Promise<Applied> {
  const found = await asideAmong(context, change.readings);
  const before: Of<'set-aside'>['readings'] = [];
  for (const { column, row } of change.readings) {
    const reading = found.get(`${column}/${row}`);
    if (!reading) throw new StoreError('invalid', `Row ${row} is not set aside.`, { field: 'row' });
    before.push({ column, row, reason: reading.reason });
    await context.q.delete(setAside).where(and(eq(setAside.columnId, column), eq(setAside.row, row)));
  }
  const [first] = change.readings;
  return {
    inverse: { kind: 'set-aside', readings: before },
    text: `Put back ${places(change.readings)} of ${namesOf(context, change.readings)}`,
    place: { column: first!.column, row: first!.row },
  };
}
