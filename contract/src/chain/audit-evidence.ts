import type { LogDetail } from '../file/study-file.js';
import { same } from './facts.js';
import { arrangedOf, type Arranged, type Began, type LogRow } from './links.js';
import type { EvidenceOutline, StudySource } from './source.js';

/** A piece of evidence as the log has it. */
interface Logged extends Arranged {
  entry: number;
  content: string;
  words: string;
}

const FRESH: Arranged = { note: '', place: null, leftOut: false, leads: false, answers: [] };

function kept(all: Map<string, Logged>, { entry, evidence, detail }: LogRow, piece: EvidenceOutline | undefined): void {
  const before = piece?.replaces ? all.get(piece.replaces) : undefined;
  const { content, words, note } = detail as unknown as LogDetail['kept'];
  const taken = { place: before?.place ?? null, leads: before?.leads ?? false };
  if (before) Object.assign(before, { leftOut: true, leads: false });
  all.set(evidence!, { ...FRESH, ...taken, entry, content, words, note });
}

function said(all: Map<string, Logged>, { evidence, detail }: LogRow): void {
  const piece = all.get(evidence!);
  if (!piece) return;
  const { answer, ...rest } = detail as LogDetail['said'];
  if (rest.leads) for (const other of all.values()) other.leads = false;
  Object.assign(piece, rest);
  if (!answer) return;
  const others = piece.answers.filter(({ to }) => to !== answer.to);
  piece.answers = answer.words === '' ? others : [...others, answer];
}

/** What the log says of all evidence, from its beginning to its end. */
function logged(source: StudySource, began: Began | null): Map<string, Logged> {
  const pieces = new Map(source.evidence.map((piece) => [piece.id, piece]));
  const all = new Map<string, Logged>();
  for (const { id, ...piece } of began?.evidence ?? []) all.set(id, { ...piece, entry: 1 });
  for (const row of [...source.log].sort((a, b) => a.entry - b.entry)) {
    if (row.kind === 'kept') kept(all, row, pieces.get(row.evidence!));
    if (row.kind === 'said') said(all, row);
    const { order = [], words } = row.detail as Partial<LogDetail['ordered'] & LogDetail['worded']>;
    if (row.kind === 'ordered') for (const [place, id] of order.entries()) Object.assign(all.get(id) ?? {}, { place });
    if (row.kind === 'worded') Object.assign(all.get(row.evidence!) ?? {}, { words });
  }
  return all;
}

/** Compares the evidence with what the log says of it. */
export function auditEvidence(
  source: StudySource,
  began: Began | null,
  object: (entry: number | null, text: string) => void,
): void {
  const all = logged(source, began);
  for (const piece of source.evidence) {
    const found = all.get(piece.id);
    const name = `the evidence "${piece.analysis}" of ${piece.at.slice(0, 16).replace('T', ' ')}`;
    if (!found) {
      object(null, `${name} is not in the log: it was added.`);
      continue;
    }
    all.delete(piece.id);
    if (found.content !== piece.content) object(found.entry, `${name} was altered.`);
    else if (found.words !== piece.words) object(found.entry, `the finding of ${name} was altered.`);
    if (!same(arrangedOf(found), arrangedOf(piece)))
      object(found.entry, `the notes, answers or order of ${name} are not as recorded.`);
  }
  for (const { entry } of all.values()) object(entry, 'the evidence that was kept here is missing.');
}
