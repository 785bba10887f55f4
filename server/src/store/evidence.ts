import { evidenceContent, evidenceWithIds, evidenceWords, type Evidence, type KeepRequest } from '@verdict/contract';
import { advance, analysisById } from '@verdict/core/analyses';
import { fingerprintOf } from '@verdict/core/readings';
import {
  isUnavailable,
  methodOf,
  toWire,
  type AnyAnalysis,
  type Piece,
  type Settings,
  type Stage,
} from '@verdict/core/road';
import { asc, eq } from 'drizzle-orm';
import { checkedRequest, sampleFor, underKeptNames } from './asked.js';
import { appendLog, originalIds } from './chain.js';
import { isDuplicate, type Database } from './database.js';
import { notFound, StoreError } from './errors.js';
import { evidence } from './schema.js';
import { lockStudy, refuseBinned, refuseRuled, requireStudy, type StudyRow } from './study-row.js';

export const APP_VERSION = '0.1.0';

export function toEvidence(row: typeof evidence.$inferSelect): Evidence {
  const { id, analysis, version, appVersion, columnId, parts, request, fingerprint, revision, seed } = row;
  const { result, note, who, at, recomputedAt, recomputedSame } = row;
  const { place, leftOut, leads, answers, replaces } = row;
  const recomputed = recomputedAt && { same: recomputedSame === true, at: recomputedAt.toISOString() };
  return {
    ...{ id, analysis, version, appVersion, column: columnId, parts, request, fingerprint, revision, seed },
    ...{ result, note, place, leftOut, leads, answers, replaces },
    ...wordsNow(row),
    ...{ who, at: at.toISOString(), recomputed },
  };
}

type Words = Pick<Evidence, 'method' | 'finding'>;

/**
 * The method and the finding that this version of Verdict writes for a request and a result; the method as it was where the analysis has another version
 * now. Throws for an analysis or a result that it does not know.
 */
export function wordsOf(piece: Pick<Evidence, 'analysis' | 'version' | 'request' | 'result' | 'method'>): Words {
  const analysis = analysisById(piece.analysis);
  const request = analysis.request.safeParse(piece.request);
  const known = request.success && analysis.version === piece.version;
  return {
    method: known ? methodOf(analysis, request.data).toWellFormed() : piece.method,
    finding: findingOf(analysis, piece.result, () => null),
  };
}

/**
 * The words that are shown: those of this version. Where the analysis has changed since, or does not know the result, the words it was kept with stand:
 * they belong to those numbers. What is stored, and digested in the record, stays as it was.
 */
function wordsNow(row: typeof evidence.$inferSelect): Words {
  // Findings kept before statements had codes have none.
  const kept = { method: row.method, finding: row.finding as Evidence['finding'] };
  try {
    return analysisById(row.analysis).version === row.version ? wordsOf(row) : kept;
  } catch {
    return kept;
  }
}

/**
 * Keeps a result. The request is checked by the analysis itself, the method sentence and the finding are written here from it, and
 * the fingerprint must be that of the readings the store holds: evidence about other numbers is refused. Keeping twice is once.
 */
export async function keepEvidence(db: Database, studyId: string, keep: KeepRequest): Promise<Evidence> {
  const study = await requireStudy(db, studyId);
  const [again] = await db.select().from(evidence).where(eq(evidence.id, keep.id));
  if (again?.studyId === studyId) return toEvidence(again);
  if (again)
    throw new StoreError('invalid', 'This id belongs to evidence of another study. Nothing was kept.', { field: 'id' });
  refuseBinned(study);
  refuseRuled(study);
  const before = keep.replaces === null ? null : await pieceOf(db, studyId, keep.replaces);
  const { analysis, sample, revision, request } = await checkedRequest(db, study, keep, 'Nothing was kept.');
  const result = toWire(keep.result);
  if (isUnavailable(result)) throw new StoreError('invalid', 'There is no result to keep.', { field: 'result' });
  const row = {
    id: keep.id,
    studyId,
    columnId: keep.column,
    parts: keep.parts,
    analysis: keep.analysis,
    version: keep.version,
    appVersion: APP_VERSION,
    request,
    fingerprint: keep.fingerprint,
    revision,
    seed: typeof request.seed === 'number' ? request.seed : null,
    result,
    // As the database keeps it: half a surrogate pair in a name that the request says would come back as another character.
    method: methodOf(analysis, request as Settings).toWellFormed(),
    finding: findingOf(analysis, result, () => advance(keep.analysis, request, sample, [])),
    note: keep.note,
    ...{ place: before?.place ?? null, leads: before?.leads ?? false, leftOut: false, answers: [] },
    replaces: before?.id ?? null,
    who: keep.who,
    at: new Date(),
    recomputedAt: null,
    recomputedSame: null,
  };
  try {
    await db.transaction(async (q) => {
      // A verdict may have come in between: nothing slips in after it.
      const locked = await lockStudy(q, studyId);
      refuseRuled(locked);
      await q.insert(evidence).values(row);
      await appendLog(q, locked, {
        kind: 'kept',
        evidence: row.id,
        detail: keptDetail(row, locked),
        who: row.who,
        at: row.at,
      });
      // The older piece is kept; the sheet goes on with the newer one.
      if (before) await q.update(evidence).set({ leftOut: true, leads: false }).where(eq(evidence.id, before.id));
    });
  } catch (error) {
    if (isDuplicate(error)) return keepEvidence(db, studyId, keep);
    throw error;
  }
  return toEvidence(row);
}

/** What the log says of a piece that is kept: digests of what never changes, and its note. */
function keptDetail(row: typeof evidence.$inferInsert, study: StudyRow) {
  const { place = null, parts = null, columnId = null, seed = null, replaces = null, answers = [] } = row;
  const whole = { ...row, place, parts, columnId, seed, replaces, answers, leads: false, leftOut: false };
  const piece = evidenceWithIds({ ...whole, at: row.at.toISOString() }, originalIds(study));
  return { content: evidenceContent(piece), words: evidenceWords(piece), note: row.note };
}

/** A piece of evidence of this very study. */
async function pieceOf(db: Database, studyId: string, id: string) {
  const [found] = await db.select().from(evidence).where(eq(evidence.id, id));
  if (found?.studyId === studyId) return found;
  throw new StoreError('invalid', 'The evidence to replace does not belong to this study.', { field: 'replaces' });
}

/**
 * The finding in words; refused where the result is none of this analysis. Where words cannot be found for a result of our own either, the fault is ours
 * and goes on as it is. `own` is asked only then.
 */
export function findingOf({ finding }: AnyAnalysis, result: unknown, own: () => Stage | null): Piece[] {
  // An outcome that no sentence knows ends without one.
  const words = (of: unknown): Piece[] => {
    const found: unknown = finding(of);
    if (!Array.isArray(found)) throw new TypeError('The analysis has no finding for this result.');
    return found as Piece[];
  };
  try {
    return words(result);
  } catch {
    const stage = own();
    const made = stage && toWire(stage.done ? stage.result : stage.partial);
    // Where there is nothing to be found, there are no words either.
    if (made && !isUnavailable(made)) words(made);
    throw new StoreError('invalid', 'The result does not have the form of this analysis.', { field: 'result' });
  }
}

/** How many pieces of evidence are kept of a study. */
export const countEvidence = (db: Database, studyId: string): Promise<number> =>
  db.$count(evidence, eq(evidence.studyId, studyId));

export async function listEvidence(db: Database, studyId: string): Promise<Evidence[]> {
  await requireStudy(db, studyId);
  const rows = await db.select().from(evidence).where(eq(evidence.studyId, studyId)).orderBy(asc(evidence.at));
  return rows.map(toEvidence);
}

/** One piece of evidence with the readings its columns hold now, and their fingerprint. */
export async function evidenceWithSample(db: Database, evidenceId: string) {
  const [row] = await db.select().from(evidence).where(eq(evidence.id, evidenceId));
  if (!row) throw notFound('piece of evidence');
  const study = await requireStudy(db, row.studyId);
  const { sample, revision } = await sampleFor(db, study, row.columnId, row.parts);
  const named = underKeptNames(sample, row.request);
  return { kept: toEvidence(row), sample: named, revision, fingerprint: fingerprintOf(named) };
}

/** Notes that the server has worked a kept result out itself, and whether it came out the same. */
export async function markRecomputed(db: Database, evidenceId: string, same: boolean): Promise<void> {
  const outcome = { recomputedAt: new Date(), recomputedSame: same };
  await db.update(evidence).set(outcome).where(eq(evidence.id, evidenceId));
}
