import type { Change } from '@verdict/contract';
import { and, eq, inArray, max } from 'drizzle-orm';
import { cutCells, replaceCells, writeColumn } from './cells.js';
import type { Queries } from './database.js';
import { StoreError } from './errors.js';
import { columns, setAside, studies } from './schema.js';

type StudyRow = typeof studies.$inferSelect;
type ColumnRow = typeof columns.$inferSelect;

export interface Context {
  q: Queries;
  study: StudyRow;
  /** All columns of the study, removed ones included. */
  columns: ColumnRow[];
  who: string;
  at: Date;
}

/** What a change did: the change that takes it back, what it did in words, and its reason where it has one. */
export interface Applied {
  inverse: Change;
  text: string;
  reason: string | null;
}

type Of<K extends Change['kind']> = Extract<Change, { kind: K }>;

const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

function columnOf({ columns: all }: Context, id: string): ColumnRow {
  const found = all.find((column) => column.id === id);
  if (!found)
    throw new StoreError('invalid', 'The change names a column that this study does not have.', { field: 'column' });
  return found;
}

/** The same name in another case would make two columns that nobody can tell apart. */
function checkName(context: Context, name: string, exceptId: string | null): void {
  const same = context.columns.find(
    (c) => !c.removed && c.id !== exceptId && c.name.toLowerCase() === name.toLowerCase(),
  );
  if (same) throw new StoreError('invalid', `There is already a column “${same.name}”.`, { field: 'name' });
}

async function setRowCount({ q, study, columns: all }: Context, rowCount: number): Promise<void> {
  if (rowCount === study.rowCount) return;
  // Columns that are out of the table keep all their cells: a redo may bring them back with more rows than there are now.
  const standing = all.filter(({ removed }) => !removed);
  if (rowCount < study.rowCount) for (const { id } of standing) await cutCells(q, id, rowCount);
  await q.update(studies).set({ rowCount }).where(eq(studies.id, study.id));
}

async function editCells(context: Context, change: Of<'edit-cells'>): Promise<Applied> {
  const { q, study } = context;
  const byColumn = new Map<string, { row: number; text: string }[]>();
  let reach = study.rowCount;
  for (const { column, row, text } of change.cells) {
    columnOf(context, column);
    byColumn.set(column, byColumn.get(column) ?? []);
    byColumn.get(column)!.push({ row, text });
    reach = Math.max(reach, row);
  }
  const before: Of<'edit-cells'>['cells'] = [];
  for (const [column, edits] of byColumn) {
    for (const old of await replaceCells(q, column, edits)) before.push({ column, ...old });
  }
  await setRowCount(context, change.rowCount ?? reach);
  const [first] = change.cells;
  const text =
    change.cells.length === 1 && first
      ? `Row ${first.row} of ${columnOf(context, first.column).name}: “${before[0]!.text.slice(0, 60)}” became “${first.text.slice(0, 60)}”`
      : `Edited ${plural(change.cells.length, 'cell')}`;
  // Undo runs backwards: a cell written twice gets its oldest text.
  return { inverse: { kind: 'edit-cells', cells: before.reverse(), rowCount: study.rowCount }, text, reason: null };
}

async function addColumns(context: Context, change: Of<'add-columns'>): Promise<Applied> {
  const { q, study } = context;
  const [{ last } = { last: null }] = await q
    .select({ last: max(columns.position) })
    .from(columns)
    .where(eq(columns.studyId, study.id));
  let position = (last ?? -1) + 1;
  let reach = study.rowCount;
  for (const { cells, ...column } of change.columns) {
    checkName(context, column.name, null);
    const row = { ...column, studyId: study.id, position: position++, removed: false };
    await q.insert(columns).values(row);
    context.columns.push(row);
    await writeColumn(q, column.id, cells);
    reach = Math.max(reach, cells.length);
  }
  await setRowCount(context, reach);
  const ids = change.columns.map(({ id }) => id);
  const subject = context.study.subject ?? change.columns.find(({ kind }) => kind === 'measure')?.id ?? null;
  if (subject !== context.study.subject) await q.update(studies).set({ subject }).where(eq(studies.id, study.id));
  const names = change.columns.map(({ name }) => name).join(', ');
  return {
    inverse: { kind: 'remove-columns', columns: ids, rowCount: study.rowCount, subject: study.subject },
    text: `Added ${plural(ids.length, 'column')}: ${names}`.slice(0, 600),
    reason: null,
  };
}

async function markColumns(context: Context, change: Of<'remove-columns'> | Of<'return-columns'>): Promise<Applied> {
  const { q, study } = context;
  const removed = change.kind === 'remove-columns';
  for (const id of change.columns) {
    const column = columnOf(context, id);
    if (!removed) checkName(context, column.name, id);
    column.removed = removed;
  }
  await q.update(columns).set({ removed }).where(inArray(columns.id, change.columns));
  // Cells of removed columns are kept beyond the shortened table: only the count of rows changes here.
  const rowCount = change.rowCount ?? study.rowCount;
  if (rowCount !== study.rowCount) await q.update(studies).set({ rowCount }).where(eq(studies.id, study.id));
  const standing = context.columns.some((c) => c.id === study.subject && !c.removed);
  const next = context.columns.find((c) => !c.removed && c.kind === 'measure')?.id ?? null;
  const subject = change.subject !== undefined ? change.subject : standing ? study.subject : next;
  if (subject !== study.subject) await q.update(studies).set({ subject }).where(eq(studies.id, study.id));
  const names = change.columns.map((id) => columnOf(context, id).name).join(', ');
  const kind = removed ? ('return-columns' as const) : ('remove-columns' as const);
  return {
    inverse: { kind, columns: change.columns, rowCount: study.rowCount, subject: study.subject },
    text: `${removed ? 'Removed' : 'Brought back'} ${plural(change.columns.length, 'column')}: ${names}`.slice(0, 600),
    reason: null,
  };
}

async function changeColumn(context: Context, change: Of<'change-column'>): Promise<Applied> {
  const before = columnOf(context, change.column);
  const { kind: _, column: id, columnKind, ...rest } = change;
  const after = { ...rest, ...(columnKind ? { kind: columnKind } : {}) };
  if (change.name !== undefined) checkName(context, change.name, id);
  const lower = change.lowerLimit === undefined ? before.lowerLimit : change.lowerLimit;
  const upper = change.upperLimit === undefined ? before.upperLimit : change.upperLimit;
  if (lower !== null && upper !== null && lower >= upper) {
    const field = change.lowerLimit === undefined ? 'upperLimit' : 'lowerLimit';
    throw new StoreError('invalid', `The lower limit (${lower}) must be below the upper limit (${upper}).`, { field });
  }
  if (Object.keys(after).length > 0) await context.q.update(columns).set(after).where(eq(columns.id, id));
  const said = Object.entries(after).map(([key, value]) => {
    const old = before[key as keyof ColumnRow];
    const words = key.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);
    return `${words} ${old === null || old === '' ? 'none' : old} → ${value === null || value === '' ? 'none' : value}`;
  });
  const inverse: Change = { kind: 'change-column', column: id };
  if (change.name !== undefined) inverse.name = before.name;
  if (change.unit !== undefined) inverse.unit = before.unit;
  if (columnKind !== undefined) inverse.columnKind = before.kind;
  if (change.resolution !== undefined) inverse.resolution = before.resolution;
  if (change.lowerLimit !== undefined) inverse.lowerLimit = before.lowerLimit;
  if (change.upperLimit !== undefined) inverse.upperLimit = before.upperLimit;
  return { inverse, text: `${before.name}: ${said.join(', ')}`, reason: null };
}

const places = (readings: readonly { row: number }[]) => {
  const rows = readings.map(({ row }) => row);
  return rows.length <= 5 ? `row ${rows.join(', ')}` : `${rows.length} readings`;
};

async function setReadingsAside(context: Context, change: Of<'set-aside'>): Promise<Applied> {
  const { q, study, who, at } = context;
  for (const { column, row, reason } of change.readings) {
    columnOf(context, column);
    if (row > study.rowCount) throw new StoreError('invalid', `There is no row ${row}.`, { field: 'row' });
    const already = await q
      .select({ row: setAside.row })
      .from(setAside)
      .where(and(eq(setAside.columnId, column), eq(setAside.row, row)));
    if (already.length) throw new StoreError('invalid', `Row ${row} is already set aside.`, { field: 'row' });
    await q.insert(setAside).values({ columnId: column, row, studyId: study.id, reason, who, at });
  }
  const [first] = change.readings;
  const inverse = { kind: 'put-back' as const, readings: change.readings.map(({ column, row }) => ({ column, row })) };
  const text = `Set aside ${places(change.readings)} of ${columnOf(context, first!.column).name}`;
  return { inverse, text, reason: first!.reason };
}

async function putBack(context: Context, change: Of<'put-back'>): Promise<Applied> {
  const { q } = context;
  const before: Of<'set-aside'>['readings'] = [];
  for (const { column, row } of change.readings) {
    const where = and(eq(setAside.columnId, column), eq(setAside.row, row));
    const [found] = await q.select().from(setAside).where(where);
    if (!found) throw new StoreError('invalid', `Row ${row} is not set aside.`, { field: 'row' });
    before.push({ column, row, reason: found.reason });
    await q.delete(setAside).where(where);
  }
  const text = `Put back ${places(change.readings)} of ${columnOf(context, change.readings[0]!.column).name}`;
  return { inverse: { kind: 'set-aside', readings: before }, text, reason: null };
}

async function changeStudy(context: Context, change: Of<'change-study'>): Promise<Applied> {
  const { q, study } = context;
  const { kind: _, ...after } = change;
  if (change.subject) {
    const column = columnOf(context, change.subject);
    if (column.removed)
      throw new StoreError('invalid', 'A removed column cannot be the subject.', { field: 'subject' });
  }
  if (Object.keys(after).length > 0) await q.update(studies).set(after).where(eq(studies.id, study.id));
  const nameOf = (id: string | null) => context.columns.find((c) => c.id === id)?.name ?? 'none';
  const said: string[] = [];
  const inverse: Change = { kind: 'change-study' };
  if (change.name !== undefined) {
    inverse.name = study.name;
    said.push(`name: “${study.name}” → “${change.name}”`);
  }
  if (change.question !== undefined) {
    inverse.question = study.question;
    said.push('question reworded');
  }
  if (change.alpha !== undefined) {
    inverse.alpha = study.alpha;
    said.push(`level ${study.alpha} → ${change.alpha}`);
  }
  if (change.subject !== undefined) {
    inverse.subject = study.subject;
    said.push(`subject ${nameOf(study.subject)} → ${nameOf(change.subject)}`);
  }
  return { inverse, text: `Study: ${said.join(', ')}`.slice(0, 600), reason: null };
}

/** Carries out one change inside the caller's transaction and says how to take it back. */
export function applyChange(context: Context, change: Change): Promise<Applied> {
  switch (change.kind) {
    case 'edit-cells':
      return editCells(context, change);
    case 'add-columns':
      return addColumns(context, change);
    case 'remove-columns':
    case 'return-columns':
      return markColumns(context, change);
    case 'change-column':
      return changeColumn(context, change);
    case 'set-aside':
      return setReadingsAside(context, change);
    case 'put-back':
      return putBack(context, change);
    case 'change-study':
      return changeStudy(context, change);
  }
}
