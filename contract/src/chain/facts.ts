/** What the record must account for: cells, marks, and what is said about the study and its columns. */
import type { StudyFile } from '../study-file.js';
import { canonical, digestOf, digestOfCells } from './digest.js';

export interface Mark {
  reason: string;
  who: string;
  at: string;
}
type Facts = Record<string, unknown>;

/** A study at one moment of its record. Rows count from 1; a mark stands under its column and row. */
export interface Standing {
  rowCount: number;
  study: Facts;
  columns: Map<string, Facts>;
  cells: Map<string, string[]>;
  aside: Map<string, Mark>;
  leftIn: Map<string, Mark>;
}

export const placeKey = (column: string, row: number): string => `${column}/${row}`;

const marksOf = (marks: StudyFile['setAside']) =>
  new Map(marks.map(({ columnId, row, reason, who, at }) => [placeKey(columnId, row), { reason, who, at }]));

/** The study as a file holds it. */
export function standingOf(file: StudyFile): Standing {
  const { name, question, asks, tags, alpha, quantileType, subject, rowCount } = file.study;
  return {
    rowCount,
    study: { name, question, asks, tags, alpha, quantileType, subject },
    columns: new Map(file.columns.map(({ id, cells: _, position: __, ...facts }) => [id, facts as Facts])),
    cells: new Map(file.columns.map(({ id, cells }) => [id, [...cells]])),
    aside: marksOf(file.setAside),
    leftIn: marksOf(file.leftIn),
  };
}

/** The digest of all that is said about the study and its columns. */
export const factsDigest = ({ study, columns }: Standing): string =>
  digestOf({ study, columns: Object.fromEntries(columns) });

export const marksDigest = ({ aside, leftIn }: Standing): string =>
  digestOf({ aside: Object.fromEntries(aside), leftIn: Object.fromEntries(leftIn) });

export const cellDigests = ({ cells }: Standing): Record<string, string> =>
  Object.fromEntries([...cells].map(([id, own]) => [id, digestOfCells(own)]));

export const same = (a: unknown, b: unknown): boolean => canonical(a ?? null) === canonical(b ?? null);
