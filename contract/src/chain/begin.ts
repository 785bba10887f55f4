import { fromOlder } from '../older-changes.js';
import type { StudyFile } from '../study-file.js';
import { digestOf } from './digest.js';
import { cellDigests, factsDigest, marksDigest, standingOf } from './facts.js';
import { arrangedOf, evidenceContent, evidenceWords, type Began, type ChangeRow } from './links.js';

/** The digest of changes that have no place in the chain of their own, in the form of today. */
export const unchainedDigest = (changes: readonly ChangeRow[]): string =>
  digestOf(
    changes.map(({ entry: _, hash: __, detail, inverse, ...change }) => ({
      ...change,
      detail: fromOlder(detail),
      inverse: fromOlder(inverse),
    })),
  );

/** What the first entry of a chain says of a study that had a record before. */
export function beganWith(file: StudyFile): Began {
  const now = standingOf(file);
  return {
    changes: file.changes.length,
    changesDigest: unchainedDigest(file.changes),
    evidence: file.evidence.map((piece) => ({
      ...{ id: piece.id, content: evidenceContent(piece), words: evidenceWords(piece) },
      ...arrangedOf(piece),
    })),
    verdicts: file.verdicts,
    rowCount: now.rowCount,
    cells: cellDigests(now),
    factsDigest: factsDigest(now),
    marksDigest: marksDigest(now),
  };
}
