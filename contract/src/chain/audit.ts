/** Is a study what its record says? Checks the chain, and then cells, marks, facts, evidence and verdicts against it. */
import { OUTSIDE_READINGS } from '../channels.js';
import { auditEvidence } from './audit-evidence.js';
import { unchainedDigest } from './begin.js';
import { cellDigests, factsDigest, marksDigest, same, standingOf, type Standing } from './facts.js';
import { hashOf, type Began, type ChangeRow, type Link, type LogRow, type VerdictRow } from './links.js';
import type { ChangeHead, StudySource } from './source.js';
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

type Object_ = (entry: number | null, text: string) => void;

/** The place of an entry in the chain; of a change, also its number in the record. */
type Linked = Link & { revision?: number };

/** The entries of the chain in their order. */
export const chainOf = ({ heads, log }: { heads: readonly ChangeHead[]; log: readonly LogRow[] }): Linked[] =>
  [...heads, ...log.map(({ entry, hash }) => ({ entry, hash }))]
    .filter((row): row is Linked => row.entry !== null && row.hash !== null)
    .sort((a, b) => a.entry - b.entry);

const entryName = ({ entry, revision }: Linked) =>
  `entry ${entry}${revision === undefined ? '' : ` (change ${revision})`}`;

/** The hash that stands before each entry; null before the first. An entry that was altered is found once: the next one is checked against the hash that stands there. */
const hashesBefore = (links: readonly Linked[]) =>
  new Map(links.map(({ hash }, i) => [hash, links[i - 1]?.hash ?? null]));

/** @param altered entries whose hash is not that of what they say */
function auditLinks(links: readonly Linked[], altered: ReadonlySet<string>, object: Object_): void {
  let last = 0;
  for (const row of links) {
    const expected = last + 1;
    if (row.entry > expected)
      object(
        expected,
        row.entry === expected + 1
          ? `entry ${expected} is missing.`
          : `entries ${expected} to ${row.entry - 1} are missing.`,
      );
    else if (row.entry < expected) object(row.entry, `there are two entries ${row.entry}.`);
    else if (altered.has(row.hash)) object(row.entry, `${entryName(row)} was altered.`);
    last = row.entry;
  }
}

/** Changes are numbered without a gap, in the order of the chain. */
async function auditRevisions(source: StudySource, began: Began | null, object: Object_): Promise<void> {
  const rows = [...source.heads].sort((a, b) => a.revision - b.revision);
  const unchained = rows.filter(({ entry }) => entry === null);
  let last = { revision: 0, entry: 0 };
  for (const { revision, entry } of rows) {
    if (revision !== last.revision + 1) object(entry, `change ${last.revision + 1} is missing from the record.`);
    if (entry !== null && entry < last.entry) object(entry, `change ${revision} is out of order.`);
    last = { revision, entry: entry ?? last.entry };
  }
  if (last.revision !== source.study.revision)
    object(null, `the record ends with change ${last.revision}, the study is at change ${source.study.revision}.`);
  const chained = rows.length > unchained.length || began;
  if (!chained) return;
  if (unchained.length !== (began?.changes ?? 0)) object(null, 'changes were added or left out outside of the chain.');
  else if (began && (await unchainedDigest(source)) !== began.changesDigest)
    object(1, 'the changes recorded before the chain began were altered.');
}

/** The verdicts as the changes say they were given and reopened. */
function auditVerdicts(
  { study, verdicts }: StudySource,
  rulings: readonly ChangeRow[],
  began: Began | null,
  object: Object_,
): void {
  const expected: VerdictRow[] = (began?.verdicts ?? []).map((verdict) => ({ ...verdict }));
  for (const row of rulings) {
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
  for (const verdict of verdicts) {
    const found = expected.find(({ id }) => id === verdict.id);
    const name = `the verdict of ${verdict.at.slice(0, 16).replace('T', ' ')}`;
    if (!found) object(null, `${name} is not in the record: it was added.`);
    else if (!same(found, verdict)) object(null, `${name} is not as recorded.`);
  }
  if (expected.some(({ id }) => !verdicts.some((verdict) => verdict.id === id)))
    object(null, 'a verdict of the record is missing.');
  const ruled = expected.some(({ reopenAt }) => reopenAt === null);
  if (ruled !== (study.state === 'ruled')) object(null, 'whether the study is decided is not as recorded.');
}

/** What going back through the whole record finds. */
interface Walk {
  /** Hashes that are not those of what their entries say. */
  altered: Set<string>;
  /** Verdicts and reopenings, from the first on. */
  rulings: ChangeRow[];
  now: Standing;
  /** An entry could not be read: what it did is not known. */
  lost: boolean;
}

/** Goes back from the study as it stands to where its chain began, or to where there was nothing; reads every change once. */
async function walkBack(source: StudySource, links: readonly Linked[], object: Object_): Promise<Walk> {
  const before = hashesBefore(links);
  const isAltered = (row: ChangeRow | LogRow) => row.hash !== hashOf(before.get(row.hash!) ?? null, row);
  const altered = new Set(source.log.filter(isAltered).map(({ hash }) => hash));
  const rulings: ChangeRow[] = [];
  const now = standingOf(source);
  await auditEnd(source, now, object);
  let lost = false;
  for await (const row of source.changes(true)) {
    if (row.entry === null) continue;
    if (isAltered(row)) altered.add(row.hash!);
    if (OUTSIDE_READINGS.has(row.kind)) rulings.unshift(row);
    lost ||= !(await guarded(() => takeBack(now, row, (text) => object(row.entry, text)), object));
  }
  return { altered, rulings, now, lost };
}

/** How many rows a table grows by is not written down; that none is cut off with what it holds can be told. */
async function auditEnd({ columns }: StudySource, now: Standing, object: Object_): Promise<void> {
  for (const { id, removed } of columns) {
    if (removed) continue;
    const cells = now.cells.get(id)!;
    if (await cells.anyBehind(now.rowCount)) return object(null, 'the number of rows is not as recorded.');
  }
}

/** Compares the study at the start of its record, reached by undoing every change, with the recorded start. */
async function auditBeginning(now: Standing, began: Began | null, object: Object_): Promise<void> {
  if (began) {
    if (now.rowCount !== began.rowCount) object(1, 'the number of rows is not as recorded.');
    const digests = await cellDigests(now);
    for (const [id, digest] of Object.entries(began.cells))
      if (digests[id] !== digest) object(1, `cells of ${String(now.columns.get(id)?.name ?? id)} are not as recorded.`);
    if (factsDigest(now) !== began.factsDigest)
      object(1, 'names, kinds, limits or other settings are not as recorded.');
    if (marksDigest(now) !== began.marksDigest) object(1, 'the readings set aside or kept are not as recorded.');
    return;
  }
  for (const { name } of now.columns.values()) object(null, `no change added the column ${String(name)}.`);
  if (now.aside.size + now.leftIn.size > 0) object(null, 'readings are marked, but no change marked them.');
  if (now.rowCount !== 0) object(null, 'the number of rows is not as recorded.');
  if (now.study.subject !== null) object(null, 'the subject is not as recorded.');
}

/** Gathers faults; more than MOST_FAULTS are not needed. */
function listed(): { faults: AuditFault[]; object: Object_ } {
  const faults: AuditFault[] = [];
  const object: Object_ = (entry, text) => {
    if (faults.length < MOST_FAULTS) faults.push({ entry, text });
  };
  return { faults, object };
}

/** Checks a study against its record. Without a chain only the numbers of the changes can be checked. */
export async function auditStudy(source: StudySource): Promise<Audit> {
  const links = chainOf(source);
  const first = source.log.find(({ kind }) => kind === 'began');
  const began = first ? (first.detail as unknown as Began) : null;
  const { faults, object } = listed();
  if (links.length === 0) await auditRevisions(source, began, object);
  else {
    const replay = listed();
    const { altered, rulings, now, lost } = await walkBack(source, links, replay.object);
    if (!lost) await guarded(() => auditBeginning(now, began, replay.object), replay.object);
    auditLinks(links, altered, object);
    await auditRevisions(source, began, object);
    await guarded(() => auditEvidence(source, began, object), object);
    await guarded(() => auditVerdicts(source, rulings, began, object), object);
    for (const { entry, text } of replay.faults) object(entry, text);
  }
  const end = links.at(-1);
  return {
    ...{ entries: end?.entry ?? 0, head: end?.hash ?? null },
    earlier: source.heads.filter(({ entry }) => entry === null).length,
    faults,
  };
}

/** An altered entry may be of no form that can be read. False where it is. */
async function guarded(check: () => void | Promise<void>, object: Object_): Promise<boolean> {
  try {
    await check();
    return true;
  } catch (error) {
    // What fails on the way to the database is no fault of the record.
    if (!(error instanceof TypeError || error instanceof RangeError)) throw error;
    object(null, 'the record holds an entry that cannot be read.');
    return false;
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
