import { crossedBounds, reachOf, type Bounds, type Change, type NewColumn } from '@verdict/contract';
import { circleThrough, derivationWords, derive, followersObjection, sourcesOf, type Derivation } from '@verdict/core';
import { eq, inArray, max } from 'drizzle-orm';
import { clearColumn, writeColumn } from '../cells.js';
import { StoreError } from '../errors.js';
import { columns, setAside } from '../schema.js';
import { readTable } from '../tables.js';
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

/** The same name in another case would make two columns that nobody can tell apart. */
function checkName(context: Context, name: string, exceptId: string | null): void {
  const same = context.columns.find(
    (c) => !c.removed && c.id !== exceptId && c.name.toLowerCase() === name.toLowerCase(),
  );
  if (same) throw new StoreError('invalid', `There is already a column “${same.name}”.`, { field: 'name' });
}

type Facts = { [K in keyof ColumnRow]?: ColumnRow[K] | undefined };
/** Refuses bounds out of order; the field at fault is the one that was changed. */
function checkBounds(bounds: Bounds, changed: Facts): void {
  const crossed = crossedBounds(bounds);
  if (!crossed) return;
  const { low, high, text } = crossed;
  throw new StoreError('invalid', text, { field: changed[low] === undefined ? high : low });
}

/** Refuses what a column cannot follow: columns that are not there, and itself by way of others. */
function checkDerivation(context: Context, id: string, derivation: Derivation): void {
  const standing = context.columns.filter(({ removed }) => !removed);
  if (sourcesOf(derivation).some((source) => !standing.some((column) => column.id === source))) {
    throw new StoreError('invalid', 'The column would follow one that is not there.', { field: 'derivation' });
  }
  const others = standing.filter((column) => column.id !== id);
  if (circleThrough([...others, { id, derivation }], id)) {
    throw new StoreError('invalid', 'The column would follow itself by way of others.', { field: 'derivation' });
  }
}

function checkFrequencies(context: Context, id: string, frequencies: string | null): void {
  if (frequencies === null) return;
  const column = columnOf(context, frequencies);
  if (frequencies === id || column.kind !== 'count' || column.removed) {
    throw new StoreError('invalid', 'Frequencies come from another column, of counts.', { field: 'frequencies' });
  }
}

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
    checkName(context, column.name, null);
    checkBounds(column, column);
    checkFrequencies(context, column.id, column.frequencies);
    if (column.derivation) checkDerivation(context, column.id, column.derivation);
    const row = { ...column, studyId: study.id, position: position++, removed: false };
    await q.insert(columns).values(row);
    context.columns.push(row);
  }
}

async function insertAside({ q, study, who, at }: Context, added: readonly NewColumn[]): Promise<void> {
  const rows = added.flatMap(({ id, aside }) =>
    aside.map(({ row, reason }) => ({ columnId: id, row, studyId: study.id, reason, who, at })),
  );
  for (let i = 0; i < rows.length; i += 1_000) await q.insert(setAside).values(rows.slice(i, i + 1_000));
}

/** The table with its new columns: rows, subject, and how to take them out again. */
export async function columnsAdded(
  context: Context,
  added: readonly Omit<NewColumn, 'cells' | 'aside'>[],
  reach: number,
  note: string | undefined,
): Promise<Applied> {
  const grown = await setRowCount(context, Math.max(context.study.rowCount, reach));
  const first = added.find(({ kind }) => kind === 'measure')?.id ?? null;
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
  for (const { id, cells, derivation } of change.columns) {
    if (derivation && cells.length > 0) {
      throw new StoreError('invalid', 'A derived column has no cells of its own.', { field: 'cells' });
    }
    await writeColumn(context.q, id, cells);
  }
  await insertAside(context, change.columns);
  return columnsAdded(context, bare, reachOf(change), change.note);
}

/** Refuses to take out what others follow, and to bring back what follows something that is out. */
function checkFollowers(context: Context, ids: readonly string[], removed: boolean): void {
  const standing = context.columns.filter((column) => !column.removed);
  const objection = removed ? followersObjection(standing, ids) : missingSource(context, ids);
  if (objection) throw new StoreError('invalid', objection, { field: 'columns' });
}

function missingSource(context: Context, ids: readonly string[]): string | null {
  for (const id of ids) {
    const { name, derivation } = columnOf(context, id);
    const out = context.columns.find(
      (c) => c.removed && !ids.includes(c.id) && derivation && sourcesOf(derivation).includes(c.id),
    );
    if (out) return `${name} follows ${out.name}, which is not in the table.`;
  }
  return null;
}

export async function markColumns(
  context: Context,
  change: Of<'remove-columns'> | Of<'return-columns'>,
): Promise<Applied> {
  const { q, study } = context;
  const removed = change.kind === 'remove-columns';
  for (const id of change.columns) if (!removed) checkName(context, columnOf(context, id).name, id);
  checkFollowers(context, change.columns, removed);
  for (const id of change.columns) columnOf(context, id).removed = removed;
  await q.update(columns).set({ removed }).where(inArray(columns.id, change.columns));
  // Columns just taken out keep their cells: those cut here are the ones that stay.
  const grown = await setRowCount(context, change.rowCount ?? study.rowCount);
  const standing = context.columns.some((c) => c.id === study.subject && !c.removed);
  const next = context.columns.find((c) => !c.removed && c.kind === 'measure')?.id ?? null;
  const moved = await setSubject(
    context,
    change.subject !== undefined ? change.subject : standing ? study.subject : next,
  );
  const names = change.columns.map((id) => columnOf(context, id).name).join(', ');
  const text = `${removed ? 'Removed' : 'Brought back'} ${plural(change.columns.length, 'column')}: ${names}`;
  const kind = removed ? ('return-columns' as const) : ('remove-columns' as const);
  return {
    inverse: { kind, columns: change.columns, ...grown, ...moved },
    text: text.slice(0, LONGEST_TEXT),
    place: { column: change.columns[0]!, row: 1 },
  };
}

const FACT_WORDS: Record<string, string> = { kind: 'kind', frequencies: 'frequencies from', claimedSd: 'claimed sd' };

/** One changed fact in words: "upper limit none → 8.5". */
function factWords(context: Context, before: ColumnRow, key: string, value: unknown): string {
  const words = FACT_WORDS[key] ?? key.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`);
  if (key === 'levels') return 'levels arranged';
  if (key === 'derivation') return `now ${derivationWords(value as Derivation, context.columns)}`;
  const said = (of: unknown) => {
    if (of === null || of === '') return 'none';
    return key === 'frequencies' ? columnOf(context, String(of)).name : String(of);
  };
  return `${words} ${said(before[key as keyof ColumnRow])} → ${said(value)}`;
}

export async function changeColumn(context: Context, change: Of<'change-column'>): Promise<Applied> {
  const before = columnOf(context, change.column);
  const { kind: _, column: id, columnKind, ...facts } = change;
  const after: Facts = { ...facts, ...(columnKind ? { kind: columnKind } : {}) };
  if (change.name !== undefined) checkName(context, change.name, id);
  checkBounds({ ...before, ...after } as Bounds, facts);
  if (change.frequencies !== undefined) checkFrequencies(context, id, change.frequencies);
  if (change.derivation) {
    if (!before.derivation) {
      throw new StoreError('invalid', `${before.name} holds written cells; it cannot follow others.`, {
        field: 'derivation',
      });
    }
    checkDerivation(context, id, change.derivation);
  }
  if (Object.keys(after).length > 0)
    await context.q
      .update(columns)
      .set(after as Partial<ColumnRow>)
      .where(eq(columns.id, id));
  const said = Object.entries(after).map(([key, value]) => factWords(context, before, key, value));
  const old = Object.fromEntries(Object.keys(facts).map((key) => [key, before[key as keyof ColumnRow]]));
  const inverse = { kind: 'change-column', column: id, ...old, ...(columnKind ? { columnKind: before.kind } : {}) };
  return {
    inverse: inverse as Change,
    text: `${before.name}: ${said.join(', ')}`.slice(0, LONGEST_TEXT),
    place: { column: id, row: 1 },
  };
}

export async function orderColumns(context: Context, change: Of<'order-columns'>): Promise<Applied> {
  const standing = context.columns.filter(({ removed }) => !removed).sort((a, b) => a.position - b.position);
  const before = standing.map(({ id }) => id);
  if (new Set(change.columns).size !== before.length || before.some((id) => !change.columns.includes(id))) {
    throw new StoreError('invalid', 'The new order must name every column once.', { field: 'columns' });
  }
  for (const [position, id] of change.columns.entries()) {
    await context.q.update(columns).set({ position }).where(eq(columns.id, id));
  }
  const names = change.columns.map((id) => columnOf(context, id).name).join(', ');
  return {
    inverse: { kind: 'order-columns', columns: before },
    text: `Columns in the order ${names}`.slice(0, LONGEST_TEXT),
  };
}

/** Turns a derived column into plain values in full precision. */
export async function freezeColumn(context: Context, change: Of<'freeze-column'>): Promise<Applied> {
  const { q, study } = context;
  const column = columnOf(context, change.column);
  if (!column.derivation) throw new StoreError('invalid', `${column.name} follows nothing.`, { field: 'column' });
  const table = await readTable(q, study, [column.id]);
  const { cells, fault } = derive(table, column);
  if (fault) throw new StoreError('invalid', `${column.name} has no values to freeze: ${fault}`, { field: 'column' });
  await writeColumn(q, column.id, cells);
  await q.update(columns).set({ derivation: null }).where(eq(columns.id, column.id));
  return {
    inverse: { kind: 'thaw-column', column: column.id, derivation: column.derivation },
    text: `Froze ${column.name} (${derivationWords(column.derivation, context.columns)})`.slice(0, LONGEST_TEXT),
    place: { column: column.id, row: 1 },
  };
}

export async function thawColumn(context: Context, change: Of<'thaw-column'>): Promise<Applied> {
  const column = columnOf(context, change.column);
  checkDerivation(context, column.id, change.derivation);
  await clearColumn(context.q, column.id);
  await context.q.update(columns).set({ derivation: change.derivation }).where(eq(columns.id, column.id));
  const text = `${column.name} follows again: ${derivationWords(change.derivation, context.columns)}`;
  return {
    inverse: { kind: 'freeze-column', column: column.id },
    text: text.slice(0, LONGEST_TEXT),
    place: { column: column.id, row: 1 },
  };
}
