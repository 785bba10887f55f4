import {
  cautionsOf,
  openCautionsOf,
  type Answer,
  type Evidence,
  type OrderRequest,
  type SayRequest,
} from '@verdict/contract';
import { fingerprintOf } from '@verdict/core/readings';
import { and, asc, eq } from 'drizzle-orm';
import { sampleFor, underKeptNames } from './asked.js';
import { appendLog } from './chain.js';
import type { Database, Queries } from './database.js';
import { notFound, StoreError } from './errors.js';
import { toEvidence } from './evidence.js';
import { evidence } from './schema.js';
import { lockStudy, refuseRuled, requireStudy } from './study-row.js';

type Row = typeof evidence.$inferSelect;

/** The answers with one more, or with one taken back. */
function answered(row: Row, answer: Answer): Answer[] {
  if (!cautionsOf(row.result).includes(answer.to))
    throw new StoreError('invalid', 'The result has no such caution.', { field: 'answer' });
  const others = row.answers.filter(({ to }) => to !== answer.to);
  return answer.words === '' ? others : [...others, answer];
}

/** Says something about a piece of evidence, while the study is open: a note, an answer to a caution, whether and where it stands on the sheet. */
export async function sayOfEvidence(
  db: Database,
  evidenceId: string,
  { note, leftOut, leads, answer, who }: SayRequest,
): Promise<{ said: Evidence; studyId: string }> {
  const [found] = await db.select({ studyId: evidence.studyId }).from(evidence).where(eq(evidence.id, evidenceId));
  if (!found) throw notFound('piece of evidence');
  const { studyId } = found;
  return db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    refuseRuled(study);
    // Read behind the lock: what another window has said in between stays.
    const [row] = await q.select().from(evidence).where(eq(evidence.id, evidenceId));
    const at = new Date();
    const plain = {
      ...(note === undefined ? {} : { note }),
      ...(leftOut === undefined ? {} : { leftOut }),
      ...(leads === undefined ? {} : { leads }),
    };
    const given = answer && { ...answer, at: at.toISOString() };
    const said = { ...plain, ...(given ? { answers: answered(row!, given) } : {}) };
    if (Object.keys(said).length === 0) return { said: toEvidence(row!), studyId };
    if (leads) await q.update(evidence).set({ leads: false }).where(eq(evidence.studyId, studyId));
    await q.update(evidence).set(said).where(eq(evidence.id, evidenceId));
    const detail = { ...plain, ...(given ? { answer: given } : {}) };
    await appendLog(q, study, { kind: 'said', evidence: evidenceId, detail, who: who ?? answer?.who ?? '', at });
    return { said: toEvidence({ ...row!, ...said }), studyId };
  });
}

/** Puts the evidence of a study in this order; pieces that are not named keep their place after them. */
export async function orderEvidence(db: Database, studyId: string, { order, who = '' }: OrderRequest): Promise<void> {
  await db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    refuseRuled(study);
    await appendLog(q, study, { kind: 'ordered', detail: { order }, who, at: new Date() });
    for (const [place, id] of order.entries()) {
      await q
        .update(evidence)
        .set({ place })
        .where(and(eq(evidence.id, id), eq(evidence.studyId, studyId)));
    }
  });
}

/** The pieces whose readings have changed, or whose column is gone. Every column is read once, however many pieces use it. */
export async function staleEvidence(db: Database, studyId: string): Promise<{ revision: number; stale: string[] }> {
  const study = await requireStudy(db, studyId);
  const { id, columnId, parts, request, fingerprint, revision } = evidence;
  const rows = await db
    .select({ id, columnId, parts, request, fingerprint, revision })
    .from(evidence)
    .where(eq(evidence.studyId, studyId))
    .orderBy(asc(evidence.at));
  const read = new Map<string, Awaited<ReturnType<typeof sampleFor>> | null>();
  const stale: string[] = [];
  for (const row of rows) {
    if (row.columnId === null || row.revision === study.revision) continue;
    const key = JSON.stringify([row.columnId, row.parts]);
    if (!read.has(key)) read.set(key, await sampleFor(db, study, row.columnId, row.parts).catch(unlessGone));
    const found = read.get(key);
    if (!found || fingerprintOf(underKeptNames(found.sample, row.request)) !== row.fingerprint) stale.push(row.id);
  }
  return { revision: study.revision, stale };
}

/** A column that is not there any more; every other failure goes on. */
function unlessGone(error: unknown): null {
  if (error instanceof StoreError) return null;
  throw error;
}

/** The number of unanswered cautions of these pieces. */
export async function openCautions(q: Queries, studyId: string, ids: readonly string[]): Promise<number> {
  const { id, result, answers } = evidence;
  const rows = await q.select({ id, result, answers }).from(evidence).where(eq(evidence.studyId, studyId));
  return rows.reduce((sum, row) => (ids.includes(row.id) ? sum + openCautionsOf(row).length : sum), 0);
}
