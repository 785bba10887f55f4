import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { recordChange, type Changed } from './changes.js';
import type { Database } from './database.js';
import { studies } from './schema.js';
import { lockAnyStudy } from './study-row.js';

/** Moves a study to the bin, or back, as an entry of its record. Null where it is there already. */
export async function binStudy(db: Database, studyId: string, inBin: boolean, who: string): Promise<Changed | null> {
  return db.transaction(async (q) => {
    const study = await lockAnyStudy(q, studyId);
    if ((study.deletedAt !== null) === inBin) return null;
    const at = new Date();
    await q
      .update(studies)
      .set({ deletedAt: inBin ? at : null })
      .where(eq(studies.id, studyId));
    const applied = { inverse: null, text: inBin ? 'Deleted; kept in the bin' : 'Restored from the bin' };
    const kind = inBin ? 'bin' : 'restore';
    return recordChange(q, study, { token: randomUUID(), kind, detail: {}, who, at, applied });
  });
}
