import { beganWith } from '@verdict/contract';
import { and, eq, exists, gt, isNull, or } from 'drizzle-orm';
import { appendLog } from './chain.js';
import type { Database } from './database.js';
import { evidence, studies } from './schema.js';
import { recordedStudy } from './recorded.js';
import { lockAnyStudy } from './study-row.js';

/** Begins the chain of studies from before chains existed: their present state is the start of the verified record. */
export async function beginChains(db: Database): Promise<void> {
  const kept = db.select({ id: evidence.id }).from(evidence).where(eq(evidence.studyId, studies.id));
  const waiting = await db
    .select({ id: studies.id })
    .from(studies)
    .where(and(isNull(studies.head), or(gt(studies.revision, 0), exists(kept))));
  for (const { id } of waiting) {
    await db.transaction(async (q) => {
      const study = await lockAnyStudy(q, id);
      const detail = await beganWith(await recordedStudy(q, id));
      await appendLog(q, study, { kind: 'began', detail, who: '', at: new Date() });
    });
  }
}
