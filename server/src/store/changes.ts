import { changeSchema, type Change, type ChangeRequest, type RecordEntry, type StepRequest } from '@verdict/contract';
import { and, desc, eq, gt } from 'drizzle-orm';
import { applyChange, type Applied } from './apply.js';
import type { Database, Queries } from './database.js';
import { notFound, StoreError } from './errors.js';
import { changes, columns, studies } from './schema.js';

type StudyRow = typeof studies.$inferSelect;

/** Where the study stands after a change. */
export interface Changed {
  revision: number;
  text: string;
}

/** The study, locked until the transaction ends: every other change of it waits. */
export async function lockStudy(q: Queries, studyId: string): Promise<StudyRow> {
  const [study] = await q.select().from(studies).where(eq(studies.id, studyId)).for('update');
  if (!study) throw notFound('study');
  return study;
}

/** Refuses what was made on an older revision than the study has, and says what came in between. */
export async function refuseStale(q: Queries, study: StudyRow, revision: number): Promise<void> {
  if (study.revision === revision) return;
  const since = await q
    .select({ text: changes.text, who: changes.who })
    .from(changes)
    .where(and(eq(changes.studyId, study.id), gt(changes.revision, revision)))
    .orderBy(desc(changes.revision))
    .limit(5);
  throw new StoreError('stale', `This study has moved on from change ${revision} to change ${study.revision}.`, {
    revision: study.revision,
    changes: since.map(({ text, who }) => `${text} (${who})`),
  });
}

interface Entry {
  token: string;
  kind: string;
  detail: unknown;
  who: string;
  at: Date;
  undoes?: number | null;
  applied: Omit<Applied, 'inverse'> & { inverse: Change | null };
}

/** Writes one entry of the record and moves the study on. */
export async function recordChange(q: Queries, study: StudyRow, entry: Entry): Promise<Changed> {
  const revision = study.revision + 1;
  const { token, kind, detail, who, at, undoes = null } = entry;
  const { inverse, text, reason } = entry.applied;
  await q
    .insert(changes)
    .values({ studyId: study.id, revision, token, kind, detail, inverse, text, reason, who, at, undoes });
  await q.update(studies).set({ revision, changedAt: at, subjectCount: null }).where(eq(studies.id, study.id));
  return { revision, text };
}

/** A change that came twice because its first answer was lost is answered again, not done again. */
async function alreadyDone(q: Queries, studyId: string, token: string): Promise<Changed | null> {
  const [found] = await q
    .select({ revision: changes.revision, text: changes.text })
    .from(changes)
    .where(and(eq(changes.studyId, studyId), eq(changes.token, token)));
  return found ?? null;
}

export function refuseRuled(study: StudyRow): void {
  if (study.state === 'ruled') {
    throw new StoreError('ruled', 'This study has its verdict. Reopen it, with a reason, before changing anything.');
  }
}

async function carryOut(
  q: Queries,
  study: StudyRow,
  entry: Omit<Entry, 'applied' | 'kind' | 'detail'>,
  change: Change,
) {
  refuseRuled(study);
  const all = await q.select().from(columns).where(eq(columns.studyId, study.id));
  const applied = await applyChange({ q, study, columns: all, who: entry.who, at: entry.at }, change);
  return recordChange(q, study, { ...entry, kind: change.kind, detail: change, applied });
}

/** One edit, one transaction, one entry in the record. */
export async function makeChange(db: Database, studyId: string, request: ChangeRequest): Promise<Changed> {
  return db.transaction(async (q) => {
    // The lock comes first: the same change, sent again while its first sending is still at work, waits and then finds it done.
    const study = await lockStudy(q, studyId);
    const done = await alreadyDone(q, studyId, request.token);
    if (done) return done;
    await refuseStale(q, study, request.revision);
    return carryOut(q, study, { token: request.token, who: request.who, at: new Date() }, request.change);
  });
}

type Standing = Pick<typeof changes.$inferSelect, 'revision' | 'undoes' | 'text' | 'inverse'>;

/**
 * What undo and redo would take: undo the last change that neither is undone nor an undo itself; redo the last undo, as long as
 * nothing new was done after it. A redo counts as the change it brings back. Verdicts cannot be undone, so they end the walk.
 */
export function undoAndRedo(newestFirst: readonly Standing[]): { undo: Standing | null; redo: Standing | null } {
  const byRevision = new Map(newestFirst.map((change) => [change.revision, change]));
  const isUndo = (change: Standing): boolean => {
    if (change.undoes === null) return false;
    const target = byRevision.get(change.undoes);
    return !target || !isUndo(target);
  };
  const takenBack = new Set(newestFirst.flatMap(({ undoes }) => (undoes === null ? [] : [undoes])));
  let undo: Standing | null = null;
  let redo: Standing | null = null;
  for (const change of newestFirst) {
    if (takenBack.has(change.revision)) continue;
    if (isUndo(change)) {
      redo ??= change;
      continue;
    }
    undo ??= change;
    // A redo leaves the earlier undos to be redone; anything new ends that.
    if (change.undoes === null) break;
  }
  return { undo: undo?.inverse ? undo : null, redo };
}

const UNDO_DEPTH = 500;

export async function standingChanges(q: Queries, studyId: string) {
  const rows = await q
    .select({ revision: changes.revision, undoes: changes.undoes, text: changes.text, kind: changes.kind })
    .from(changes)
    .where(eq(changes.studyId, studyId))
    .orderBy(desc(changes.revision))
    .limit(UNDO_DEPTH);
  // The inverse may be large (a column of cells); whether there is one follows from the kind.
  return undoAndRedo(
    rows.map((row) => ({ ...row, inverse: row.kind === 'rule' || row.kind === 'reopen' ? null : true })),
  );
}

/** Undo or redo as a change of its own: the record only grows. */
export async function stepBack(db: Database, studyId: string, request: StepRequest): Promise<Changed> {
  return db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    const done = await alreadyDone(q, studyId, request.token);
    if (done) return done;
    await refuseStale(q, study, request.revision);
    const target = (await standingChanges(q, studyId))[request.step];
    if (!target) throw new StoreError('nothing-to-undo', `There is nothing to ${request.step}.`);
    const [{ inverse } = { inverse: null }] = await q
      .select({ inverse: changes.inverse })
      .from(changes)
      .where(and(eq(changes.studyId, studyId), eq(changes.revision, target.revision)));
    const entry = { token: request.token, who: request.who, at: new Date(), undoes: target.revision };
    return carryOut(q, study, entry, changeSchema.parse(inverse));
  });
}

export async function readRecord(db: Database, studyId: string): Promise<RecordEntry[]> {
  const rows = await db
    .select({
      revision: changes.revision,
      kind: changes.kind,
      text: changes.text,
      reason: changes.reason,
      who: changes.who,
      at: changes.at,
      undoes: changes.undoes,
    })
    .from(changes)
    .where(eq(changes.studyId, studyId))
    .orderBy(desc(changes.revision))
    .limit(2_000);
  return rows.map((row) => ({ ...row, kind: row.kind as RecordEntry['kind'], at: row.at.toISOString() }));
}
