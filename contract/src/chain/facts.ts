/** The facts that the record must explain: cells, marks, and the settings of the study and its columns. */
import type { StudyFile } from '../file/study-file.js';
import { Cells } from './cells.js';
import { canonical, digestOf } from './digest.js';
import type { StudySource } from './source.js';

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
  cells: Map<string, Cells>;
  aside: Map<string, Mark>;
  leftIn: Map<string, Mark>;
}

export const placeKey = (column: string, row: number): string => `${column}/${row}`;

const marksOf = (marks: StudyFile['setAside']) =>
  new Map(marks.map(({ columnId, row, reason, who, at }) => [placeKey(columnId, row), { reason, who, at }]));

/** The study as it stands. */
export function standingOf(source: StudySource): Standing {
  const { name, question, asks, tags, alpha, quantileType, subject, rowCount } = source.study;
  return {
    rowCount,
    study: { name, question, asks, tags, alpha, quantileType, subject },
    columns: new Map(source.columns.map(({ id, position: _, ...facts }) => [id, { ...facts }])),
    cells: new Map(source.columns.map(({ id }) => [id, new Cells(source.cells(id))])),
    aside: marksOf(source.setAside),
    leftIn: marksOf(source.leftIn),
  };
}

/** The digest of all that is said about the study and its columns. */
export const factsDigest = ({ study, columns }: Standing): string =>
  digestOf({ study, columns: Object.fromEntries(columns) });

export const marksDigest = ({ aside, leftIn }: Standing): string =>
  digestOf({ aside: Object.fromEntries(aside), leftIn: Object.fromEntries(leftIn) });

export async function cellDigests({ cells }: Standing): Promise<Record<string, string>> {
  const digests: Record<string, string> = {};
  for (const [id, own] of cells) digests[id] = await own.digest();
  return digests;
}

export const same = (a: unknown, b: unknown): boolean => canonical(a ?? null) === canonical(b ?? null);
