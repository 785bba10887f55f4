import type { FileColumn, StudyFile } from '../file/study-file.js';
import { factsObjection } from './check-columns.js';
import { firstOf, isObjection, namedTwice, no, roomFor, standing, type Objection, type StudyNow } from './study-now.js';

type Item<K extends 'changes' | 'evidence' | 'verdicts' | 'looks'> = StudyFile[K][number];

/** What must hold together in a study file: all but the cells and what its record says. */
export interface FileOutline extends Pick<StudyFile, 'study' | 'setAside' | 'leftIn'> {
  /** Each with the number of cells that it holds. */
  columns: readonly (FileColumn & { reach: number })[];
  changes: readonly Pick<Item<'changes'>, 'revision' | 'token' | 'undoes'>[];
  evidence: readonly Pick<Item<'evidence'>, 'id' | 'columnId' | 'parts'>[];
  verdicts: readonly Item<'verdicts'>[];
  looks: readonly Pick<Item<'looks'>, 'digest'>[];
}

const idsOf = (items: readonly { id: string }[]) => items.map(({ id }) => id);

/** The study of a file as changes would find it. */
function studyOf(file: FileOutline): StudyNow {
  const places = (of: StudyFile['setAside']) => new Set(of.map(({ columnId, row }) => `${columnId}/${row}`));
  const [aside, left] = [places(file.setAside), places(file.leftIn)];
  const reach = new Map(file.columns.map(({ id, reach: cells }) => [id, cells]));
  return {
    rowCount: file.study.rowCount,
    columns: file.columns,
    isAside: (column, row) => aside.has(`${column}/${row}`),
    isLeftIn: (column, row) => left.has(`${column}/${row}`),
    reachOf: (id) => reach.get(id) ?? 0,
  };
}

function doubledObjection(file: FileOutline): Objection | null {
  const lists = {
    columns: idsOf(file.columns),
    evidence: idsOf(file.evidence),
    verdicts: idsOf(file.verdicts),
    setAside: file.setAside.map(({ columnId, row }) => `${columnId}/${row}`),
    leftIn: file.leftIn.map(({ columnId, row }) => `${columnId}/${row}`),
    changes: file.changes.map(({ revision }) => String(revision)),
    looks: file.looks.map(({ digest }) => digest),
  };
  for (const [field, ids] of Object.entries(lists)) {
    if (namedTwice(ids)) return no(field, `The study file is damaged: an entry occurs twice under ${field}.`);
  }
  const tokens = namedTwice(file.changes.map(({ token }) => token));
  return tokens ? no('changes', 'The study file is damaged: a change occurs twice.') : null;
}

function columnObjection(study: StudyNow, column: FileOutline['columns'][number]): Objection | null {
  if (column.derivation && column.reach > 0)
    return no('cells', `${column.name} is a derived column but has cells too.`);
  // What is out of the table keeps what it held, and is checked when it comes back.
  if (column.removed) return null;
  if (column.reach > study.rowCount) return no('cells', `${column.name} has more cells than the table has rows.`);
  if (column.frequencies !== null) {
    const counts = standing(study, column.frequencies, 'frequencies');
    if (isObjection(counts)) return counts;
  }
  return factsObjection(study, { ...column, frequencies: null });
}

function marksObjection(file: FileOutline): Objection | null {
  const removed = new Map(file.columns.map((column) => [column.id, column.removed]));
  for (const [field, words] of [
    ['setAside', 'set aside'],
    ['leftIn', 'kept'],
  ] as const) {
    for (const { columnId, row } of file[field]) {
      const out = removed.get(columnId);
      if (out === undefined) return no(field, `A reading is ${words} in a column that the file does not contain.`);
      if (!out && row > file.study.rowCount) return no(field, `There is no row ${row} to be ${words}.`);
    }
  }
  return null;
}

function recordObjection({ study, changes }: FileOutline): Objection | null {
  for (const { revision, undoes } of changes) {
    if (revision > study.revision) return no('changes', `Change ${revision} is later than the study itself.`);
    if (undoes !== null && undoes >= revision) return no('changes', `Change ${revision} undoes a later one.`);
  }
  return null;
}

function evidenceObjection({ columns, evidence }: FileOutline): Objection | null {
  const known = new Set(idsOf(columns));
  for (const { columnId, parts } of evidence) {
    const others = parts === null ? [] : 'split' in parts ? [parts.split] : parts.beside;
    if ([...(columnId === null ? [] : [columnId]), ...others].some((id) => !known.has(id)))
      return no('evidence', 'Evidence refers to a column that the file does not contain.');
  }
  return null;
}

function verdictObjection({ study, evidence, verdicts }: FileOutline): Objection | null {
  const known = new Set(idsOf(evidence));
  if (verdicts.some((verdict) => verdict.evidence.some((id) => !known.has(id))))
    return no('verdicts', 'A verdict refers to evidence that the file does not contain.');
  const standing = verdicts.filter(({ reopenAt }) => reopenAt === null).length;
  if (standing === (study.state === 'ruled' ? 1 : 0)) return null;
  return no(
    'state',
    study.state === 'ruled'
      ? 'The study is marked as decided, but has no valid verdict.'
      : 'The study is marked as open, but has a valid verdict.',
  );
}

/** What makes a study file one that no sequence of changes could have led to; null where it holds together. */
export function objectionToFile(file: FileOutline): Objection | null {
  const study = studyOf(file);
  return firstOf(
    (function* () {
      yield doubledObjection(file);
      for (const column of file.columns) yield columnObjection(study, column);
      yield roomFor(
        { ...study, rowCount: 0, columns: [] },
        study.rowCount,
        file.columns.filter(({ removed }) => !removed).length,
        'columns',
      );
      const { subject } = file.study;
      if (subject !== null && !file.columns.some(({ id, removed }) => id === subject && !removed))
        yield no('subject', 'The subject is a column that the file does not contain.');
      yield marksObjection(file);
      yield recordObjection(file);
      yield evidenceObjection(file);
      yield verdictObjection(file);
    })(),
  );
}
