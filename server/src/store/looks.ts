import type { Look, LookedCount } from '@verdict/contract';
import { asc, eq, sql } from 'drizzle-orm';
import type { Database, Queries } from './database.js';
import { looks } from './schema.js';
import { refuseBinned, requireStudy } from './study-row.js';

/** More of one study are not noted: by then how many there were says enough. */
const MOST_LOOKS = 5_000;

/** Notes results that were looked at; each counts once, however often it was. A study that is ruled is read, not looked into. */
export async function noteLooks(db: Database, studyId: string, noted: readonly Look[]): Promise<void> {
  const study = await requireStudy(db, studyId);
  refuseBinned(study);
  if (study.state === 'ruled' || (await db.$count(looks, eq(looks.studyId, studyId))) >= MOST_LOOKS) return;
  const at = new Date();
  await db
    .insert(looks)
    .values(noted.map(({ column, ...look }) => ({ ...look, columnId: column, studyId, at })))
    .onDuplicateKeyUpdate({ set: { digest: sql`${looks.digest}` } });
}

/** The results viewed in a study, in order. */
export async function listLooks(db: Database, studyId: string): Promise<Look[]> {
  await requireStudy(db, studyId);
  const rows = await db.select().from(looks).where(eq(looks.studyId, studyId)).orderBy(asc(looks.at));
  return rows.map(({ digest, analysis, columnId, tests }) => ({ digest, analysis, column: columnId, tests }));
}

export async function countLooks(q: Queries, studyId: string): Promise<LookedCount> {
  const rows = await q.select({ tests: looks.tests }).from(looks).where(eq(looks.studyId, studyId));
  return { results: rows.length, tests: rows.reduce((sum, { tests }) => sum + tests, 0) };
}
