import {
  changeSchema,
  fromOlder,
  type Announced,
  type Change,
  type ChangeRequest,
  type StepRequest,
} from '@verdict/contract';
import { and, asc, desc, eq, gt } from 'drizzle-orm';
import { applyChange } from './apply/apply.js';
import type { Applied, Context } from './apply/context.js';
import { linkChange } from './chain.js';
import type { Database, Queries } from './database.js';
import { StoreError } from './errors.js';
import { inverseOf, refuseBuiltOn, standingChanges } from './history.js';
import { refuseAsked, refuseObjection } from './objections.js';
import { changes, columns, studies } from './schema.js';
import { lockStudy, refuseBinned, refuseRuled, type StudyRow } from './study-row.js';

/** Where the study stands after a change. */
export interface Changed {
  revision: number;
  text: string;
}

/** A change with the message to the other windows of the study. */
export interface Made {
  done: Changed;
  /** Null if it was made before, and sent then. */
  announced: Announced | null;
}

/** A larger change is not sent: other windows read the study again. */
const LARGEST_TOLD = 64 * 1024;

const told = (change: Change): Change | null => (JSON.stringify(change).length > LARGEST_TOLD ? null : change);

/** Refuses a change made on an older revision, and lists the changes since. */
export async function refuseStale(q: Queries, study: StudyRow, revision: number): Promise<void> {
  if (study.revision === revision) return;
  const since = await q
    .select({
      revision: changes.revision,
      token: changes.token,
      kind: changes.kind,
      text: changes.text,
      who: changes.who,
      detail: changes.detail,
    })
    .from(changes)
    .where(and(eq(changes.studyId, study.id), gt(changes.revision, revision)))
    .orderBy(desc(changes.revision))
    .limit(MOST_BETWEEN + 1);
  const between = since.reverse().map(({ kind, detail, ...entry }): Announced => {
    const change = changeSchema.safeParse(fromOlder(detail));
    return { ...entry, change: kind === 'add-columns' || !change.success ? null : told(change.data) };
  });
  throw new StoreError(
    'stale',
    `This study has changed: it is at change ${study.revision}, not at change ${revision}.`,
    {
      revision: study.revision,
      changes: since.slice(-5).map(({ text, who }) => `${text} (${who})`),
      ...(between.length <= MOST_BETWEEN ? { between } : {}),
    },
  );
}

/** More changes than this in between are not listed one by one. */
const MOST_BETWEEN = 50;

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
  const { inverse, text, reason = null, place, cells = null } = entry.applied;
  const where = { placeColumn: place?.column ?? null, placeRow: place?.row ?? null };
  const row = { revision, token, kind, detail, inverse, text, reason, who, undoes, cells, ...where };
  const link = linkChange(study, { ...row, at: at.toISOString() });
  await q.insert(changes).values({ studyId: study.id, ...row, ...link, at });
  const uncounted = { subjectCount: null, subjectBins: null, subjectFault: null };
  await q
    .update(studies)
    .set({ revision, entries: study.entries, head: study.head, changedAt: at, changedBy: who, ...uncounted })
    .where(eq(studies.id, study.id));
  return { revision, text };
}

/** A change that came twice because its first answer was lost is answered again, not done again. */
export async function alreadyDone(q: Queries, studyId: string, token: string): Promise<Changed | null> {
  const [found] = await q
    .select({ revision: changes.revision, text: changes.text })
    .from(changes)
    .where(and(eq(changes.studyId, studyId), eq(changes.token, token)));
  return found ?? null;
}

/** The study and its columns as a change finds them. */
export async function contextOf(q: Queries, study: StudyRow, who: string, at: Date): Promise<Context> {
  refuseBinned(study);
  refuseRuled(study);
  const all = await q.select().from(columns).where(eq(columns.studyId, study.id)).orderBy(asc(columns.position));
  return { q, study, columns: all, who, at };
}

/** What the record keeps of a change: the cells of new columns stand in the columns themselves, and are not written twice; it has their digests. */
function recorded(change: Change): Change {
  if (change.kind !== 'add-columns') return change;
  return { ...change, columns: change.columns.map((column) => ({ ...column, cells: [] })) };
}

async function carryOut(
  q: Queries,
  study: StudyRow,
  entry: Omit<Entry, 'applied' | 'kind' | 'detail'>,
  change: Change,
): Promise<Made> {
  const context = await contextOf(q, study, entry.who, entry.at);
  await refuseObjection(context, change);
  const applied = await applyChange(context, change);
  const done = await recordChange(q, study, { ...entry, kind: change.kind, detail: recorded(change), applied });
  return { done, announced: { ...done, token: entry.token, who: entry.who, change: told(change) } };
}

/** One edit, one transaction, one entry in the record. */
export async function makeChange(db: Database, studyId: string, request: ChangeRequest): Promise<Made> {
  return db.transaction(async (q) => {
    // The lock comes first: the same change, sent again while its first sending is still at work, waits and then finds it done.
    const study = await lockStudy(q, studyId);
    const done = await alreadyDone(q, studyId, request.token);
    if (done) return { done, announced: null };
    await refuseStale(q, study, request.revision);
    refuseAsked(request.change);
    return carryOut(q, study, { token: request.token, who: request.who, at: new Date() }, request.change);
  });
}

/** Undo, redo or taking back as a change of its own: the record only grows. */
export async function stepBack(db: Database, studyId: string, request: StepRequest): Promise<Made> {
  return db.transaction(async (q) => {
    const study = await lockStudy(q, studyId);
    const done = await alreadyDone(q, studyId, request.token);
    if (done) return { done, announced: null };
    await refuseStale(q, study, request.revision);
    let target = request.target ?? 0;
    if (request.step !== 'take-back') {
      const next = (await standingChanges(q, studyId))[request.step];
      if (!next) throw new StoreError('nothing-to-undo', `There is nothing to ${request.step}.`);
      target = next.revision;
    }
    const inverse = await inverseOf(q, studyId, target);
    if (request.step === 'take-back') await refuseBuiltOn(q, studyId, target, inverse);
    return carryOut(q, study, { token: request.token, who: request.who, at: new Date(), undoes: target }, inverse);
  });
}
