import { auditStudy, chainOf, faultWords, type Audit, type ChainEnd } from '@verdict/contract';
import { eq } from 'drizzle-orm';
import type { Database } from './database.js';
import { recordedStudy } from './recorded.js';
import { studies } from './schema.js';

const LONGEST_FAULT = 600;
/** What a study that does not agree with its record says of itself from then on; null where it does. */
export const notVerifiedOf = (audit: Audit): string | null => faultWords(audit)?.slice(0, LONGEST_FAULT) ?? null;

/** Marks a study as what its check has found it to be. */
export async function noteAudit(db: Database, studyId: string, audit: Audit): Promise<void> {
  await db
    .update(studies)
    .set({ notVerified: notVerifiedOf(audit) })
    .where(eq(studies.id, studyId));
}

/** Checks the study against its record; the outcome is stored with the study. */
export async function auditStored(db: Database, studyId: string): Promise<{ audit: Audit; chain: ChainEnd[] }> {
  const { audit, chain } = await db.transaction(async (q) => {
    const source = await recordedStudy(q, studyId);
    return { audit: await auditStudy(source), chain: chainOf(source) };
  });
  await noteAudit(db, studyId, audit);
  return { audit, chain: chain.map(({ entry, hash }) => ({ entries: entry, head: hash })) };
}
