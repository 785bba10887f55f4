import { fromOlder } from '../older-changes.js';
import { ListDigest } from './digest.js';
import { cellDigests, factsDigest, marksDigest, standingOf } from './facts.js';
import { arrangedOf, type Began } from './links.js';
import type { StudySource } from './source.js';

/** The digest of changes that have no place in the chain of their own, in the form of today. */
export async function unchainedDigest(source: StudySource): Promise<string> {
  const digest = new ListDigest();
  for await (const { entry, hash: _, detail, inverse, ...change } of source.changes(false))
    if (entry === null) digest.add({ ...change, detail: fromOlder(detail), inverse: fromOlder(inverse) });
  return digest.end();
}

/** What the first entry of a chain says of a study that had a record before. */
export async function beganWith(source: StudySource): Promise<Began> {
  const now = standingOf(source);
  return {
    changes: source.heads.length,
    changesDigest: await unchainedDigest(source),
    evidence: source.evidence.map((piece) => ({
      ...{ id: piece.id, content: piece.content, words: piece.words },
      ...arrangedOf(piece),
    })),
    verdicts: source.verdicts,
    rowCount: now.rowCount,
    cells: await cellDigests(now),
    factsDigest: factsDigest(now),
    marksDigest: marksDigest(now),
  };
}
