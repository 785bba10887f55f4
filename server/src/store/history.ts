import {
  changeSchema,
  footprintOf,
  fromOlder,
  OUTSIDE_READINGS,
  overlap,
  type Change,
  type RecordEntry,
} from '@verdict/contract';
import { and, asc, desc, eq, gt, isNotNull, lt, notInArray } from 'drizzle-orm';
import type { Database, Queries } from './database.js';
import { StoreError } from './errors.js';
import { changes, columns } from './schema.js';
import { requireStudy } from './study-row.js';

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

/** Changes that are read at first: nearly always the one to undo is among them. */
const UNDO_DEPTH = 500;

/** The changes that undo and redo would take, however far back they are. */
export async function standingChanges(q: Queries, studyId: string) {
  for (let depth = UNDO_DEPTH; ; depth *= 10) {
    const rows = await q
      .select({ revision: changes.revision, undoes: changes.undoes, text: changes.text, kind: changes.kind })
      .from(changes)
      .where(and(eq(changes.studyId, studyId), notInArray(changes.kind, ['bin', 'restore'])))
      .orderBy(desc(changes.revision))
      .limit(depth);
    // The inverse may be large (a column of cells); whether there is one follows from the kind.
    const found = undoAndRedo(rows.map((row) => ({ ...row, inverse: OUTSIDE_READINGS.has(row.kind) ? null : true })));
    // A pair of change and undo may be cut apart by the limit: only what is found within is certain.
    if (rows.length < depth || (found.undo && !rows.some(({ undoes }) => undoes && undoes < rows.at(-1)!.revision)))
      return found;
  }
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
export async function inverseOf(q: Queries, studyId: string, revision: number): Promise<Change> {
  const [found] = await q
    .select({ inverse: changes.inverse })
    .from(changes)
    .where(and(eq(changes.studyId, studyId), eq(changes.revision, revision)));
  if (!found?.inverse) throw new StoreError('nothing-to-undo', `Change ${revision} cannot be undone.`);
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
export async function refuseBuiltOn(q: Queries, studyId: string, target: number, inverse: Change): Promise<void> {
  const later = await q
    .select({ revision: changes.revision, kind: changes.kind, undoes: changes.undoes, text: changes.text })
    .from(changes)
    .where(and(eq(changes.studyId, studyId), gt(changes.revision, target)))
    .orderBy(asc(changes.revision));
  const standing = standingAfter(later, target);
  const touched = footprintOf(inverse, grownFrom(inverse));
  for (const { revision, kind, undoes, text } of later) {
    // A verdict and its reopening touch no readings.
    if (!standing.has(revision) || OUTSIDE_READINGS.has(kind)) continue;
    if (undoes === target)
      throw new StoreError('built-on', `Change ${target} is already undone, by change ${revision}.`);
    const [full] = await q
      .select({ detail: changes.detail, inverse: changes.inverse })
      .from(changes)
      .where(and(eq(changes.studyId, studyId), eq(changes.revision, revision)));
    const change = changeSchema.safeParse(fromOlder(full!.detail));
    // What cannot be read may have touched anything.
    if (!change.success) {
      const unread = `Change ${target} cannot be undone alone: change ${revision} (${text}) was made by another version of Verdict and cannot be read here. Undo that one first.`;
      throw new StoreError('built-on', unread);
    }
    const back = changeSchema.safeParse(fromOlder(full!.inverse));
    if (!overlap(touched, footprintOf(change.data, grownFrom(back.data ?? null)))) continue;
    const why = `Change ${target} cannot be undone alone: change ${revision} (${text}) affects the same place. Undo that one first.`;
    throw new StoreError('built-on', why);
  }
}

/** Entries of the record that are read at once. */
const MOST_RECORD = 5_000;

/** The record, the newest entry first. @param before only entries with lower numbers: the next page */
export async function readRecord(db: Database, studyId: string, before?: number): Promise<RecordEntry[]> {
  await requireStudy(db, studyId);
  const steps = await db
    .select({ revision: changes.revision, undoes: changes.undoes })
    .from(changes)
    .where(eq(changes.studyId, studyId));
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
    .where(and(eq(changes.studyId, studyId), before === undefined ? undefined : lt(changes.revision, before)))
    .orderBy(desc(changes.revision))
    .limit(MOST_RECORD);
  const standing = standingAfter(steps, 0);
  const undoneBy = new Map(
    steps.flatMap(({ revision, undoes }) => (undoes === null ? [] : [[undoes, revision] as const])),
  );
  return rows.map(({ placeColumn, placeRow, ...row }) => ({
    ...row,
    kind: row.kind as RecordEntry['kind'],
    at: row.at.toISOString(),
    undoneBy: standing.has(row.revision) ? null : (undoneBy.get(row.revision) ?? null),
    place: placeColumn && placeRow ? { column: placeColumn, row: placeRow } : null,
  }));
}
