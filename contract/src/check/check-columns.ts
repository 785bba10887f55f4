import { circleThrough, followersObjection, sourcesOf, type Derivation } from '@verdict/core/table';
import { crossedBounds, type Bounds } from '../bounds.js';
import type { Change, NewColumn } from '../changes.js';
import {
  firstOf,
  isObjection,
  namedTwice,
  no,
  roomFor,
  standing,
  type ColumnNow,
  type Objection,
  type StudyNow,
} from './study-now.js';

type Of<K extends Change['kind']> = Extract<Change, { kind: K }>;

const inTable = (study: StudyNow) => study.columns.filter(({ removed }) => !removed);

/** Names that differ only in case could not be told apart. */
export function nameObjection(study: StudyNow, name: string, exceptId: string | null): Objection | null {
  const same = inTable(study).find((c) => c.id !== exceptId && c.name.toLowerCase() === name.toLowerCase());
  return same ? no('name', `There is already a column “${same.name}”.`) : null;
}

/** Bounds out of order; the field at fault is the one that was changed. */
function boundsObjection(bounds: Bounds, changed: Partial<Bounds>): Objection | null {
  const crossed = crossedBounds(bounds);
  if (!crossed) return null;
  return no(changed[crossed.low] === undefined ? crossed.high : crossed.low, crossed.text);
}

/** What a column cannot follow: columns that are not there, and itself by way of others. */
function derivationObjection(study: StudyNow, id: string, derivation: Derivation): Objection | null {
  const columns = inTable(study);
  if (sourcesOf(derivation).some((source) => !columns.some((column) => column.id === source))) {
    return no('derivation', 'The column would depend on one that does not exist.');
  }
  const others = columns.filter((column) => column.id !== id);
  if (!circleThrough([...others, { id, derivation }], id)) return null;
  return no('derivation', 'The column would depend on itself through others.');
}

function frequenciesObjection(study: StudyNow, id: string, frequencies: string | null): Objection | null {
  if (frequencies === null) return null;
  const column = standing(study, frequencies, 'frequencies');
  if (isObjection(column)) return column;
  return frequencies === id || column.kind !== 'count'
    ? no('frequencies', 'Frequencies must come from another column, a column of counts.')
    : null;
}

/** The settings of a column that is new, or comes from a file. */
export const factsObjection = (study: StudyNow, column: ColumnNow): Objection | null =>
  firstOf(
    (function* () {
      yield nameObjection(study, column.name, column.id);
      yield boundsObjection(column, column);
      yield frequenciesObjection(study, column.id, column.frequencies);
      yield column.derivation && derivationObjection(study, column.id, column.derivation);
    })(),
  );

function newCellsObjection(column: NewColumn): Objection | null {
  if (column.derivation && column.cells.length > 0) return no('cells', 'A derived column has no cells of its own.');
  return null;
}

function newAsideObjection(column: NewColumn, rows: number): Objection | null {
  const beyond = column.aside.find(({ row }) => row > rows);
  if (beyond) return no('aside', `There is no row ${beyond.row} to set aside.`);
  const twice = namedTwice(column.aside.map(({ row }) => String(row)));
  return twice ? no('aside', `Row ${twice} is set aside twice.`) : null;
}

/** @param reach rows that the new columns have */
export function addColumnsObjection(study: StudyNow, change: Of<'add-columns'>, reach: number): Objection | null {
  const rows = Math.max(study.rowCount, reach);
  const known = [...study.columns];
  for (const column of change.columns) {
    if (known.some(({ id }) => id === column.id)) return no('columns', 'A new column has the id of another.');
    known.push({ ...column, removed: false });
    const grown = { ...study, columns: known };
    const objection =
      factsObjection(grown, known.at(-1)!) ?? newCellsObjection(column) ?? newAsideObjection(column, rows);
    if (objection) return objection;
  }
  return roomFor(study, rows, inTable({ ...study, columns: known }).length, 'columns');
}

/** Columns named that are there, once each, and in the table or out of it as the change needs them. */
function namedObjection(study: StudyNow, ids: readonly string[], removed: boolean): Objection | null {
  if (namedTwice(ids)) return no('columns', 'A column is listed twice.');
  for (const id of ids) {
    const found = study.columns.find((column) => column.id === id);
    if (!found) return no('columns', 'The change refers to a column that this study does not have.');
    if (found.removed !== removed)
      return no('columns', `${found.name} is ${removed ? 'in the table already' : 'not in the table'}.`);
  }
  return null;
}

/** The study with these columns taken out or brought back. */
const withMarked = (study: StudyNow, ids: readonly string[], removed: boolean): StudyNow => ({
  ...study,
  columns: study.columns.map((column) => (ids.includes(column.id) ? { ...column, removed } : column)),
});

function subjectObjection(study: StudyNow, subject: string | null | undefined): Objection | null {
  if (!subject) return null;
  const found = standing(study, subject, 'subject');
  return isObjection(found) ? found : null;
}

export function removeColumnsObjection(study: StudyNow, change: Of<'remove-columns'>): Objection | null {
  const { columns: ids, subject, rowCount = study.rowCount } = change;
  const named = namedObjection(study, ids, false);
  if (named) return named;
  const followed = followersObjection(inTable(study), ids);
  if (followed) return no('columns', followed);
  if (rowCount > study.rowCount)
    return no('rowCount', `The table has ${study.rowCount} rows; this change cannot add rows.`);
  return subjectObjection(withMarked(study, ids, true), subject);
}

export function returnColumnsObjection(study: StudyNow, change: Of<'return-columns'>): Objection | null {
  const { columns: ids, subject, rowCount = study.rowCount } = change;
  const named = namedObjection(study, ids, true);
  if (named) return named;
  const after = withMarked(study, ids, false);
  const twice = firstOf(ids.map((id) => nameObjection(after, after.columns.find((c) => c.id === id)!.name, id)));
  if (twice) return twice;
  for (const { name, derivation } of after.columns.filter(({ id }) => ids.includes(id))) {
    const out = after.columns.find((c) => c.removed && derivation && sourcesOf(derivation).includes(c.id));
    if (out) return no('columns', `${name} depends on ${out.name}, which is not in the table.`);
  }
  const reach = Math.max(study.rowCount, ...ids.map((id) => study.reachOf(id)));
  if (rowCount < study.rowCount || rowCount > reach) {
    return no('rowCount', `The table has ${study.rowCount} rows, and ${reach} with the restored columns.`);
  }
  return subjectObjection(after, subject) ?? roomFor(study, rowCount, inTable(after).length, 'rowCount');
}

/** Names given together: each column is there, is named once, and no two end up alike. */
function renamesObjection(study: StudyNow, { column, name, renames = [] }: Of<'change-column'>): Objection | null {
  const named = [...(name === undefined ? [] : [{ column, name }]), ...renames];
  const twice = namedObjection(
    study,
    renames.map((of) => of.column),
    false,
  );
  if (twice) return { ...twice, field: 'renames' };
  if (renames.some((of) => of.column === column)) return no('renames', 'A column is listed twice.');
  const nameOf = (id: string) => named.find((of) => of.column === id)?.name;
  const after = { ...study, columns: study.columns.map((of) => ({ ...of, name: nameOf(of.id) ?? of.name })) };
  return firstOf(named.map((of) => nameObjection(after, of.name, of.column)));
}

/** Limits given together: each column is another one that is there, is named once, and its limits rise. */
function followingBoundsObjection(study: StudyNow, { column, bounds = [] }: Of<'change-column'>): Objection | null {
  const named = namedObjection(
    study,
    bounds.map((of) => of.column),
    false,
  );
  if (named) return { ...named, field: 'bounds' };
  if (bounds.some((of) => of.column === column)) return no('bounds', 'A column is listed twice.');
  return firstOf(bounds.map((of) => boundsObjection(of, of)));
}

export function changeColumnObjection(study: StudyNow, change: Of<'change-column'>): Objection | null {
  const before = standing(study, change.column);
  if (isObjection(before)) return before;
  const { derivation, frequencies } = change;
  return firstOf(
    (function* () {
      yield renamesObjection(study, change);
      yield boundsObjection({ ...before, ...change } as Bounds, change as Partial<Bounds>);
      yield followingBoundsObjection(study, change);
      yield frequencies === undefined ? null : frequenciesObjection(study, before.id, frequencies);
      if (!derivation) return;
      if (!before.derivation)
        yield no('derivation', `${before.name} holds typed cells, so it cannot be a derived column.`);
      yield derivationObjection(study, before.id, derivation);
    })(),
  );
}

export function orderColumnsObjection(study: StudyNow, { columns: ids }: Of<'order-columns'>): Objection | null {
  const columns = inTable(study);
  const whole = ids.length === columns.length && !namedTwice(ids) && columns.every(({ id }) => ids.includes(id));
  return whole ? null : no('columns', 'The new order must list every column once.');
}

export function freezeObjection(study: StudyNow, change: Of<'freeze-column'>): Objection | null {
  const column = standing(study, change.column);
  if (isObjection(column)) return column;
  if (!column.derivation) return no('column', `${column.name} is not a derived column.`);
  if ((change.texts?.length ?? 0) > study.rowCount) return no('texts', `The table has ${study.rowCount} rows.`);
  return null;
}

export function thawObjection(study: StudyNow, change: Of<'thaw-column'>): Objection | null {
  const column = standing(study, change.column);
  if (isObjection(column)) return column;
  if (column.derivation) return no('column', `${column.name} is already a derived column.`);
  return derivationObjection(study, column.id, change.derivation);
}

export const changeStudyObjection = (study: StudyNow, change: Of<'change-study'>): Objection | null =>
  subjectObjection(study, change.subject);
