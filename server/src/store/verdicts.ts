import { decisionWords, type ReopenRequest, type RuleRequest } from '@verdict/contract';
import { and, eq, isNull } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { openCautions } from './arranged.js';
import { recordChange, refuseStale, type Changed } from './changes.js';
import type { Database, Queries } from './database.js';
import { StoreError } from './errors.js';
import { countLooks } from './looks.js';
import { evidence as kept, studies, verdicts } from './schema.js';
import { lockStudy, refuseRuled } from './study-row.js';

/** A verdict rests on evidence of its own study only. */
async function refuseForeign(q: Queries, studyId: string, ids: readonly string[]): Promise<void> {
  const own = await q.select({ id: kept.id }).from(kept).where(eq(kept.studyId, studyId));
  const known = new Set(own.map(({ id }) => id));
  if (ids.some((id) => !known.has(id))) {
    throw new StoreError('invalid', 'The verdict refers to evidence that this study does not contain.', {
      field: 'evidence',
    });
  }
}

/** A decision names a family where it is about one, and only there. */
function refuseNameless({ decision, family }: RuleRequest): void {
  const names = decision === 'treat-as-family';
  if (names === (family !== null)) return;
  const text = names ? 'Choose the distribution.' : 'This decision does not name a distribution.';
  throw new StoreError('invalid', text, { field: 'family' });
}

/** What a result warns of is answered, and evidence whose readings have changed is run again; or it is left open with a reason. */
async function refuseUnanswered(
  q: Queries,
  studyId: string,
  request: RuleRequest,
  stale: readonly string[],
): Promise<void> {
  const { evidence, leftOpen } = request;
  if (leftOpen !== '') return;
  const open = await openCautions(q, studyId, evidence);
  const old = stale.filter((id) => evidence.includes(id)).length;
  if (open + old === 0) return;
  const cautions = open === 1 ? 'one caution is not answered' : `${open} cautions are not answered`;
  const pieces = old === 1 ? 'the readings of one result have changed' : `the readings of ${old} results have changed`;
  const what = [...(open ? [cautions] : []), ...(old ? [pieces] : [])].join(', and ');
  throw new StoreError('invalid', `Not yet: ${what}. Answer it, or state why it stays open.`, { field: 'leftOpen' });
}

/**
 * Puts the decision on record and closes the study to changes.
 * @param stale the pieces whose readings have changed since
 */
export async function rule(
  db: Database,
  studyId: string,
  request: RuleRequest,
  stale: readonly string[],
): Promise<Changed> {
  return db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    await refuseStale(q, study, request.revision);
    refuseRuled(study);
    const { decision, family, reason, evidence, leftOpen, who } = request;
    refuseNameless(request);
    await refuseForeign(q, studyId, evidence);
    await refuseUnanswered(q, studyId, request, stale);
    const at = new Date();
    const token = randomUUID();
    const looked = await countLooks(q, studyId);
    const row = { id: token, studyId, decision, family, reason, evidence, leftOpen, looked, who, at };
    await q.insert(verdicts).values({ ...row, revision: study.revision });
    await q.update(studies).set({ state: 'ruled' }).where(eq(studies.id, studyId));
    const applied = { inverse: null, text: `Verdict: ${decisionWords(decision, family)}`, reason };
    return recordChange(q, study, { token, kind: 'rule', detail: { ...request, looked }, who, at, applied });
  });
}

/** Opens a ruled study again; the verdict stays on record with the reason why it no longer stands. */
export async function reopen(db: Database, studyId: string, request: ReopenRequest): Promise<Changed> {
  return db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    await refuseStale(q, study, request.revision);
    if (study.state !== 'ruled')
      throw new StoreError('not-ruled', 'This study is not decided, so it cannot be reopened.');
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
