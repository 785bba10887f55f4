import {
  askedObjection,
  changeSchema,
  footprintOf,
  objectionTo,
  overlap,
  type Announced,
  type Change,
  type ChangeRequest,
  type RecordEntry,
  type StepRequest,
  type StudyNow,
} from '@verdict/contract';
import { and, asc, desc, eq, gt, inArray, isNotNull } from 'drizzle-orm';
import { applyChange } from './apply/apply.js';
import type { Applied, Context } from './apply/context.js';
import { reachOfCells } from './cells.js';
import type { Database, Queries } from './database.js';
import { notFound, StoreError } from './errors.js';
import { changes, columns, setAside, stagedColumns, studies } from './schema.js';

type StudyRow = typeof studies.$inferSelect;

/** Where the study stands after a change. */
export interface Changed {
  revision: number;
  text: string;
}

/** A change with what the other windows on the study have to hear of it. */
export interface Made {
  done: Changed;
  /** Null where it was done before, and told then. */
  announced: Announced | null;
}

/** A larger change is not sent along: who hears of it reads the study again. */
const LARGEST_TOLD = 64 * 1024;

const told = (change: Change): Change | null => (JSON.stringify(change).length > LARGEST_TOLD ? null : change);

/** The study, locked until the transaction ends: every other change of it waits. */
export async function lockStudy(q: Queries, studyId: string): Promise<StudyRow> {
  const [study] = await q.select().from(studies).where(eq(studies.id, studyId)).for('update');
  if (!study) throw notFound('study');
  refuseBinned(study);
  return study;
}

export function refuseBinned(study: StudyRow): void {
  if (study.deletedAt) throw new StoreError('binned', 'This study is in the bin. Restore it before working on it.');
}

/** Refuses what is asked about a study that is not there. */
export async function requireStudy(q: Queries, studyId: string): Promise<StudyRow> {
  const [study] = await q.select().from(studies).where(eq(studies.id, studyId));
  if (!study) throw notFound('study');
  return study;
}

/** Refuses what was made on an older revision than the study has, and says what came in between. */
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
  throw new StoreError('stale', `This study has moved on from change ${revision} to change ${study.revision}.`, {
    revision: study.revision,
    changes: since.slice(-5).map(({ text, who }) => `${text} (${who})`),
    ...(between.length <= MOST_BETWEEN ? { between } : {}),
  });
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
  const { inverse, text, reason = null, place } = entry.applied;
  const where = { placeColumn: place?.column ?? null, placeRow: place?.row ?? null };
  await q
    .insert(changes)
    .values({ studyId: study.id, revision, token, kind, detail, inverse, text, reason, who, at, undoes, ...where });
  await q
    .update(studies)
    .set({ revision, changedAt: at, subjectCount: null, subjectFault: null })
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

export function refuseRuled(study: StudyRow): void {
  if (study.state === 'ruled') {
    throw new StoreError('ruled', 'This study has its verdict. Reopen it, with a reason, before changing anything.');
  }
}

/** The study and its columns as a change finds them. */
export async function contextOf(q: Queries, study: StudyRow, who: string, at: Date): Promise<Context> {
  refuseBinned(study);
  refuseRuled(study);
  const all = await q.select().from(columns).where(eq(columns.studyId, study.id)).orderBy(asc(columns.position));
  return { q, study, columns: all, who, at };
}

/** What the record keeps of a change: the cells of new columns stand in the columns themselves, and are not written twice. */
function recorded(change: Change): Change {
  if (change.kind !== 'add-columns') return change;
  return { ...change, columns: change.columns.map((column) => ({ ...column, cells: [], aside: [] })) };
}

/** Refuses what cannot be done to the study as it is, before anything is done. */
export async function refuseObjection(context: Context, change: Change, reach?: number): Promise<void> {
  const objection = objectionTo(change, await studyNow(context, change), reach);
  if (objection) throw new StoreError('invalid', objection.detail, { field: objection.field });
  if (change.kind === 'add-columns') await refuseTaken(context, change, reach === undefined);
}

/** An id names one column, whichever study it is in. @param fresh no cells of these columns were stored before */
async function refuseTaken(
  { q }: Context,
  change: Extract<Change, { kind: 'add-columns' }>,
  fresh: boolean,
): Promise<void> {
  const ids = change.columns.map(({ id }) => id);
  const [taken] = await q.select({ id: columns.id }).from(columns).where(inArray(columns.id, ids)).limit(1);
  const [staged] = fresh ? await q.select().from(stagedColumns).where(inArray(stagedColumns.id, ids)).limit(1) : [];
  if (taken || staged) throw new StoreError('invalid', 'A new column has the id of another.', { field: 'columns' });
}

/** What the change is looked at against; what only some changes ask about is read for those alone. */
async function studyNow({ q, study, columns: all }: Context, change: Change): Promise<StudyNow> {
  const asked = change.kind === 'set-aside' || change.kind === 'put-back' ? change.readings : [];
  const ids = [...new Set(asked.map(({ column }) => column))];
  const aside = ids.length
    ? await q
        .select({ column: setAside.columnId, row: setAside.row })
        .from(setAside)
        .where(inArray(setAside.columnId, ids))
    : [];
  const places = new Set(aside.map(({ column, row }) => `${column}/${row}`));
  const returning = change.kind === 'return-columns' ? change.columns : [];
  const reach = new Map<string, number>();
  for (const { id, removed, derivation } of all) {
    if (!removed || !returning.includes(id)) continue;
    reach.set(id, derivation?.kind === 'made-up' ? derivation.count : await reachOfCells(q, id));
  }
  return {
    rowCount: study.rowCount,
    columns: all,
    isAside: (column, row) => places.has(`${column}/${row}`),
    reachOf: (id) => reach.get(id) ?? 0,
  };
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
    const objection = askedObjection(request.change);
    if (objection) throw new StoreError('invalid', objection.detail, { field: objection.field });
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

/** Changes recorded by version 0.1 list single cells where there are runs now. */
export function fromOlder(inverse: unknown): unknown {
  const { kind, cells, ...rest } = (inverse ?? {}) as {
    kind?: string;
    cells?: { column: string; row: number; text: string }[];
  };
  if (kind !== 'edit-cells' || !cells) return inverse;
  return { kind, ...rest, runs: cells.map(({ column, row, text }) => ({ column, row, texts: [text] })) };
}

/** Rows that come back bring nothing for a column that has come to follow others since: its values follow. */
async function withoutDerived(q: Queries, studyId: string, change: Change): Promise<Change> {
  if (change.kind !== 'insert-rows' || !change.contents) return change;
  const following = await q
    .select({ id: columns.id })
    .from(columns)
    .where(and(eq(columns.studyId, studyId), isNotNull(columns.derivation)));
  const ids = new Set(following.map(({ id }) => id));
  return { ...change, contents: change.contents.filter(({ column }) => !ids.has(column)) };
}

/** The change that takes a recorded one back. */
async function inverseOf(q: Queries, studyId: string, revision: number): Promise<Change> {
  const [found] = await q
    .select({ inverse: changes.inverse })
    .from(changes)
    .where(and(eq(changes.studyId, studyId), eq(changes.revision, revision)));
  if (!found?.inverse) throw new StoreError('nothing-to-undo', `Change ${revision} cannot be taken back.`);
  return withoutDerived(q, studyId, changeSchema.parse(fromOlder(found.inverse)));
}

const grownFrom = (inverse: Change | null): number | null =>
  inverse && 'rowCount' in inverse && inverse.rowCount !== undefined ? inverse.rowCount : null;

/** The later changes that still have an effect: one and its undo are none. */
function standingAfter(later: readonly { revision: number; undoes: number | null }[], target: number): Set<number> {
  const standing = new Set(later.map(({ revision }) => revision));
  for (const { revision, undoes } of [...later].sort((a, b) => b.revision - a.revision)) {
    if (!standing.has(revision) || undoes === null || undoes <= target) continue;
    standing.delete(revision);
    standing.delete(undoes);
  }
  return standing;
}

/** Refuses to take back a change that is taken back already, or that a later one builds on; says which. */
async function refuseBuiltOn(q: Queries, studyId: string, target: number, inverse: Change): Promise<void> {
  const later = await q
    .select({ revision: changes.revision, undoes: changes.undoes, text: changes.text })
    .from(changes)
    .where(and(eq(changes.studyId, studyId), gt(changes.revision, target)))
    .orderBy(asc(changes.revision));
  const standing = standingAfter(later, target);
  const touched = footprintOf(inverse, grownFrom(inverse));
  for (const { revision, undoes, text } of later) {
    if (!standing.has(revision)) continue;
    if (undoes === target)
      throw new StoreError('built-on', `Change ${target} is already taken back, by change ${revision}.`);
    const [full] = await q
      .select({ detail: changes.detail, inverse: changes.inverse })
      .from(changes)
      .where(and(eq(changes.studyId, studyId), eq(changes.revision, revision)));
    const change = changeSchema.safeParse(fromOlder(full!.detail));
    if (!change.success) continue;
    const back = changeSchema.safeParse(fromOlder(full!.inverse));
    if (!overlap(touched, footprintOf(change.data, grownFrom(back.data ?? null)))) continue;
    const why = `Change ${target} cannot be taken back by itself: change ${revision} (${text}) touches the same place. Take that back first.`;
    throw new StoreError('built-on', why);
  }
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

const MOST_RECORD = 5_000;

export async function readRecord(db: Database, studyId: string): Promise<RecordEntry[]> {
  await requireStudy(db, studyId);
  const rows = await db
    .select({
      revision: changes.revision,
      kind: changes.kind,
      text: changes.text,
      reason: changes.reason,
      who: changes.who,
      at: changes.at,
      undoes: changes.undoes,
      placeColumn: changes.placeColumn,
      placeRow: changes.placeRow,
    })
    .from(changes)
    .where(eq(changes.studyId, studyId))
    .orderBy(desc(changes.revision))
    .limit(MOST_RECORD);
  const standing = standingAfter(rows, 0);
  const undoneBy = new Map(
    rows.flatMap(({ revision, undoes }) => (undoes === null ? [] : [[undoes, revision] as const])),
  );
  return rows.map(({ placeColumn, placeRow, ...row }) => ({
    ...row,
    kind: row.kind as RecordEntry['kind'],
    at: row.at.toISOString(),
    undoneBy: standing.has(row.revision) ? null : (undoneBy.get(row.revision) ?? null),
    place: placeColumn && placeRow ? { column: placeColumn, row: placeRow } : null,
  }));
}
