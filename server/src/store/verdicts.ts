import { DECISION_WORDS, type ReopenRequest, type RuleRequest } from '@verdict/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { recordChange, refuseStale, type Changed } from './changes.js';
import type { Database, Queries } from './database.js';
import { StoreError } from './errors.js';
import { evidence as kept, studies, verdicts } from './schema.js';
import { lockStudy, refuseRuled } from './study-row.js';

/** A verdict rests on evidence of its own study only. */
async function refuseForeign(q: Queries, studyId: string, ids: readonly string[]): Promise<void> {
  const own = await q.select({ id: kept.id }).from(kept).where(eq(kept.studyId, studyId));
  const known = new Set(own.map(({ id }) => id));
  if (ids.some((id) => !known.has(id))) {
    throw new StoreError('invalid', 'The verdict names evidence that this study does not have.', { field: 'evidence' });
  }
}

/** Puts the decision on record and closes the study to changes. */
export async function rule(db: Database, studyId: string, request: RuleRequest): Promise<Changed> {
  return db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    await refuseStale(q, study, request.revision);
    refuseRuled(study);
    const { decision, reason, evidence, who } = request;
    await refuseForeign(q, studyId, evidence);
    const at = new Date();
    const token = randomUUID();
    await q
      .insert(verdicts)
      .values({ id: token, studyId, decision, reason, evidence, who, at, revision: study.revision });
    await q.update(studies).set({ state: 'ruled' }).where(eq(studies.id, studyId));
    const applied = { inverse: null, text: `Verdict: ${DECISION_WORDS[decision]}`, reason };
    return recordChange(q, study, { token, kind: 'rule', detail: request, who, at, applied });
  });
}

/** Opens a ruled study again; the verdict stays on record with the reason why it no longer stands. */
export async function reopen(db: Database, studyId: string, request: ReopenRequest): Promise<Changed> {
  return db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    await refuseStale(q, study, request.revision);
    if (study.state !== 'ruled') throw new StoreError('not-ruled', 'This study has no verdict that could be reopened.');
    const { reason, who } = request;
    const at = new Date();
    await q
      .update(verdicts)
      .set({ reopenAt: at, reopenReason: reason, reopenWho: who })
      .where(and(eq(verdicts.studyId, studyId), isNull(verdicts.reopenAt)));
    await q.update(studies).set({ state: 'open' }).where(eq(studies.id, studyId));
    const applied = { inverse: null, text: 'Reopened', reason };
    return recordChange(q, study, { token: randomUUID(), kind: 'reopen', detail: request, who, at, applied });
  });
}
