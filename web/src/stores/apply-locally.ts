import {
  firstSubject,
  movedByInsert,
  movedByRemoval,
  reachOf,
  type Change,
  type MarkedReading,
  type Study,
  type StudyCells,
  type StudyColumn,
  type StudyNow,
} from '@verdict/contract';
import { frozenCells, type Table } from '@verdict/core/table';

export interface Local {
  study: Study;
  cells: StudyCells;
  /** Columns taken out by a change that is still on its way, so that its inverse finds them. */
  removed: Map<string, StudyColumn>;
}

/** The page's copy of a study as calculations take a table. */
export function tableOf(study: Study, cells: StudyCells): Table {
  const aside = new Map<string, Set<number>>();
  for (const { column, row } of study.setAside) {
    const rows = aside.get(column);
    if (rows) rows.add(row);
    else aside.set(column, new Set([row]));
  }
  const none = new Set<number>();
  return { rowCount: study.rowCount, columns: study.columns, cells, setAside: (id) => aside.get(id) ?? none };
}

/** The page's copy as a change is checked against it; columns that are out of the table are the server's alone. */
export function studyNow(study: Study): StudyNow {
  let aside: ReadonlySet<string> | null = null;
  let left: ReadonlySet<string> | null = null;
  return {
    rowCount: study.rowCount,
    columns: study.columns.map((column) => ({ ...column, removed: false })),
    isAside: (column, row) => (aside ??= placesOf(study.setAside)).has(`${column}/${row}`),
    isLeftIn: (column, row) => (left ??= placesOf(study.leftIn)).has(`${column}/${row}`),
    reachOf: () => 0,
  };
}

function lengthened(cells: string[] | undefined, rowCount: number): string[] {
  const copy = (cells ?? []).slice(0, rowCount);
  while (copy.length < rowCount) copy.push('');
  return copy;
}

/** Columns with written, not derived, cells. */
const written = ({ columns }: Study) => columns.filter(({ derivation }) => !derivation);

function setRows({ study, cells }: Local, rowCount: number): void {
  if (rowCount === study.rowCount) return;
  for (const { id } of written(study)) cells[id] = lengthened(cells[id], rowCount);
  study.rowCount = rowCount;
}

function editCells(local: Local, change: Extract<Change, { kind: 'edit-cells' }>): void {
  const { study, cells } = local;
  const reach = Math.max(study.rowCount, reachOf(change));
  const touched = new Set(change.runs.map(({ column }) => column));
  for (const id of touched) cells[id] = lengthened(cells[id], reach);
  for (const { column, row, texts } of change.runs) {
    const own = cells[column]!;
    texts.forEach((text, i) => (own[row - 1 + i] = text));
  }
  const rowCount = change.rowCount ?? reach;
  for (const id of touched) if (rowCount < reach) cells[id] = cells[id]!.slice(0, rowCount);
  setRows(local, rowCount);
}

function addColumns(local: Local, change: Extract<Change, { kind: 'add-columns' }>, who: string, at: string): void {
  const { study, cells } = local;
  setRows(local, Math.max(study.rowCount, reachOf(change)));
  for (const { cells: texts, aside, ...column } of change.columns) {
    study.columns.push(column);
    if (!column.derivation) cells[column.id] = lengthened(texts, study.rowCount);
    study.setAside = [...study.setAside, ...aside.map((reading) => ({ ...reading, column: column.id, who, at }))];
  }
  study.subject ??= firstSubject(change.columns);
}

function insertRows(local: Local, change: Extract<Change, { kind: 'insert-rows' }>, who: string, at: string): void {
  const { study, cells } = local;
  const { rows, contents = [], aside = [], leftIn = [] } = change;
  for (const { id } of written(study)) {
    const texts = contents.find(({ column }) => column === id)?.texts ?? [];
    const old = lengthened(cells[id], study.rowCount);
    const now: string[] = [];
    let put = 0;
    for (let taken = 0; taken < old.length || put < rows.length;) {
      if (rows[put] === now.length + 1) now.push(texts[put++] ?? '');
      else now.push(old[taken++] ?? '');
    }
    cells[id] = now;
  }
  const moved = movedByInsert(rows);
  const later = (all: readonly MarkedReading[]) => all.map((reading) => ({ ...reading, row: moved(reading.row) }));
  study.setAside = [...later(study.setAside), ...marked(aside, who, at)];
  study.leftIn = [...later(study.leftIn), ...marked(leftIn, who, at)];
  study.rowCount += rows.length;
}

function removeRows({ study, cells }: Local, rows: readonly number[]): void {
  const going = new Set(rows);
  for (const { id } of written(study)) cells[id] = (cells[id] ?? []).filter((_, i) => !going.has(i + 1));
  const moved = movedByRemoval(rows);
  const earlier = (all: readonly MarkedReading[]) =>
    all.flatMap((reading) => {
      const row = moved(reading.row);
      return row === null ? [] : [{ ...reading, row }];
    });
  study.setAside = earlier(study.setAside);
  study.leftIn = earlier(study.leftIn);
  study.rowCount -= rows.length;
}

const placesOf = (readings: readonly { column: string; row: number }[]) =>
  new Set(readings.map(({ column, row }) => `${column}/${row}`));

const without = (all: readonly MarkedReading[], places: ReadonlySet<string>) =>
  all.filter(({ column, row }) => !places.has(`${column}/${row}`));

type Marking = Extract<Change, { kind: 'set-aside' }>['readings'];
const marked = (readings: Marking, who: string, at: string): MarkedReading[] =>
  readings.map(({ by, ...reading }) => ({ ...reading, ...(by ?? { who, at }) }));
const withMarks = (all: readonly MarkedReading[], readings: Marking, who: string, at: string) => [
  ...without(all, placesOf(readings)),
  ...marked(readings, who, at),
];

function columnById({ study }: Local, id: string): StudyColumn | undefined {
  return study.columns.find((column) => column.id === id);
}

function removeColumns(local: Local, ids: readonly string[]): void {
  const { study } = local;
  for (const column of study.columns) if (ids.includes(column.id)) local.removed.set(column.id, column);
  study.columns = study.columns.filter(({ id }) => !ids.includes(id));
  if (study.subject && ids.includes(study.subject)) {
    study.subject = firstSubject(study.columns);
  }
}

/**
 * What the page shows at once, before the server has answered: the same change on the page's own copy. The server stays the judge; if
 * it refuses, the copy is read again.
 */
export function applyLocally(local: Local, change: Change, who: string, at: string): void {
  const { study, cells } = local;
  switch (change.kind) {
    case 'edit-cells':
      return editCells(local, change);
    case 'add-columns':
      return addColumns(local, change, who, at);
    case 'remove-columns':
      return removeColumns(local, change.columns);
    case 'return-columns':
      for (const id of change.columns) if (local.removed.has(id)) study.columns.push(local.removed.get(id)!);
      return;
    case 'change-column': {
      const { kind: _, column, columnKind, renames = [], bounds = [], ...facts } = change;
      const found = columnById(local, column);
      if (found) Object.assign(found, facts, columnKind ? { kind: columnKind } : {});
      for (const { column: of, ...said } of [...renames, ...bounds]) Object.assign(columnById(local, of) ?? {}, said);
      return;
    }
    case 'order-columns':
      study.columns = change.columns.flatMap((id) => columnById(local, id) ?? []);
      return;
    case 'freeze-column': {
      const column = columnById(local, change.column);
      if (!column?.derivation) return;
      const texts = change.texts ?? frozenCells(tableOf(study, cells), column);
      cells[column.id] = lengthened(texts, study.rowCount);
      column.derivation = null;
      return;
    }
    case 'thaw-column': {
      const column = columnById(local, change.column);
      if (column) column.derivation = change.derivation;
      return;
    }
    case 'insert-rows':
      return insertRows(local, change, who, at);
    case 'remove-rows':
      return removeRows(local, change.rows);
    case 'set-aside':
      study.setAside = withMarks(study.setAside, change.readings, who, at);
      return;
    case 'put-back':
      study.setAside = without(study.setAside, placesOf(change.readings));
      return;
    case 'leave-in':
      study.leftIn = withMarks(study.leftIn, change.readings, who, at);
      return;
    case 'look-again':
      study.leftIn = without(study.leftIn, placesOf(change.readings));
      return;
    case 'change-study': {
      const { kind: _, ...facts } = change;
      Object.assign(study, facts);
    }
  }
}
