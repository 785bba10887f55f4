import { askedObjection, objectionTo, type Change, type StudyNow } from '@verdict/contract';
import { inArray } from 'drizzle-orm';
import type { Context } from './apply/context.js';
import { reachOfCells } from './cells.js';
import { StoreError } from './errors.js';
import { columns, MARKS, stagedColumns, type MarkTable } from './schema.js';

/** Refuses to be asked for what only taking a change back may do. */
export function refuseAsked(change: Change): void {
  const objection = askedObjection(change);
  if (objection) throw new StoreError('invalid', objection.detail, { field: objection.field });
}

/** Refuses what cannot be done to the study as it is, before anything is done. */
export async function refuseObjection(context: Context, change: Change, reach?: number): Promise<void> {
  const objection = objectionTo(change, await studyNow(context, change), reach);
  if (objection) throw new StoreError('invalid', objection.detail, { field: objection.field });
  if (change.kind === 'add-columns') await refuseTaken(context, change, reach === undefined);
}

/** An id names one column, whichever study it is in. @param fresh no cells of these columns were stored before */
async function refuseTaken(
  { q }: Context,
  change: Extract<Change, { kind: 'add-columns' }>,
  fresh: boolean,
): Promise<void> {
  const ids = change.columns.map(({ id }) => id);
  const [taken] = await q.select({ id: columns.id }).from(columns).where(inArray(columns.id, ids)).limit(1);
  const [staged] = fresh ? await q.select().from(stagedColumns).where(inArray(stagedColumns.id, ids)).limit(1) : [];
  if (taken || staged) throw new StoreError('invalid', 'A new column has the id of another.', { field: 'columns' });
}

/** What the change is looked at against; what only some changes ask about is read for those alone. */
async function studyNow({ q, study, columns: all }: Context, change: Change): Promise<StudyNow> {
  const asked = 'readings' in change ? change.readings : [];
  const ids = [...new Set(asked.map(({ column }) => column))];
  const placesOf = async (table: MarkTable) => {
    const place = { column: table.columnId, row: table.row };
    const found = ids.length ? await q.select(place).from(table).where(inArray(table.columnId, ids)) : [];
    return new Set(found.map(({ column, row }) => `${column}/${row}`));
  };
  const [aside, left] = [await placesOf(MARKS.aside), await placesOf(MARKS.leftIn)];
  const returning = change.kind === 'return-columns' ? change.columns : [];
  const reach = new Map<string, number>();
  for (const { id, removed, derivation } of all) {
    if (!removed || !returning.includes(id)) continue;
    reach.set(id, derivation?.kind === 'made-up' ? derivation.count : await reachOfCells(q, id));
  }
  return {
    rowCount: study.rowCount,
    columns: all,
    isAside: (column, row) => aside.has(`${column}/${row}`),
    isLeftIn: (column, row) => left.has(`${column}/${row}`),
    reachOf: (id) => reach.get(id) ?? 0,
  };
}
