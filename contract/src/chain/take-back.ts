/** Goes back through a record, one change at a time, and compares the recorded new values with the present ones. */
import { OUTSIDE_READINGS } from '../channels.js';
import { fromOlder } from '../older-changes.js';
import type { Change } from '../changes.js';
import { movedByInsert, movedByRemoval } from '../row-moves.js';
import { Cells } from './cells.js';
import { digestOfCells } from './digest.js';
import { placeKey, same, type Mark, type Standing } from './facts.js';
import type { ChangeRow } from './links.js';

type Of<K extends Change['kind']> = Extract<Change, { kind: K }>;
type Marking = Of<'set-aside'>['readings'];
/** Called with what does not agree. */
type Object_ = (text: string) => void;

const nameOf = ({ columns }: Standing, id: string) => String(columns.get(id)?.name ?? id);

function compareFacts(facts: Record<string, unknown> | undefined, said: object, what: string, object: Object_): void {
  for (const [key, value] of Object.entries(said))
    if (value !== undefined && !same(facts?.[key], value)) object(`${what}: ${key} is not as recorded.`);
}

async function editedCells(now: Standing, change: Of<'edit-cells'>, object: Object_): Promise<void> {
  const seen = new Set<string>();
  // Where one change writes a cell twice, the later text stands.
  for (const { column, row, texts } of [...change.runs].reverse()) {
    const own = (await now.cells.get(column)?.read(row, texts.length)) ?? [];
    for (const [i, text] of texts.entries()) {
      const key = placeKey(column, row + i);
      if (seen.has(key)) continue;
      if (change.runs.length > 1) seen.add(key);
      if ((own[i] ?? '') !== text) return object(`row ${row + i} of ${nameOf(now, column)} is not as recorded.`);
    }
  }
}

async function writeRuns({ cells }: Standing, { runs }: Of<'edit-cells'>): Promise<void> {
  for (const { column, row, texts } of runs) await cells.get(column)?.write(row, texts);
}

const NO_CELLS = digestOfCells([]);
const digestIn = async ({ cells }: Standing, id: string) => (await cells.get(id)?.digest()) ?? NO_CELLS;

/** Removes added columns, and compares them with the recorded addition. */
async function addedColumns(
  now: Standing,
  change: Of<'add-columns'>,
  digests: ChangeRow['cells'],
  object: Object_,
): Promise<void> {
  for (const { id, cells: _, aside, ...facts } of change.columns) {
    const own = now.columns.get(id);
    if (!own) {
      object(`column ${facts.name} is missing.`);
      continue;
    }
    compareFacts(own, { ...facts, removed: false }, `column ${facts.name}`, object);
    if ((digests?.[id] ?? NO_CELLS) !== (await digestIn(now, id)))
      object(`cells of ${facts.name} are not as recorded.`);
    for (const { row, reason } of aside) {
      if (now.aside.get(placeKey(id, row))?.reason !== reason)
        object(`row ${row} of ${facts.name} is not set aside as recorded.`);
      now.aside.delete(placeKey(id, row));
    }
    now.columns.delete(id);
    now.cells.delete(id);
  }
}

function moveMarks(marks: Map<string, Mark>, to: (row: number) => number | null): Map<string, Mark> {
  const moved = new Map<string, Mark>();
  for (const [key, mark] of marks) {
    const at = key.lastIndexOf('/');
    const row = to(Number(key.slice(at + 1)));
    if (row !== null) moved.set(placeKey(key.slice(0, at), row), mark);
  }
  return moved;
}

async function insertedRows(
  now: Standing,
  change: Of<'insert-rows'>,
  entry: ChangeRow,
  object: Object_,
): Promise<void> {
  const { rows, contents = [], aside = [], leftIn = [] } = change;
  for (const [id, own] of now.cells) {
    const texts = contents.find(({ column }) => column === id)?.texts ?? [];
    const taken = await own.take(rows);
    if (taken.some((text, i) => text !== (texts[i] ?? '')))
      object(`inserted rows of ${nameOf(now, id)} are not as recorded.`);
  }
  unmark(now.aside, aside, entry, 'set aside', now, object);
  unmark(now.leftIn, leftIn, entry, 'kept', now, object);
  const before = movedByRemoval(rows);
  now.aside = moveMarks(now.aside, before);
  now.leftIn = moveMarks(now.leftIn, before);
  now.rowCount -= rows.length;
}

/** Puts the rows back that a change had removed. */
async function returnRows(
  now: Standing,
  { rows, contents = [], aside = [], leftIn = [] }: Of<'insert-rows'>,
): Promise<void> {
  for (const [id, own] of now.cells) {
    const texts = contents.find(({ column }) => column === id)?.texts ?? [];
    if (!own.isEmpty || texts.some((text) => text !== '')) await own.put(rows, texts);
  }
  const moved = movedByInsert(rows);
  now.aside = moveMarks(now.aside, moved);
  now.leftIn = moveMarks(now.leftIn, moved);
  mark(now.aside, aside);
  mark(now.leftIn, leftIn);
  now.rowCount += rows.length;
}

/** Takes marks away that a change had made, and compares them. */
function unmark(
  marks: Map<string, Mark>,
  readings: Marking,
  { who, at }: ChangeRow,
  words: string,
  now: Standing,
  object: Object_,
): void {
  for (const { column, row, reason, by } of readings) {
    const found = marks.get(placeKey(column, row));
    const made = by ?? { who, at };
    if (!found || !same(found, { reason, who: made.who, at: made.at }))
      object(`row ${row} of ${nameOf(now, column)} is not ${words} as recorded.`);
    marks.delete(placeKey(column, row));
  }
}

/** Marks as they were before they were taken away: each says by whom. */
function mark(marks: Map<string, Mark>, readings: Marking): void {
  for (const { column, row, reason, by } of readings)
    marks.set(placeKey(column, row), { reason, who: by?.who ?? '', at: by?.at ?? '' });
}

function unmarked(
  marks: Map<string, Mark>,
  readings: readonly { column: string; row: number }[],
  words: string,
  now: Standing,
  object: Object_,
): void {
  for (const { column, row } of readings)
    if (marks.has(placeKey(column, row))) object(`row ${row} of ${nameOf(now, column)} is still ${words}.`);
}

/** The facts of a change to columns: of itself, of those that take their names from it, of those whose limits follow. */
function columnFacts({ kind: _, column, columnKind, renames = [], bounds = [], ...facts }: Of<'change-column'>) {
  const own = { column, ...facts, ...(columnKind === undefined ? {} : { kind: columnKind }) };
  return [own, ...renames, ...bounds].map(({ column: id, ...said }) => ({ id, said }));
}

/** A change, what takes it back, and its entry in the record. */
interface Step<K extends Change['kind']> {
  now: Standing;
  change: Of<K>;
  inverse: Change;
  entry: ChangeRow;
  object: Object_;
}

function columnsInTable({
  now,
  change,
  object,
}: Pick<Step<'remove-columns' | 'return-columns'>, 'now' | 'change' | 'object'>): void {
  for (const id of change.columns) {
    const own = now.columns.get(id);
    if (own?.removed !== (change.kind === 'remove-columns'))
      object(`column ${nameOf(now, id)} is not in the table as recorded.`);
    if (own) own.removed = !own.removed;
  }
}

async function frozenColumn({ now, change: { column }, inverse, entry, object }: Step<'freeze-column'>): Promise<void> {
  if ((entry.cells?.[column] ?? NO_CELLS) !== (await digestIn(now, column)))
    object(`cells of ${nameOf(now, column)} are not as recorded.`);
  now.cells.set(column, Cells.of([]));
  Object.assign(now.columns.get(column) ?? {}, { derivation: (inverse as Of<'thaw-column'>).derivation });
}

function thawedColumn({ now, change: { column, derivation }, inverse, object }: Step<'thaw-column'>): void {
  compareFacts(now.columns.get(column), { derivation }, `column ${nameOf(now, column)}`, object);
  now.cells.set(column, Cells.of((inverse as Of<'freeze-column'>).texts ?? []));
  Object.assign(now.columns.get(column) ?? {}, { derivation: null });
}

function changedColumn({ now, change, inverse, object }: Step<'change-column'>): void {
  for (const { id, said } of columnFacts(change))
    compareFacts(now.columns.get(id), said, `column ${nameOf(now, id)}`, object);
  for (const { id, said } of columnFacts(inverse as Of<'change-column'>))
    Object.assign(now.columns.get(id) ?? {}, said);
}

function changedStudy({ now, change: { kind: _, ...facts }, inverse, object }: Step<'change-study'>): void {
  compareFacts(now.study, facts, 'the study', object);
  const { kind: __, ...before } = inverse as Of<'change-study'>;
  Object.assign(now.study, before);
}

/** By kind of change: compares the recorded new values with the present ones, and restores the former ones. */
const BACK: { [K in Change['kind']]: (step: Step<K>) => void | Promise<void> } = {
  'edit-cells': async ({ now, change, inverse, object }) => {
    await editedCells(now, change, object);
    await writeRuns(now, inverse as Of<'edit-cells'>);
  },
  'add-columns': ({ now, change, entry, object }) => addedColumns(now, change, entry.cells, object),
  'remove-columns': columnsInTable,
  'return-columns': columnsInTable,
  'change-column': changedColumn,
  // The order of the columns is no matter of any number.
  'order-columns': () => undefined,
  'freeze-column': frozenColumn,
  'thaw-column': thawedColumn,
  'insert-rows': ({ now, change, entry, object }) => insertedRows(now, change, entry, object),
  'remove-rows': ({ now, inverse }) => returnRows(now, inverse as Of<'insert-rows'>),
  'set-aside': ({ now, change, entry, object }) => unmark(now.aside, change.readings, entry, 'set aside', now, object),
  'put-back': ({ now, change, inverse, object }) => {
    unmarked(now.aside, change.readings, 'set aside', now, object);
    mark(now.aside, (inverse as Of<'set-aside'>).readings);
  },
  'leave-in': ({ now, change, entry, object }) => unmark(now.leftIn, change.readings, entry, 'kept', now, object),
  'look-again': ({ now, change, inverse, object }) => {
    unmarked(now.leftIn, change.readings, 'kept', now, object);
    mark(now.leftIn, (inverse as Of<'leave-in'>).readings);
  },
  'change-study': changedStudy,
};

/**
 * Takes one change back: compares first, then goes to what stood before it. Entries of the record that touch no readings are passed over.
 * @param now the study after the change; afterwards, before it
 */
export async function takeBack(now: Standing, entry: ChangeRow, object: Object_): Promise<void> {
  if (OUTSIDE_READINGS.has(entry.kind)) return;
  const change = fromOlder(entry.detail) as Change;
  const inverse = fromOlder(entry.inverse) as Change;
  await BACK[change.kind]({ now, change, inverse, entry, object } as never);
  const { rowCount, subject } = inverse as { rowCount?: number; subject?: string | null };
  if (change.kind !== 'change-study' && subject !== undefined) now.study.subject = subject;
  if (rowCount !== undefined) now.rowCount = rowCount;
}
