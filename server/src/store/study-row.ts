import { eq } from 'drizzle-orm';
import type { Queries } from './database.js';
import { notFound, StoreError } from './errors.js';
import { studies } from './schema.js';

export type StudyRow = typeof studies.$inferSelect;

/** The study, in use or in the bin, locked until the transaction ends: every other change of it waits. */
export async function lockAnyStudy(q: Queries, studyId: string): Promise<StudyRow> {
  const [study] = await q.select().from(studies).where(eq(studies.id, studyId)).for('update');
  if (!study) throw notFound('study');
  return study;
}

/** The same of a study in use. */
export async function lockStudy(q: Queries, studyId: string): Promise<StudyRow> {
  const study = await lockAnyStudy(q, studyId);
  refuseBinned(study);
  return study;
}

export function refuseBinned(study: StudyRow): void {
  if (study.deletedAt) throw new StoreError('binned', 'This study is in the bin. Restore it before working on it.');
}

/** Refuses requests for a study that does not exist. */
export async function requireStudy(q: Queries, studyId: string): Promise<StudyRow> {
  const [study] = await q.select().from(studies).where(eq(studies.id, studyId));
  if (!study) throw notFound('study');
  return study;
}

export function refuseRuled(study: StudyRow): void {
  if (study.state === 'ruled') {
    throw new StoreError('ruled', 'This study is decided. Reopen it with a reason before changing anything.');
  }
}
