import { digestOfCells, firstSubject, reachOf, type Change, type NewColumn } from '@verdict/contract';
import { derivationWords, derive, frozenCells, type Derivation } from '@verdict/core/table';
import { eq, inArray, max } from 'drizzle-orm';
import { cellsFrom, clearColumn, writeColumn } from '../cells.js';
import { StoreError } from '../errors.js';
import { columns, MARKS } from '../schema.js';
import { readTable } from '../tables.js';
import { insertMarks } from './marks.js';
import {
  columnOf,
  LONGEST_TEXT,
  plural,
  setRowCount,
  setSubject,
  type Applied,
  type ColumnRow,
  type Context,
  type Of,
} from './context.js';

type Facts = { [K in keyof ColumnRow]?: ColumnRow[K] | undefined };

async function nextPosition({ q, study }: Context): Promise<number> {
  const [found] = await q
    .select({ last: max(columns.position) })
    .from(columns)
    .where(eq(columns.studyId, study.id));
  return (found?.last ?? -1) + 1;
}

/** Writes the rows of new columns, without their cells. */
export async function insertColumns(
  context: Context,
  added: readonly Omit<NewColumn, 'cells' | 'aside'>[],
): Promise<void> {
  const { q, study } = context;
  let position = await nextPosition(context);
  for (const column of added) {
    const row = { ...column, studyId: study.id, position: position++, removed: false };
    await q.insert(columns).values(row);
    context.columns.push(row);
  }
}

/** The table with its new columns: rows, subject, and how to take them out again. */
export async function columnsAdded(
  context: Context,
  added: readonly Omit<NewColumn, 'cells' | 'aside'>[],
  reach: number,
  note: string | undefined,
): Promise<Applied> {
  const grown = await setRowCount(context, Math.max(context.study.rowCount, reach));
  const first = firstSubject(added);
  const moved = await setSubject(context, context.study.subject ?? first);
  const ids = added.map(({ id }) => id);
  const named = added.map(({ name, derivation }) =>
    derivation ? `${name} (${derivationWords(derivation, context.columns)})` : name,
  );
  const text = `Added ${plural(ids.length, 'column')}: ${named.join(', ')}${note ? `; ${note}` : ''}`;
  return {
    inverse: { kind: 'remove-columns', columns: ids, ...grown, ...moved },
    text: text.slice(0, LONGEST_TEXT),
    place: { column: ids[0]!, row: 1 },
  };
}

export async function addColumns(context: Context, change: Of<'add-columns'>): Promise<Applied> {
  const bare = change.columns.map(({ cells: _, aside: __, ...column }) => column);
  await insertColumns(context, bare);
  for (const { id, cells } of change.columns) await writeColumn(context.q, id, cells);
  const aside = change.columns.flatMap(({ id, aside: own }) => own.map((reading) => ({ ...reading, column: id })));
  await insertMarks(context, MARKS.aside, aside);
  const written = change.columns.filter(({ cells }) => cells.length > 0);
  const cells = Object.fromEntries(written.map((column) => [column.id, digestOfCells(column.cells)]));
  return { ...(await columnsAdded(context, bare, reachOf(change), change.note)), cells };
}

export async function markColumns(
  context: Context,
  change: Of<'remove-columns'> | Of<'return-columns'>,
): Promise<Applied> {
  const { q, study } = context;
  const removed = change.kind === 'remove-columns';
  for (const id of change.columns) columnOf(context, id).removed = removed;
  await q.update(columns).set({ removed }).where(inArray(columns.id, change.columns));
  // Columns just taken out keep their cells: those cut here are the ones that stay.
  const grown = await setRowCount(context, change.rowCount ?? study.rowCount);
  const standing = context.columns.some((c) => c.id === study.subject && !c.removed);
  const next = firstSubject(context.columns.filter((c) => !c.removed));
  const moved = await setSubject(
    context,
    change.subject !== undefined ? change.subject : standing ? study.subject : next,
  );
  const names = change.columns.map((id) => columnOf(context, id).name).join(', ');
  const text = `${removed ? 'Removed' : 'Restored'} ${plural(change.columns.length, 'column')}: ${names}`;
  const kind = removed ? ('return-columns' as const) : ('remove-columns' as const);
  return {
    inverse: { kind, columns: change.columns, ...grown, ...moved },
    text: text.slice(0, LONGEST_TEXT),
    place: { column: change.columns[0]!, row: 1 },
  };
}

const FACT_WORDS: Record<string, string> = { kind: 'kind', frequencies: 'frequencies from', claimedSd: 'claimed SD' };

/** One changed fact in words: "upper limit none → 8.5". */
function factWords(context: Context, before: ColumnRow, key: string, value: unknown): string {
  const words = FACT_WORDS[key] ?? key.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);
  if (key === 'levels') return 'order of the labels changed';
  if (key === 'derivation') return `now ${derivationWords(value as Derivation, context.columns)}`;
  const said = (of: unknown) => {
    if (of === null || of === '') return 'none';
    return key === 'frequencies' ? columnOf(context, String(of)).name : String(of);
  };
  return `${words} ${said(before[key as keyof ColumnRow])} → ${said(value)}`;
}

type Bounded = NonNullable<Of<'change-column'>['bounds']>[number];

/** Gives other columns the limits that follow from the change; tells what they were. */
async function changeBounds({ q, ...context }: Context, bounds: readonly Bounded[]) {
  const changed: { name: string; was: Bounded }[] = [];
  for (const { column, ...limits } of bounds) {
    const { name, lowerLimit, target, upperLimit } = columnOf({ q, ...context }, column);
    changed.push({ name, was: { column, lowerLimit, target, upperLimit } });
    await q.update(columns).set(limits).where(eq(columns.id, column));
  }
  return changed;
}

export async function changeColumn(context: Context, change: Of<'change-column'>): Promise<Applied> {
  const before = columnOf(context, change.column);
  const { kind: _, column: id, columnKind, renames, bounds, ...facts } = change;
  const after: Facts = { ...facts, ...(columnKind ? { kind: columnKind } : {}) };
  if (Object.keys(after).length > 0)
    await context.q
      .update(columns)
      .set(after as Partial<ColumnRow>)
      .where(eq(columns.id, id));
  const renamed = (renames ?? []).map((of) => ({ ...of, was: columnOf(context, of.column).name }));
  for (const { column, name } of renamed) await context.q.update(columns).set({ name }).where(eq(columns.id, column));
  const bounded = await changeBounds(context, bounds ?? []);
  const said = [
    ...Object.entries(after).map(([key, value]) => factWords(context, before, key, value)),
    ...renamed.map(({ was, name }) => `with it ${was} → ${name}`),
    ...bounded.map(({ name }) => `with it the limits of ${name}`),
  ];
  const old = Object.fromEntries(Object.keys(facts).map((key) => [key, before[key as keyof ColumnRow]]));
  const inverse = {
    kind: 'change-column',
    column: id,
    ...old,
    ...(columnKind ? { columnKind: before.kind } : {}),
    ...(bounds ? { bounds: bounded.map(({ was }) => was) } : {}),
    ...(renames ? { renames: renamed.map(({ column, was }) => ({ column, name: was })) } : {}),
  };
  return {
    inverse: inverse as Change,
    text: `${before.name}: ${said.join(', ')}`.slice(0, LONGEST_TEXT),
    place: { column: id, row: 1 },
  };
}

export async function orderColumns(context: Context, change: Of<'order-columns'>): Promise<Applied> {
  const standing = context.columns.filter(({ removed }) => !removed).sort((a, b) => a.position - b.position);
  const before = standing.map(({ id }) => id);
  // The places themselves stay: a column that is out of the table keeps its own, and taking this back brings back every place.
  for (const [i, { position }] of standing.entries()) {
    await context.q.update(columns).set({ position }).where(eq(columns.id, change.columns[i]!));
  }
  const names = change.columns.map((id) => columnOf(context, id).name).join(', ');
  return {
    inverse: { kind: 'order-columns', columns: before },
    text: `Columns in the order ${names}`.slice(0, LONGEST_TEXT),
  };
}

/** Turns a derived column into plain values. */
export async function freezeColumn(context: Context, change: Of<'freeze-column'>): Promise<Applied> {
  const { q } = context;
  const column = columnOf(context, change.column);
  const derivation = column.derivation!;
  const texts = change.texts ?? (await workedOut(context, column));
  await writeColumn(q, column.id, texts);
  await q.update(columns).set({ derivation: null }).where(eq(columns.id, column.id));
  return {
    inverse: { kind: 'thaw-column', column: column.id, derivation },
    text: `Froze ${column.name} (${derivationWords(derivation, context.columns)})`.slice(0, LONGEST_TEXT),
    cells: { [column.id]: digestOfCells(texts) },
    place: { column: column.id, row: 1 },
  };
}

async function workedOut({ q, study }: Context, column: ColumnRow): Promise<string[]> {
  const table = await readTable(q, study, [column.id]);
  const { fault } = derive(table, column);
  if (fault) throw new StoreError('invalid', `${column.name} has no values to freeze: ${fault}`, { field: 'column' });
  return frozenCells(table, column);
}

/** Lets a frozen column follow again. Its values stay in the record, in the change that takes this back. */
export async function thawColumn(context: Context, change: Of<'thaw-column'>): Promise<Applied> {
  const column = columnOf(context, change.column);
  const texts = await cellsFrom(context.q, column.id, 0);
  await clearColumn(context.q, column.id);
  await context.q.update(columns).set({ derivation: change.derivation }).where(eq(columns.id, column.id));
  const text = `${column.name} is derived again: ${derivationWords(change.derivation, context.columns)}`;
  return {
    inverse: { kind: 'freeze-column', column: column.id, texts },
    text: text.slice(0, LONGEST_TEXT),
    place: { column: column.id, row: 1 },
  };
}
