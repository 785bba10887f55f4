import { groupThousands } from '@verdict/core/format';
import { MOST_ROWS, type Change } from '../changes.js';
import { firstOf, isObjection, namedTwice, no, roomFor, standing, type Objection, type StudyNow } from './study-now.js';

type Of<K extends Change['kind']> = Extract<Change, { kind: K }>;

const columnsIn = (study: StudyNow) => study.columns.filter(({ removed }) => !removed).length;

/** A run of cells that cannot be written: its column is not there, or follows others, or it says something beyond the end of the table. */
function runObjection(
  study: StudyNow,
  { column: id, row, texts }: Of<'edit-cells'>['runs'][number],
  rows: number,
): Objection | null {
  const column = standing(study, id);
  if (isObjection(column)) return column;
  if (column.derivation) {
    return no('column', `${column.name} is a derived column and cannot be edited. Freeze it to plain values first.`);
  }
  // Empty texts beyond the end are how a change that made the table longer is taken back.
  const beyond = row + texts.length - 1 > rows && texts.slice(Math.max(0, rows - row + 1)).some((text) => text !== '');
  return beyond ? no('rowCount', `The change writes beyond row ${rows}, the stated end of the table.`) : null;
}

/** @param reach the last row that the change writes into */
export function editCellsObjection(study: StudyNow, change: Of<'edit-cells'>, reach: number): Objection | null {
  const rows = change.rowCount ?? Math.max(study.rowCount, reach);
  if (rows > Math.max(MOST_ROWS, study.rowCount))
    return no('rows', `A table may have at most ${groupThousands(MOST_ROWS)} rows.`);
  return firstOf(
    (function* () {
      for (const run of change.runs) yield runObjection(study, run, rows);
      yield roomFor(study, rows, columnsIn(study), 'rows');
    })(),
  );
}

function rowsObjection(rows: readonly number[], last: number): Objection | null {
  if (rows.some((row, i) => i > 0 && row <= rows[i - 1]!)) {
    return no('rows', 'Rows must be listed once each, in ascending order.');
  }
  return rows.at(-1)! > last ? no('rows', `There is no row ${groupThousands(rows.at(-1)!)}.`) : null;
}

function contentsObjection(study: StudyNow, { rows, contents = [] }: Of<'insert-rows'>): Objection | null {
  if (namedTwice(contents.map(({ column }) => column))) return no('contents', 'A column is listed twice.');
  for (const { column: id, texts } of contents) {
    const column = study.columns.find((one) => one.id === id);
    if (!column) return no('contents', 'The change refers to a column that this study does not have.');
    if (column.derivation) return no('contents', `${column.name} is a derived column and has no cells of its own.`);
    if (texts.length !== rows.length)
      return no('contents', `${column.name} has ${texts.length} cells for ${rows.length} rows.`);
  }
  return null;
}

function insertedMarksObjection(
  study: StudyNow,
  rows: readonly number[],
  field: 'aside' | 'leftIn',
  aside: readonly { column: string; row: number }[] = [],
): Objection | null {
  const coming = new Set(rows);
  for (const { column, row } of aside) {
    if (!study.columns.some(({ id }) => id === column))
      return no(field, 'The change refers to a column that this study does not have.');
    if (!coming.has(row)) return no(field, `Row ${row} is not one of the inserted rows.`);
  }
  return namedTwice(aside.map(({ column, row }) => `${column}/${row}`))
    ? no(field, `A reading is ${field === 'aside' ? 'set aside' : 'kept'} twice.`)
    : null;
}

export function insertRowsObjection(study: StudyNow, change: Of<'insert-rows'>): Objection | null {
  const rowCount = study.rowCount + change.rows.length;
  if (rowCount > MOST_ROWS) return no('rows', `A table may have at most ${groupThousands(MOST_ROWS)} rows.`);
  return (
    rowsObjection(change.rows, rowCount) ??
    roomFor(study, rowCount, columnsIn(study), 'rows') ??
    contentsObjection(study, change) ??
    insertedMarksObjection(study, change.rows, 'aside', change.aside) ??
    insertedMarksObjection(study, change.rows, 'leftIn', change.leftIn)
  );
}

export const removeRowsObjection = (study: StudyNow, { rows }: Of<'remove-rows'>): Objection | null =>
  rowsObjection(rows, study.rowCount);

/** Readings named once each, in the table, and marked or not as the change needs them. */
export function readingsObjection(
  study: StudyNow,
  readings: readonly { column: string; row: number }[],
  { is, wanted, words }: { is: (column: string, row: number) => boolean; wanted: boolean; words: string },
): Objection | null {
  if (namedTwice(readings.map(({ column, row }) => `${column}/${row}`)))
    return no('readings', 'A reading is listed twice.');
  for (const { column: id, row } of readings) {
    const column = standing(study, id);
    if (isObjection(column)) return column;
    if (row > study.rowCount) return no('row', `There is no row ${groupThousands(row)}.`);
    if (is(id, row) !== wanted) return no('row', `Row ${row} is ${wanted ? 'not' : 'already'} ${words}.`);
  }
  return null;
}
