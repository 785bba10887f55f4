/** Is a study what its record says? Checks the chain, and then cells, marks, facts, evidence and verdicts against it. */
import type { StudyFile } from '../study-file.js';
import { auditEvidence } from './audit-evidence.js';
import { unchainedDigest } from './begin.js';
import { cellDigests, factsDigest, marksDigest, same, standingOf } from './facts.js';
import { hashOf, type Began, type ChangeRow, type LogRow, type VerdictRow } from './links.js';
import { takeBack } from './take-back.js';

export interface AuditFault {
  /** The entry of the chain that is at fault; null where none is. */
  entry: number | null;
  text: string;
}

export interface Audit {
  /** Entries of the chain. */
  entries: number;
  /** The hash of the last one; null where there is no chain. */
  head: string | null;
  /** Changes that were recorded before the chain began: vouched for from then on only. */
  earlier: number;
  faults: AuditFault[];
}

/** More are not listed one by one. */
const MOST_FAULTS = 20;

type Row = ChangeRow | LogRow;
type Linked = Row & { entry: number; hash: string };
type Object_ = (entry: number | null, text: string) => void;

const isChange = (row: Row): row is ChangeRow => 'revision' in row;

/** The entries of the chain in their order. */
export const chainOf = ({ changes, log }: Pick<StudyFile, 'changes' | 'log'>): Linked[] =>
  [...changes, ...log]
    .filter((row): row is Linked => row.entry !== null && row.hash !== null)
    .sort((a, b) => a.entry - b.entry);

const entryName = (row: Linked) => `entry ${row.entry}${isChange(row) ? ` (change ${row.revision})` : ''}`;

/** Follows the hashes. An entry that was altered is named once: the next one is checked against the hash that stands there. */
function auditLinks(links: readonly Linked[], object: Object_): void {
  let previous: { entry: number; hash: string } | null = null;
  for (const row of links) {
    const expected: number = (previous?.entry ?? 0) + 1;
    if (row.entry > expected)
      object(
        expected,
        row.entry === expected + 1
          ? `entry ${expected} is missing.`
          : `entries ${expected} to ${row.entry - 1} are missing.`,
      );
    else if (row.entry < expected) object(row.entry, `there are two entries ${row.entry}.`);
    else if (row.hash !== hashOf(previous?.hash ?? null, row)) object(row.entry, `${entryName(row)} was altered.`);
    previous = row;
  }
}

/** Changes are numbered without a gap, in the order of the chain. */
function auditRevisions({ study, changes }: StudyFile, began: Began | null, object: Object_): void {
  const rows = [...changes].sort((a, b) => a.revision - b.revision);
  const unchained = rows.filter(({ entry }) => entry === null);
  let last = { revision: 0, entry: 0 };
  for (const { revision, entry } of rows) {
    if (revision !== last.revision + 1) object(entry, `change ${last.revision + 1} is missing from the record.`);
    if (entry !== null && entry < last.entry) object(entry, `change ${revision} is not in its place.`);
    last = { revision, entry: entry ?? last.entry };
  }
  if (last.revision !== study.revision)
    object(null, `the record ends with change ${last.revision}, the study is at change ${study.revision}.`);
  const chained = rows.length > unchained.length || began;
  if (!chained) return;
  if (unchained.length !== (began?.changes ?? 0)) object(null, 'changes were added or left out outside of the chain.');
  else if (began && unchainedDigest(unchained) !== began.changesDigest)
    object(1, 'the changes recorded before the chain began were altered.');
}

/** The verdicts as the changes say they were given and reopened. */
function auditVerdicts(file: StudyFile, began: Began | null, object: Object_): void {
  const expected: VerdictRow[] = (began?.verdicts ?? []).map((verdict) => ({ ...verdict }));
  for (const row of file.changes) {
    if (row.entry === null) continue;
    if (row.kind === 'rule') {
      const { revision: _, ...said } = row.detail as Record<string, unknown> & { revision: number };
      const reopened = { reopenReason: null, reopenWho: null, reopenAt: null };
      expected.push({
        ...said,
        ...reopened,
        id: row.token,
        revision: row.revision - 1,
        at: row.at,
      } as unknown as VerdictRow);
    }
    const standing = expected.find(({ reopenAt }) => reopenAt === null);
    if (row.kind === 'reopen' && standing)
      Object.assign(standing, { reopenReason: row.reason, reopenWho: row.who, reopenAt: row.at });
  }
  for (const verdict of file.verdicts) {
    const found = expected.find(({ id }) => id === verdict.id);
    const name = `the verdict of ${verdict.at.slice(0, 16).replace('T', ' ')}`;
    if (!found) object(null, `${name} is not in the record: it was added.`);
    else if (!same(found, verdict)) object(null, `${name} is not as recorded.`);
  }
  if (expected.some(({ id }) => !file.verdicts.some((verdict) => verdict.id === id)))
    object(null, 'a verdict of the record is missing.');
  const ruled = expected.some(({ reopenAt }) => reopenAt === null);
  if (ruled !== (file.study.state === 'ruled')) object(null, 'whether the study is decided is not as recorded.');
}

/** Goes back from the study as it stands to where its chain began, or to where there was nothing. */
function auditReplay(file: StudyFile, began: Began | null, object: Object_): void {
  const now = standingOf(file);
  // How many rows a table grows by is not written down; that none is cut off with what it holds can be told.
  const cut = file.columns.some(
    ({ removed, cells }) => !removed && cells.slice(now.rowCount).some((text) => text !== ''),
  );
  if (cut) object(null, 'the number of rows is not as recorded.');
  const rows = file.changes.filter(({ entry }) => entry !== null).sort((a, b) => b.revision - a.revision);
  for (const row of rows) takeBack(now, row, (text) => object(row.entry, text));
  if (began) {
    if (now.rowCount !== began.rowCount) object(1, 'the number of rows is not as recorded.');
    const digests = cellDigests(now);
    for (const [id, digest] of Object.entries(began.cells))
      if (digests[id] !== digest) object(1, `cells of ${String(now.columns.get(id)?.name ?? id)} are not as recorded.`);
    if (factsDigest(now) !== began.factsDigest)
      object(1, 'names, kinds, limits or other settings are not as recorded.');
    if (marksDigest(now) !== began.marksDigest) object(1, 'the readings set aside or left in are not as recorded.');
    return;
  }
  for (const { name } of now.columns.values()) object(null, `no change added the column ${String(name)}.`);
  if (now.aside.size + now.leftIn.size > 0) object(null, 'readings are marked that no change marked.');
  if (now.rowCount !== 0) object(null, 'the number of rows is not as recorded.');
  if (now.study.subject !== null) object(null, 'the subject is not as recorded.');
}

/** Checks a study against its record. Without a chain only the numbers of the changes can be checked. */
export function auditStudy(file: StudyFile): Audit {
  const links = chainOf(file);
  const first = file.log.find(({ kind }) => kind === 'began');
  const began = first ? (first.detail as unknown as Began) : null;
  const faults: AuditFault[] = [];
  const object: Object_ = (entry, text) => {
    if (faults.length < MOST_FAULTS) faults.push({ entry, text });
  };
  auditLinks(links, object);
  auditRevisions(file, began, object);
  if (links.length > 0) {
    guarded(() => auditEvidence(file, began, object), object);
    guarded(() => auditVerdicts(file, began, object), object);
    guarded(() => auditReplay(file, began, object), object);
  }
  const end = links.at(-1);
  return {
    ...{ entries: end?.entry ?? 0, head: end?.hash ?? null },
    earlier: file.changes.filter(({ entry }) => entry === null).length,
    faults,
  };
}

/** An altered entry may be of no form that can be read. */
function guarded(check: () => void, object: Object_): void {
  try {
    check();
  } catch {
    object(null, 'the record holds an entry that cannot be read.');
  }
}

/** The first fault in a sentence, as a page or a sheet says it; null where there is none. */
export function faultWords({ faults }: Audit): string | null {
  const [first] = faults;
  if (!first) return null;
  const more =
    faults.length > 1 ? ` ${faults.length - 1}${faults.length === MOST_FAULTS ? ' or more' : ''} further.` : '';
  const where = first.entry === null || first.text.startsWith(`entr`) ? '' : `entry ${first.entry}: `;
  return `${where}${first.text}${more}`;
}
