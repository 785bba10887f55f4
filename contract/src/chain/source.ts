/** A study as the check of its record reads it: small parts as a whole, cells and changes one piece at a time. */
import type { FileColumn, StudyFile } from '../file/study-file.js';
import {
  arrangedOf,
  evidenceContent,
  evidenceWords,
  type Arranged,
  type ChangeRow,
  type EvidenceRow,
} from './links.js';

/** The cells of a column, in blocks of BLOCK; those that are not written are empty, and a block may be shorter than it could be. */
export interface CellBlocks {
  /** As many as reach the last cell that is written. */
  count: number;
  read(from: number, count: number): Promise<(readonly string[])[]>;
}
/** Cells in a block: a column reads in few rows, an edit writes one. */
export const BLOCK = 1_000;

/** The place of a change in the record and in the chain. */
export type ChangeHead = Pick<ChangeRow, 'revision' | 'entry' | 'hash'>;

/** A piece of evidence with the digests of what it holds. */
export type EvidenceOutline = Pick<EvidenceRow, 'id' | 'analysis' | 'at' | 'replaces'> &
  Arranged & { content: string; words: string };

export interface StudySource extends Pick<StudyFile, 'study' | 'setAside' | 'leftIn' | 'log' | 'verdicts'> {
  columns: readonly FileColumn[];
  evidence: readonly EvidenceOutline[];
  heads: readonly ChangeHead[];
  cells(columnId: string): CellBlocks;
  /** The changes, from the first to the last or back. */
  changes(back: boolean): AsyncIterable<ChangeRow>;
}

export const outlineOf = (piece: EvidenceRow): EvidenceOutline => ({
  ...{ id: piece.id, analysis: piece.analysis, at: piece.at, replaces: piece.replaces },
  ...{ ...arrangedOf(piece), content: evidenceContent(piece), words: evidenceWords(piece) },
});

/** A block of its full length. */
export const filled = (texts: readonly string[]): readonly string[] =>
  texts.length === BLOCK ? texts : [...texts, ...new Array<string>(BLOCK - texts.length).fill('')];
