import {
  auditStudy,
  beganWith,
  chainOf,
  changeSchema,
  evidenceWords,
  faultWords,
  fileWithIds,
  fromOlder,
  linkAfter,
  objectionToFile,
  OUTSIDE_READINGS,
  reopenRequestSchema,
  ruleRequestSchema,
  STUDY_FILE,
  STUDY_FILE_VERSION,
  type Audit,
  type ChainEnd,
  type NewId,
  type StudyFile,
} from '@verdict/contract';
import { analysisById } from '@verdict/core/analyses';
import { methodOf } from '@verdict/core/road';
import { asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { cellsFrom, writeColumn } from './cells.js';
import { originalIds } from './chain.js';
import type { Database, Queries } from './database.js';
import { notFound, StoreError } from './errors.js';
import { APP_VERSION, findingOf } from './evidence.js';
import { changes, columns, evidence, looks, MARKS, type MarkTable, studies, studyLog, verdicts } from './schema.js';

async function columnsWithCells(q: Queries, studyId: string): Promise<StudyFile['columns']> {
  const rows = await q.select().from(columns).where(eq(columns.studyId, studyId)).orderBy(asc(columns.position));
  const result: StudyFile['columns'] = [];
  for (const { studyId: _, ...column } of rows) {
    result.push({ ...column, cells: column.derivation ? [] : await cellsFrom(q, column.id, 0) });
  }
  return result;
}

const timed = <Row extends { studyId: string; at: Date }>({ studyId: _, at, ...row }: Row) => ({
  ...row,
  at: at.toISOString(),
});

/** Everything about a study in one object, read in one consistent view. Its ids are those of its chain. */
export const saveStudy = (db: Database, studyId: string): Promise<StudyFile> =>
  db.transaction((q) => readFile(q, studyId));

export async function readFile(q: Queries, studyId: string): Promise<StudyFile> {
  const [found] = await q.select().from(studies).where(eq(studies.id, studyId));
  if (!found) throw notFound('study');
  const { id, name, question, state, asks, tags, alpha, quantileType, subject, revision, rowCount } = found;
  const marked = (table: MarkTable) => q.select().from(table).where(eq(table.studyId, studyId)).orderBy(asc(table.row));
  const [aside, left] = [await marked(MARKS.aside), await marked(MARKS.leftIn)];
  const record = await q.select().from(changes).where(eq(changes.studyId, studyId)).orderBy(asc(changes.revision));
  const log = await q.select().from(studyLog).where(eq(studyLog.studyId, studyId)).orderBy(asc(studyLog.entry));
  const kept = await q.select().from(evidence).where(eq(evidence.studyId, studyId)).orderBy(asc(evidence.at));
  const looked = await q.select().from(looks).where(eq(looks.studyId, studyId)).orderBy(asc(looks.at));
  const ruled = await q.select().from(verdicts).where(eq(verdicts.studyId, studyId)).orderBy(asc(verdicts.at));
  const file: StudyFile = {
    format: STUDY_FILE,
    version: STUDY_FILE_VERSION,
    app: APP_VERSION,
    savedAt: new Date().toISOString(),
    study: { id, name, question, state, asks, tags, alpha, quantileType, subject, revision, rowCount },
    columns: await columnsWithCells(q, studyId),
    setAside: aside.map(timed),
    leftIn: left.map(timed),
    changes: record.map(timed),
    // Each detail is of its kind: that is how they are written.
    log: log.map(({ evidenceId, ...row }) => ({ ...timed(row), evidence: evidenceId })) as unknown as StudyFile['log'],
    evidence: kept.map(({ recomputedAt: _a, recomputedSame: _b, ...piece }) => timed(piece)),
    verdicts: ruled.map(({ reopenAt, ...verdict }) => ({
      ...timed(verdict),
      reopenAt: reopenAt?.toISOString() ?? null,
    })),
    looks: looked.map(timed),
  };
  return found.origins === null ? file : fileWithIds(file, originalIds(found));
}

/** The study against its record; what was found stands with the study from then on. */
export async function auditStored(db: Database, studyId: string): Promise<{ audit: Audit; chain: ChainEnd[] }> {
  const file = await saveStudy(db, studyId);
  const audit = auditStudy(file);
  await db
    .update(studies)
    .set({ notVerified: notVerifiedOf(audit) })
    .where(eq(studies.id, studyId));
  return { audit, chain: chainOf(file).map(({ entry, hash }) => ({ entries: entry, head: hash })) };
}

const LONGEST_FAULT = 600;
const notVerifiedOf = (audit: Audit) => faultWords(audit)?.slice(0, LONGEST_FAULT) ?? null;

/** New ids for everything in a file: the same study may be opened twice on one installation. */
const renamedIn = (file: StudyFile): Map<string, string> => {
  const ids = [file.study, ...file.columns, ...file.evidence, ...file.verdicts].map(({ id }) => id);
  return new Map(ids.map((id) => [id, randomUUID() as string]));
};

const damaged = (what: string, field: string) =>
  new StoreError('invalid', `The study file is damaged: its record ${what}.`, { field });

/** Refuses a record that this version cannot read. */
function refuseUnreadable({ changes: record }: StudyFile): void {
  for (const { kind, detail, inverse, revision } of record) {
    const field = `changes.${revision}`;
    if (OUTSIDE_READINGS.has(kind)) {
      const schema = { rule: ruleRequestSchema.loose(), reopen: reopenRequestSchema }[kind];
      if (inverse !== null || (schema && !schema.safeParse(detail).success))
        throw damaged('holds a verdict that is not one', field);
      continue;
    }
    const [read, back] = [detail, inverse].map((said) => changeSchema.safeParse(fromOlder(said)));
    if (!read!.success || !back!.success) throw damaged('holds an entry that is not a change', field);
    if (read!.data.kind !== kind) throw damaged('does not say what was done', field);
  }
}

/** The words of a piece of evidence are written from its own request and result, whatever the file says. */
function wordsOf(piece: StudyFile['evidence'][number]): Pick<typeof piece, 'method' | 'finding'> {
  const analysis = analysisById(piece.analysis);
  const request = analysis.request.safeParse(piece.request);
  const method =
    request.success && analysis.version === piece.version
      ? methodOf(analysis, request.data).toWellFormed()
      : piece.method;
  return { method, finding: bare(findingOf(analysis, piece.result, () => null)) };
}

/**
 * The file with what its opening adds to its chain: where it has none, how it stood; that it was opened, and what its check found; and which pieces of evidence have other
 * words now.
 */
function openedFile(file: StudyFile, audit: Audit, who: string, at: string): { file: StudyFile; end: ChainEnd } {
  const log = [...file.log];
  let end: ChainEnd = { entries: audit.entries, head: audit.head };
  const append = (kind: (typeof log)[number]['kind'], detail: object, of: string | null = null) => {
    const row = linkAfter(end, { kind, evidence: of, detail: detail as Record<string, unknown>, who, at });
    end = { entries: row.entry, head: row.hash };
    log.push(row as (typeof log)[number]);
  };
  const worded = file.evidence.map((piece) => ({ ...piece, ...wordsOf(piece) }));
  if (end.entries === 0 && file.columns.length + file.changes.length + file.evidence.length > 0)
    append('began', beganWith(file));
  append('opened', { app: file.app, entries: audit.entries, head: audit.head, fault: notVerifiedOf(audit) });
  for (const [i, piece] of worded.entries()) {
    const words = evidenceWords(piece);
    if (words !== evidenceWords(file.evidence[i]!)) append('worded', { words }, piece.id);
  }
  return { file: { ...file, evidence: worded, log }, end };
}

const inTime = <T extends { at: string }>(row: T) => ({ ...row, at: new Date(row.at) });

/** Rows that go into one statement. */
const AT_ONCE = 200;

async function inPortions<T>(rows: readonly T[], insert: (portion: T[]) => Promise<unknown>): Promise<void> {
  for (let i = 0; i < rows.length; i += AT_ONCE) await insert(rows.slice(i, i + AT_ONCE));
}

/** Opens a saved study as a new one: wholly, or not at all. Returns its id, and what its record does not agree with. */
export async function openStudy(
  db: Database,
  saved: StudyFile,
  who: string,
): Promise<{ id: string; notVerified: string | null }> {
  const objection = objectionToFile(saved);
  if (objection) throw new StoreError('invalid', objection.detail, { field: objection.field });
  refuseUnreadable(saved);
  const at = new Date();
  const audit = auditStudy(saved);
  const { file: whole, end } = openedFile(saved, audit, who, at.toISOString());
  const renamed = renamedIn(whole);
  const to: NewId = (id) => renamed.get(id) ?? id;
  const file = fileWithIds(whole, to);
  const origins = Object.fromEntries([...renamed].map(([old, own]) => [own, old]));
  const studyId = file.study.id;
  const notVerified = notVerifiedOf(audit);
  await db.transaction(async (q) => {
    const changedBy = file.changes.at(-1)?.who ?? null;
    await q
      .insert(studies)
      .values({ ...file.study, ...end, origins, notVerified, changedAt: at, changedBy, openedAt: at });
    await writeFile(q, studyId, file);
  });
  return { id: studyId, notVerified };
}

async function writeFile(q: Queries, studyId: string, file: StudyFile): Promise<void> {
  for (const { cells, ...column } of file.columns) {
    await q.insert(columns).values({ ...column, studyId });
    await writeColumn(q, column.id, cells);
  }
  const own = <Row extends { at: string }>(rows: Row[]) => rows.map((row) => ({ ...inTime(row), studyId }));
  await inPortions(own(file.setAside), (some) => q.insert(MARKS.aside).values(some));
  await inPortions(own(file.leftIn), (some) => q.insert(MARKS.leftIn).values(some));
  await inPortions(own(file.changes), (some) => q.insert(changes).values(some));
  await inPortions(own(file.log), (some) =>
    q.insert(studyLog).values(some.map(({ evidence: evidenceId, ...row }) => ({ ...row, evidenceId }))),
  );
  for (const piece of own(file.evidence)) await q.insert(evidence).values({ ...piece, finding: bare(piece.finding) });
  await inPortions(own(file.looks), (some) => q.insert(looks).values(some));
  for (const { reopenAt, ...verdict } of own(file.verdicts))
    await q.insert(verdicts).values({ ...verdict, reopenAt: reopenAt ? new Date(reopenAt) : null });
}

/** Findings without what is not said. */
const bare = (finding: readonly { text: string; strong?: boolean | undefined; code?: string | undefined }[]) =>
  finding.map(({ text, strong, code }) => ({
    text,
    ...(strong ? { strong } : {}),
    ...(code === undefined ? {} : { code }),
  }));
