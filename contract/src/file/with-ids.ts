import type { Began, ChangeRow, EvidenceRow, LogRow, VerdictRow } from '../chain/links.js';
import { OUTSIDE_READINGS } from '../channels.js';
import type { Change } from '../changes.js';
import type { PartsBy } from '../evidence.js';
import { changeWithIds, followsWithIds, type NewId } from '../new-ids.js';
import { fromOlder } from '../older-changes.js';
import type { LISTED, ListName, LogDetail, StudyFile } from './study-file.js';
import type { z } from 'zod';

const orNull = (id: string | null, to: NewId) => (id === null ? null : to(id));
const keyed = <T>(of: Record<string, T>, to: NewId): Record<string, T> =>
  Object.fromEntries(Object.entries(of).map(([id, value]) => [to(id), value]));

/** A change, a verdict or its reopening as the record holds it; nothing takes a verdict back. */
function recordedWithIds(kind: string, said: unknown, to: NewId): unknown {
  if (said === null) return null;
  if (kind === 'rule') {
    const ruling = said as { evidence: string[] };
    return { ...ruling, evidence: ruling.evidence.map(to) };
  }
  return OUTSIDE_READINGS.has(kind) ? said : changeWithIds(fromOlder(said) as Change, to);
}

export const changeRowWithIds = <Row extends Omit<ChangeRow, 'entry' | 'hash'>>(row: Row, to: NewId): Row => ({
  ...row,
  detail: recordedWithIds(row.kind, row.detail, to),
  inverse: recordedWithIds(row.kind, row.inverse, to),
  placeColumn: orNull(row.placeColumn, to),
  cells: row.cells && keyed(row.cells, to),
});

function partsWithIds(parts: PartsBy | null, to: NewId): PartsBy | null {
  if (parts === null) return null;
  return 'split' in parts ? { split: to(parts.split) } : { beside: parts.beside.map(to) };
}

export const evidenceWithIds = <Row extends Pick<EvidenceRow, 'id' | 'columnId' | 'parts' | 'replaces'>>(
  piece: Row,
  to: NewId,
): Row => ({
  ...{ ...piece, id: to(piece.id), columnId: orNull(piece.columnId, to), parts: partsWithIds(piece.parts, to) },
  replaces: orNull(piece.replaces, to),
});

const markWithIds = (mark: StudyFile['setAside'][number], to: NewId) => ({ ...mark, columnId: to(mark.columnId) });

const verdictWithIds = (verdict: VerdictRow, to: NewId): VerdictRow => ({
  ...{ ...verdict, id: to(verdict.id), evidence: verdict.evidence.map(to) },
});

function beganWithIds(began: Began, to: NewId): Began {
  return {
    ...began,
    evidence: began.evidence.map((piece) => ({ ...piece, id: to(piece.id) })),
    verdicts: began.verdicts.map((verdict) => verdictWithIds(verdict, to)),
    cells: keyed(began.cells, to),
  };
}

function detailWithIds(kind: LogRow['kind'], detail: LogRow['detail'], to: NewId): LogRow['detail'] {
  if (kind === 'began') return { ...beganWithIds(detail as unknown as Began, to) };
  if (kind === 'ordered') return { order: (detail as unknown as LogDetail['ordered']).order.map(to) };
  return detail;
}

export const logRowWithIds = <Row extends Omit<LogRow, 'entry' | 'hash'>>(row: Row, to: NewId): Row => ({
  ...{ ...row, evidence: orNull(row.evidence, to), detail: detailWithIds(row.kind, row.detail, to) },
});

/** The pieces of a study file under other ids. Ids are replaced where they are ids, never in a text. */
export const WITH_IDS: { [K in ListName]: (piece: StudyPiece<K>, to: NewId) => StudyPiece<K> } = {
  columns: (column, to) => ({ ...followsWithIds(column, to), id: to(column.id) }),
  setAside: markWithIds,
  leftIn: markWithIds,
  changes: changeRowWithIds,
  log: logRowWithIds,
  evidence: evidenceWithIds,
  verdicts: verdictWithIds,
  looks: (look, to) => ({ ...look, columnId: orNull(look.columnId, to) }),
};
type StudyPiece<K extends ListName> = z.infer<(typeof LISTED)[K]>;

export const studyWithIds = <Study extends Pick<StudyFile['study'], 'id' | 'subject'>>(
  study: Study,
  to: NewId,
): Study => ({
  ...{ ...study, id: to(study.id), subject: orNull(study.subject, to) },
});
