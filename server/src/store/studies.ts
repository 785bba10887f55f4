import type { Decision, PartsBy, Study, StudyColumn, StudySummary, Verdict } from '@verdict/contract';
import { sampleInParts, type Sample } from '@verdict/core';
import { and, asc, count, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import { readCellsAsJson } from './cells.js';
import { standingChanges } from './changes.js';
import type { Database } from './database.js';
import { notFound } from './errors.js';
import { columns, setAside, studies, verdicts } from './schema.js';
import { readTable, standingColumns, type ColumnRow } from './tables.js';

type StudyRow = typeof studies.$inferSelect;

export async function createStudy(db: Database, id: string, name: string): Promise<string> {
  await db.insert(studies).values({ id, name, changedAt: new Date() });
  return id;
}

export async function countStudies(db: Database): Promise<number> {
  const [row] = await db.select({ n: count() }).from(studies);
  return row?.n ?? 0;
}

function toColumn({ studyId: _, position: __, removed: ___, ...column }: ColumnRow): StudyColumn {
  return column;
}

/** The subject's readings that count; kept with the study until the next change. */
async function subjectCount(db: Database, study: StudyRow): Promise<number | null> {
  if (!study.subject) return null;
  if (study.subjectCount !== null) return study.subjectCount;
  const { sample } = await readSample(db, study.id, study.subject);
  const n = sample.values.length;
  await db
    .update(studies)
    .set({ subjectCount: n })
    .where(and(eq(studies.id, study.id), eq(studies.revision, study.revision)));
  return n;
}

/** The studies in use, or those in the bin, the last changed first. */
export async function listStudies(db: Database, bin: boolean): Promise<StudySummary[]> {
  const rows = await db
    .select()
    .from(studies)
    .where(bin ? isNotNull(studies.deletedAt) : isNull(studies.deletedAt))
    .orderBy(desc(studies.changedAt));
  return Promise.all(
    rows.map(async (study) => {
      const [subject] = study.subject ? await db.select().from(columns).where(eq(columns.id, study.subject)) : [];
      return {
        id: study.id,
        name: study.name,
        state: study.state,
        decision: study.state === 'ruled' ? await standingDecision(db, study.id) : null,
        subject: subject?.name ?? null,
        n: await subjectCount(db, study),
        rowCount: study.rowCount,
        revision: study.revision,
        changedAt: study.changedAt.toISOString(),
        deletedAt: study.deletedAt?.toISOString() ?? null,
      };
    }),
  );
}

async function standingDecision(db: Database, studyId: string): Promise<Decision | null> {
  const [row] = await db
    .select({ decision: verdicts.decision })
    .from(verdicts)
    .where(and(eq(verdicts.studyId, studyId), isNull(verdicts.reopenAt)))
    .orderBy(desc(verdicts.at))
    .limit(1);
  return row?.decision ?? null;
}

async function readVerdicts(db: Database, studyId: string): Promise<Verdict[]> {
  const rows = await db.select().from(verdicts).where(eq(verdicts.studyId, studyId)).orderBy(desc(verdicts.at));
  return rows.map(({ id, decision, reason, who, at, revision, evidence: kept, reopenAt, reopenReason, reopenWho }) => ({
    id,
    decision,
    reason,
    who,
    at: at.toISOString(),
    revision,
    evidence: kept,
    reopened: reopenAt && { reason: reopenReason ?? '', who: reopenWho ?? '', at: reopenAt.toISOString() },
  }));
}

/** Everything about a study but its cells. */
export async function readStudy(db: Database, studyId: string): Promise<Study> {
  const [study] = await db.select().from(studies).where(eq(studies.id, studyId));
  if (!study) throw notFound('study');
  const [rows, aside, steps, ruled] = await Promise.all([
    standingColumns(db, studyId),
    db.select().from(setAside).where(eq(setAside.studyId, studyId)).orderBy(asc(setAside.row)),
    standingChanges(db, studyId),
    readVerdicts(db, studyId),
  ]);
  const { id, name, question, state, alpha, subject, revision, rowCount } = study;
  return {
    ...{ id, name, question, state, alpha, subject, revision, rowCount },
    columns: rows.map(toColumn),
    setAside: aside.map(({ columnId, row, reason, who, at }) => ({
      column: columnId,
      row,
      reason,
      who,
      at: at.toISOString(),
    })),
    verdicts: ruled,
    canUndo: steps.undo?.text ?? null,
    canRedo: steps.redo?.text ?? null,
  };
}

/** The cells of all written columns with the revision they belong to, read in one consistent view, as the text of a JSON object. */
export async function readStudyCells(db: Database, studyId: string): Promise<string> {
  return db.transaction(async (q) => {
    const [study] = await q.select().from(studies).where(eq(studies.id, studyId));
    if (!study) throw notFound('study');
    const written = (await standingColumns(q, studyId)).filter(({ derivation }) => !derivation);
    const ids = written.map(({ id }) => id);
    return `{"revision":${study.revision},"cells":${await readCellsAsJson(q, ids, study.rowCount)}}`;
  });
}

/** A column's readings as an analysis takes them, in parts where that is asked for, and the revision they belong to. */
export async function readSample(
  db: Pick<Database, 'transaction'>,
  studyId: string,
  columnId: string,
  parts: PartsBy | null = null,
): Promise<{ sample: Sample; revision: number }> {
  return db.transaction(async (q) => {
    const [study] = await q.select().from(studies).where(eq(studies.id, studyId));
    if (!study) throw notFound('study');
    const others = parts === null ? [] : 'split' in parts ? [parts.split] : parts.beside;
    const table = await readTable(q, study, [columnId, ...others]);
    const columnOf = (wanted: string) => {
      const column = table.columns.find(({ id }) => id === wanted);
      if (!column) throw notFound('column');
      return column;
    };
    const by = parts && ('split' in parts ? { split: columnOf(parts.split) } : { beside: parts.beside.map(columnOf) });
    return { sample: sampleInParts(table, columnOf(columnId), by), revision: study.revision };
  });
}

/** Moves a study to the bin, or back. */
export async function binStudy(db: Database, studyId: string, inBin: boolean): Promise<void> {
  const [{ affectedRows }] = await db
    .update(studies)
    .set({ deletedAt: inBin ? new Date() : null })
    .where(eq(studies.id, studyId));
  if (affectedRows === 0) throw notFound('study');
}
