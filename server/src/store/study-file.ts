import { STUDY_FILE, STUDY_FILE_VERSION, studyFileSchema, type StudyFile } from '@verdict/contract';
import { asc, eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { cellsFrom, writeColumn } from './cells.js';
import type { Database, Queries } from './database.js';
import { notFound } from './errors.js';
import { APP_VERSION } from './evidence.js';
import { changes, columns, evidence, setAside, studies, verdicts } from './schema.js';

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
    const { subjectCount: _, changedAt: __, deletedAt: ___, ...study } = found;
    const aside = await q.select().from(setAside).where(eq(setAside.studyId, studyId)).orderBy(asc(setAside.row));
    const record = await q.select().from(changes).where(eq(changes.studyId, studyId)).orderBy(asc(changes.revision));
    const kept = await q.select().from(evidence).where(eq(evidence.studyId, studyId)).orderBy(asc(evidence.at));
    const ruled = await q.select().from(verdicts).where(eq(verdicts.studyId, studyId)).orderBy(asc(verdicts.at));
    return {
      format: STUDY_FILE,
      version: STUDY_FILE_VERSION,
      app: APP_VERSION,
      savedAt: new Date().toISOString(),
      study,
      columns: await columnsWithCells(q, studyId),
      setAside: aside.map(({ studyId: _s, at, ...reading }) => ({ ...reading, at: at.toISOString() })),
      changes: record.map(({ studyId: _s, at, ...change }) => ({ ...change, at: at.toISOString() })),
      evidence: kept.map(({ studyId: _s, at, ...piece }) => ({ ...piece, at: at.toISOString() })),
      verdicts: ruled.map(({ studyId: _s, at, reopenAt, ...verdict }) => ({
        ...verdict,
        at: at.toISOString(),
        reopenAt: reopenAt?.toISOString() ?? null,
      })),
    };
  });
}

/** The file under new ids throughout: the same study may be opened twice on one installation. */
function underNewIds(file: StudyFile): StudyFile {
  const ids = [file.study, ...file.columns, ...file.evidence, ...file.verdicts].map(({ id }) => id);
  const renamed = new Map(ids.map((id) => [id, randomUUID() as string]));
  // Ids stand inside changes, formulas and verdicts too; as whole words of JSON they are all found.
  const text = JSON.stringify(file).replace(/[A-Za-z0-9-]{8,36}/g, (word) => renamed.get(word) ?? word);
  return studyFileSchema.parse(JSON.parse(text));
}

const inTime = <T extends { at: string }>(row: T) => ({ ...row, at: new Date(row.at) });

/** Opens a saved study as a new one: wholly, or not at all. Returns its id. */
export async function openStudy(db: Database, saved: StudyFile): Promise<string> {
  const file = underNewIds(saved);
  const studyId = file.study.id;
  await db.transaction(async (q) => {
    await q.insert(studies).values({ ...file.study, changedAt: new Date() });
    for (const { cells, ...column } of file.columns) {
      await q.insert(columns).values({ ...column, studyId });
      await writeColumn(q, column.id, cells);
    }
    for (const reading of file.setAside) await q.insert(setAside).values({ ...inTime(reading), studyId });
    for (const change of file.changes) await q.insert(changes).values({ ...inTime(change), studyId });
    for (const piece of file.evidence) {
      const finding = piece.finding.map(({ text, strong }) => ({ text, ...(strong ? { strong } : {}) }));
      await q.insert(evidence).values({ ...inTime(piece), finding, studyId });
    }
    for (const { reopenAt, ...verdict } of file.verdicts) {
      await q.insert(verdicts).values({ ...inTime(verdict), reopenAt: reopenAt ? new Date(reopenAt) : null, studyId });
    }
  });
  return studyId;
}
