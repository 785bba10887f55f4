/**
 * The chain of a study: its changes and the entries of its log, numbered from 1. Each holds SHA-256 of the hash before it and of its own canonical JSON, so that none
 * can be altered, left out or put in without all later hashes being others.
 */
import type { LogDetail, StudyFile } from '../file/study-file.js';
import { canonical, digestOf, sha256Of } from './digest.js';

export type ChangeRow = StudyFile['changes'][number];
export type LogRow = StudyFile['log'][number];
export type EvidenceRow = StudyFile['evidence'][number];
export type VerdictRow = StudyFile['verdicts'][number];

type Unlinked<Row> = Omit<Row, 'entry' | 'hash'>;
/** The number and the hash of an entry. */
export interface Link {
  entry: number;
  hash: string;
}
/** The end of a chain: how many entries it has and the hash of the last one; null while there is none. */
export interface ChainEnd {
  entries: number;
  head: string | null;
}

/** The hash of an entry: of the one before it, a line feed, and its own JSON without its hash. */
export const hashOf = (previous: string | null, { hash: _, ...content }: ChangeRow | LogRow): string =>
  sha256Of(`${previous ?? ''}\n${canonical(content)}`);

/** The entry that follows the end of a chain. */
export function linkAfter<Row extends Unlinked<ChangeRow> | Unlinked<LogRow>>(
  { entries, head }: ChainEnd,
  row: Row,
): Row & Link {
  const entry = entries + 1;
  return { ...row, entry, hash: hashOf(head, { ...row, entry, hash: '' } as unknown as ChangeRow) };
}

/** The digest of what never changes of a piece of evidence. */
export function evidenceContent(piece: EvidenceRow): string {
  const { id, columnId, parts, analysis, version, appVersion, request, fingerprint } = piece;
  const { revision, seed, result, replaces, who, at } = piece;
  return digestOf({
    ...{ id, columnId, parts, analysis, version, appVersion, request, fingerprint },
    ...{ revision, seed, result, replaces, who, at },
  });
}

/** The digest of its words: another version of Verdict may find others for the same result. */
export const evidenceWords = ({ method, finding }: Pick<EvidenceRow, 'method' | 'finding'>): string =>
  digestOf({
    method,
    finding: finding.map(({ text, strong, code }) => ({ text, strong: strong === true, code: code ?? null })),
  });

/** What may be said of a piece of evidence after it was kept. */
export type Arranged = Pick<EvidenceRow, 'note' | 'place' | 'leftOut' | 'leads' | 'answers'>;

export const arrangedOf = ({ note, place, leftOut, leads, answers }: Arranged): Arranged => ({
  ...{ note, place, leftOut, leads, answers },
});

/** A study as it stood when its chain began: everything before is vouched for from then on. */
export type Began = LogDetail['began'];
