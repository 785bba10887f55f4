import {
  auditStudy,
  beganWith,
  evidenceWords,
  linkAfter,
  piecesOf,
  studyWithIds,
  WITH_IDS,
  type Audit,
  type ChainEnd,
  type LogDetail,
  type NewId,
  type Piece,
  type StudyFile,
  type StudySource,
} from '@verdict/contract';
import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { notVerifiedOf } from './audit-stored.js';
import { BlockWriter } from './block-writer.js';
import type { Database, Queries } from './database.js';
import { StoreError } from './errors.js';
import { knownFile, type KnownFile } from './known-file.js';
import { cellsOf, changesOf, headsOf } from './recorded.js';
import { changes, columns, evidence, looks, MARKS, studies, studyLog, verdicts } from './schema.js';

/** New ids for everything in a file: the same study may be opened twice on one installation. */
const renamedIn = ({ head, columns: all, evidence: kept, verdicts: ruled }: KnownFile): Map<string, string> =>
  new Map([head.study, ...all, ...kept, ...ruled].map(({ id }) => [id, randomUUID()]));

const inTime = <T extends { at: string }>(row: T) => ({ ...row, at: new Date(row.at) });

/** Rows that go into one statement, and their characters. */
const AT_ONCE = 200;
const LENGTH_AT_ONCE = 4_000_000;

async function inPortions<T>(rows: readonly T[], insert: (portion: T[]) => Promise<unknown>): Promise<void> {
  for (let i = 0; i < rows.length; i += AT_ONCE) await insert(rows.slice(i, i + AT_ONCE));
}

type ChangeRow = StudyFile['changes'][number];

/** What is stored of a file during the second reading. */
class Writing {
  readonly #cells: BlockWriter;
  #changes: ChangeRow[] = [];
  #length = 0;

  constructor(
    private readonly q: Queries,
    private readonly studyId: string,
    private readonly file: KnownFile,
    private readonly to: NewId,
  ) {
    this.#cells = new BlockWriter(q);
  }

  async take(piece: Piece): Promise<void> {
    const { q, studyId, file, to } = this;
    if (piece.of === 'cells') await this.#cells.add(to(file.columns[piece.column]!.id), piece.texts);
    else if (piece.of === 'evidence') {
      const words = file.words.get(piece.value.id)!;
      await q.insert(evidence).values({ ...inTime(WITH_IDS.evidence(piece.value, to)), ...words, studyId });
    } else if (piece.of === 'changes') {
      this.#changes.push(WITH_IDS.changes(piece.value, to));
      this.#length +=
        JSON.stringify(piece.value.detail ?? null).length + JSON.stringify(piece.value.inverse ?? null).length;
      if (this.#changes.length === AT_ONCE || this.#length > LENGTH_AT_ONCE) await this.#writeChanges();
    }
  }

  async #writeChanges(): Promise<void> {
    const rows = this.#changes.map((row) => ({ ...inTime(row), studyId: this.studyId }));
    [this.#changes, this.#length] = [[], 0];
    await inPortions(rows, (some) => this.q.insert(changes).values(some));
  }

  async end(): Promise<void> {
    await this.#cells.end();
    await this.#writeChanges();
  }
}

/** Stores the small parts of a file. */
async function writeSmall(q: Queries, studyId: string, file: KnownFile, to: NewId): Promise<void> {
  const own = <Row extends { at: string }>(rows: Row[]) => rows.map((row) => ({ ...inTime(row), studyId }));
  await inPortions(file.columns, (some) =>
    q.insert(columns).values(some.map(({ reach: _, ...column }) => ({ ...WITH_IDS.columns(column, to), studyId }))),
  );
  const marks = (rows: StudyFile['setAside']) => own(rows.map((row) => WITH_IDS.setAside(row, to)));
  await inPortions(marks(file.setAside), (some) => q.insert(MARKS.aside).values(some));
  await inPortions(marks(file.leftIn), (some) => q.insert(MARKS.leftIn).values(some));
  await writeLog(q, studyId, file.log, to);
  await inPortions(own(file.looks.map((row) => WITH_IDS.looks(row, to))), (some) => q.insert(looks).values(some));
  for (const { reopenAt, ...verdict } of own(file.verdicts.map((row) => WITH_IDS.verdicts(row, to))))
    await q.insert(verdicts).values({ ...verdict, reopenAt: reopenAt ? new Date(reopenAt) : null });
}

type LogRow = StudyFile['log'][number];

const writeLog = (q: Queries, studyId: string, log: readonly LogRow[], to: NewId): Promise<void> =>
  inPortions(log, (some) =>
    q.insert(studyLog).values(
      some.map((entry) => {
        const { evidence: evidenceId, ...row } = WITH_IDS.log(entry, to);
        return { ...inTime(row), studyId, evidenceId };
      }),
    ),
  );

/**
 * What the opening of a file adds to its chain: where it has none, how it stood; that it was opened, and what its check found; and which pieces of evidence have
 * other words now.
 */
async function openedLog(
  file: KnownFile,
  source: StudySource,
  audit: Audit,
  { who, at }: { who: string; at: string },
): Promise<{ log: LogRow[]; end: ChainEnd }> {
  const log: LogRow[] = [];
  let end: ChainEnd = { entries: audit.entries, head: audit.head };
  function append<K extends LogRow['kind']>(kind: K, detail: LogDetail[K], of: string | null = null) {
    const row = linkAfter(end, { kind, evidence: of, detail: { ...detail } as never, who, at });
    end = { entries: row.entry, head: row.hash };
    log.push(row as unknown as LogRow);
  }
  if (end.entries === 0 && file.columns.length + file.changes.length + file.evidence.length > 0)
    append('began', await beganWith(source));
  append('opened', {
    ...{ app: file.head.app, entries: audit.entries, head: audit.head, fault: notVerifiedOf(audit) },
  });
  for (const { id, words } of file.evidence) {
    const now = evidenceWords(file.words.get(id)!);
    if (now !== words) append('worded', { words: now }, id);
  }
  return { log, end };
}

/**
 * Opens a saved study as a new one: wholly, or not at all. It is read twice: first to see that it holds together, then to store it.
 * @param file its bytes, from the beginning each time
 * @returns its id, and what its record does not agree with
 */
export async function openStudy(
  db: Database,
  file: () => AsyncIterable<Uint8Array>,
  who: string,
): Promise<{ id: string; notVerified: string | null }> {
  const known = await knownFile(piecesOf(file())).catch((error: unknown) => {
    if (!(error instanceof SyntaxError)) throw error;
    throw new StoreError('not-json', 'The study file is damaged or incomplete. Save it again from its source.');
  });
  const at = new Date();
  const renamed = renamedIn(known);
  const to: NewId = (id) => renamed.get(id) ?? id;
  const origins = Object.fromEntries([...renamed].map(([old, own]) => [own, old]));
  const study = studyWithIds(known.head.study, to);
  return db.transaction(async (q) => {
    const changedBy = known.changes.at(-1)?.who ?? null;
    await q.insert(studies).values({ ...study, origins, changedAt: at, changedBy, openedAt: at });
    await writeSmall(q, study.id, known, to);
    const writing = new Writing(q, study.id, known, to);
    for await (const piece of piecesOf(file())) await writing.take(piece);
    await writing.end();
    const source = await storedFile(q, study.id, known, { to, from: (id) => origins[id] ?? id });
    const audit = await auditStudy(source);
    const { log, end } = await openedLog(known, source, audit, { who, at: at.toISOString() });
    await writeLog(q, study.id, log, to);
    const notVerified = notVerifiedOf(audit);
    await q
      .update(studies)
      .set({ ...end, notVerified })
      .where(eq(studies.id, study.id));
    return { id: study.id, notVerified };
  });
}

/** The file as the check of its record reads it, once its cells and changes are stored. */
async function storedFile(
  q: Queries,
  studyId: string,
  { head, columns: all, setAside, leftIn, log, verdicts: ruled, evidence: kept }: KnownFile,
  { to, from }: { to: NewId; from: NewId },
): Promise<StudySource> {
  const heads = await headsOf(q, studyId);
  const cells = await cellsOf(
    q,
    all.map(({ id }) => to(id)),
  );
  return {
    ...{
      study: head.study,
      columns: all.map(({ reach: _, ...facts }) => facts),
      setAside,
      leftIn,
      log,
      verdicts: ruled,
    },
    ...{ evidence: kept, heads, cells: (id) => cells(to(id)) },
    changes: (back) => changesOf(q, studyId, heads, from, back),
  };
}
