import {
  changeSchema,
  changeWithIds,
  followsWithIds,
  objectionToFile,
  reopenRequestSchema,
  ruleRequestSchema,
  STUDY_FILE,
  STUDY_FILE_VERSION,
  type Change,
  type NewId,
  type PartsBy,
  type ReopenRequest,
  type RuleRequest,
  type StudyFile,
} from '@verdict/contract';
import { analysisById } from '@verdict/core/analyses';
import { methodOf } from '@verdict/core/road';
import { asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { cellsFrom, writeColumn } from './cells.js';
import type { Database, Queries } from './database.js';
import { fromOlder } from './history.js';
import { notFound, StoreError } from './errors.js';
import { APP_VERSION, findingOf } from './evidence.js';
import { changes, columns, evidence, looks, MARKS, type MarkTable, studies, verdicts } from './schema.js';

async function columnsWithCells(q: Queries, studyId: string): Promise<StudyFile['columns']> {
  const rows = await q.select().from(columns).where(eq(columns.studyId, studyId)).orderBy(asc(columns.position));
  const result: StudyFile['columns'] = [];
  for (const { studyId: _, ...column } of rows) {
    result.push({ ...column, cells: column.derivation ? [] : await cellsFrom(q, column.id, 0) });
  }
  return result;
}

/** Everything about a study in one object, read in one consistent view. */
export async function saveStudy(db: Database, studyId: string): Promise<StudyFile> {
  return db.transaction(async (q) => {
    const [found] = await q.select().from(studies).where(eq(studies.id, studyId));
    if (!found) throw notFound('study');
    const { id, name, question, state, asks, tags, alpha, quantileType, subject, revision, rowCount } = found;
    const marked = (table: MarkTable) =>
      q.select().from(table).where(eq(table.studyId, studyId)).orderBy(asc(table.row));
    const [aside, left] = [await marked(MARKS.aside), await marked(MARKS.leftIn)];
    const record = await q.select().from(changes).where(eq(changes.studyId, studyId)).orderBy(asc(changes.revision));
    const kept = await q.select().from(evidence).where(eq(evidence.studyId, studyId)).orderBy(asc(evidence.at));
    const looked = await q.select().from(looks).where(eq(looks.studyId, studyId)).orderBy(asc(looks.at));
    const ruled = await q.select().from(verdicts).where(eq(verdicts.studyId, studyId)).orderBy(asc(verdicts.at));
    return {
      format: STUDY_FILE,
      version: STUDY_FILE_VERSION,
      app: APP_VERSION,
      savedAt: new Date().toISOString(),
      study: { id, name, question, state, asks, tags, alpha, quantileType, subject, revision, rowCount },
      columns: await columnsWithCells(q, studyId),
      setAside: aside.map(({ studyId: _s, at, ...reading }) => ({ ...reading, at: at.toISOString() })),
      leftIn: left.map(({ studyId: _s, at, ...reading }) => ({ ...reading, at: at.toISOString() })),
      changes: record.map(({ studyId: _s, at, ...change }) => ({ ...change, at: at.toISOString() })),
      evidence: kept.map(({ studyId: _s, recomputedAt: _a, recomputedSame: _b, at, ...piece }) => ({
        ...piece,
        at: at.toISOString(),
      })),
      verdicts: ruled.map(({ studyId: _s, at, reopenAt, ...verdict }) => ({
        ...verdict,
        at: at.toISOString(),
        reopenAt: reopenAt?.toISOString() ?? null,
      })),
      looks: looked.map(({ studyId: _s, at, ...look }) => ({ ...look, at: at.toISOString() })),
    };
  });
}

const renamedIn = (file: StudyFile): NewId => {
  const ids = [file.study, ...file.columns, ...file.evidence, ...file.verdicts].map(({ id }) => id);
  const renamed = new Map(ids.map((id) => [id, randomUUID() as string]));
  return (id) => renamed.get(id) ?? id;
};

const orNull = (id: string | null, to: NewId) => (id === null ? null : to(id));

/** A recorded change as this version reads it; refuses what is none. */
function recordedChange(change: unknown, field: string): Change {
  const read = changeSchema.safeParse(fromOlder(change));
  if (read.success) return read.data;
  throw new StoreError('invalid', 'The study file is damaged: its record holds what is no change.', { field });
}

/** A verdict or its reopening as it stands in the record: it names evidence, and nothing takes it back. */
function ruling({ kind, detail, inverse }: StudyFile['changes'][number], field: string, to: NewId) {
  const schema = kind === 'rule' ? ruleRequestSchema : reopenRequestSchema;
  const read = schema.safeParse(detail);
  if (!read.success || inverse !== null) {
    throw new StoreError('invalid', 'The study file is damaged: its record holds a verdict that is none.', { field });
  }
  const said = read.data as RuleRequest | ReopenRequest;
  return { detail: 'evidence' in said ? { ...said, evidence: said.evidence.map(to) } : said, inverse: null };
}

function changeUnderNewIds(change: StudyFile['changes'][number], to: NewId): StudyFile['changes'][number] {
  const field = `changes.${change.revision}`;
  const placeColumn = orNull(change.placeColumn, to);
  if (change.kind === 'rule' || change.kind === 'reopen')
    return { ...change, placeColumn, ...ruling(change, field, to) };
  const detail = changeWithIds(recordedChange(change.detail, field), to);
  if (detail.kind !== change.kind)
    throw new StoreError('invalid', 'The study file is damaged: its record does not say what was done.', { field });
  return { ...change, placeColumn, detail, inverse: changeWithIds(recordedChange(change.inverse, field), to) };
}

function partsUnderNewIds(parts: PartsBy | null, to: NewId): PartsBy | null {
  if (parts === null) return null;
  return 'split' in parts ? { split: to(parts.split) } : { beside: parts.beside.map(to) };
}

/** The words of a piece of evidence are written from its own request and result, whatever the file says. */
function wordsOf(piece: StudyFile['evidence'][number]) {
  const analysis = analysisById(piece.analysis);
  const request = analysis.request.safeParse(piece.request);
  const method =
    request.success && analysis.version === piece.version ? methodOf(analysis, request.data) : piece.method;
  return { method, finding: findingOf(analysis, piece.result, () => null) };
}

/** The file under new ids throughout: the same study may be opened twice on one installation. */
function underNewIds(file: StudyFile): StudyFile {
  const to = renamedIn(file);
  return {
    ...file,
    study: { ...file.study, id: to(file.study.id), subject: orNull(file.study.subject, to) },
    columns: file.columns.map((column) => ({ ...followsWithIds(column, to), id: to(column.id) })),
    setAside: file.setAside.map((reading) => ({ ...reading, columnId: to(reading.columnId) })),
    leftIn: file.leftIn.map((reading) => ({ ...reading, columnId: to(reading.columnId) })),
    changes: file.changes.map((change) => changeUnderNewIds(change, to)),
    evidence: file.evidence.map((piece) => ({
      ...{ ...piece, id: to(piece.id), columnId: orNull(piece.columnId, to), parts: partsUnderNewIds(piece.parts, to) },
      replaces: orNull(piece.replaces, to),
      ...wordsOf(piece),
    })),
    verdicts: file.verdicts.map((verdict) => ({ ...verdict, id: to(verdict.id), evidence: verdict.evidence.map(to) })),
    looks: file.looks.map((look) => ({ ...look, columnId: orNull(look.columnId, to) })),
  };
}

const inTime = <T extends { at: string }>(row: T) => ({ ...row, at: new Date(row.at) });

/** Rows that go into one statement. */
const AT_ONCE = 200;

async function inPortions<T>(rows: readonly T[], insert: (portion: T[]) => Promise<unknown>): Promise<void> {
  for (let i = 0; i < rows.length; i += AT_ONCE) await insert(rows.slice(i, i + AT_ONCE));
}

/** Opens a saved study as a new one: wholly, or not at all. Returns its id. */
export async function openStudy(db: Database, saved: StudyFile): Promise<string> {
  const objection = objectionToFile(saved);
  if (objection) throw new StoreError('invalid', objection.detail, { field: objection.field });
  const file = underNewIds(saved);
  const studyId = file.study.id;
  await db.transaction(async (q) => {
    const at = new Date();
    await q
      .insert(studies)
      .values({ ...file.study, changedAt: at, changedBy: file.changes.at(-1)?.who ?? null, openedAt: at });
    for (const { cells, ...column } of file.columns) {
      await q.insert(columns).values({ ...column, studyId });
      await writeColumn(q, column.id, cells);
    }
    await inPortions(file.setAside, (some) =>
      q.insert(MARKS.aside).values(some.map((one) => ({ ...inTime(one), studyId }))),
    );
    await inPortions(file.leftIn, (some) =>
      q.insert(MARKS.leftIn).values(some.map((one) => ({ ...inTime(one), studyId }))),
    );
    await inPortions(file.changes, (some) =>
      q.insert(changes).values(some.map((one) => ({ ...inTime(one), studyId }))),
    );
    for (const piece of file.evidence) {
      const finding = piece.finding.map(({ text, strong, code }) => ({
        text,
        ...(strong ? { strong } : {}),
        ...(code === undefined ? {} : { code }),
      }));
      await q.insert(evidence).values({ ...inTime(piece), finding, studyId });
    }
    await inPortions(file.looks, (some) => q.insert(looks).values(some.map((one) => ({ ...inTime(one), studyId }))));
    for (const { reopenAt, ...verdict } of file.verdicts) {
      await q.insert(verdicts).values({ ...inTime(verdict), reopenAt: reopenAt ? new Date(reopenAt) : null, studyId });
    }
  });
  return studyId;
}
