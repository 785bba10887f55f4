/** A study as the database holds it, a piece at a time, under the ids of its chain. */
import {
  outlineOf,
  studyWithIds,
  WITH_IDS,
  type CellBlocks,
  type ChangeHead,
  type NewId,
  type StudyFile,
  type StudySource,
} from '@verdict/contract';
import { and, asc, between, eq, inArray, max, sql } from 'drizzle-orm';
import { blocksOf } from './cells.js';
import { originalIds } from './chain.js';
import type { Queries } from './database.js';
import { cellBlocks, changes, columns, evidence, MARKS, studyLog, verdicts, type MarkTable } from './schema.js';
import { requireStudy, type StudyRow } from './study-row.js';

const timed = <Row extends { studyId: string; at: Date }>({ studyId: _, at, ...row }: Row) => ({
  ...row,
  at: at.toISOString(),
});

/** Characters of the record that are read at once, and rows. */
const READ_AT_ONCE = 4_000_000;
const ROWS_AT_ONCE = 200;

export interface StoredHead extends ChangeHead {
  size: number;
}

/** Where each change stands in the record and in the chain, and how long it is. */
export const headsOf = (q: Queries, studyId: string): Promise<StoredHead[]> => {
  const { revision, entry, hash, detail, inverse } = changes;
  const size = sql<number>`octet_length(${detail}) + coalesce(octet_length(${inverse}), 0)`.mapWith(Number);
  return q.select({ revision, entry, hash, size }).from(changes).where(eq(changes.studyId, studyId)).orderBy(revision);
};

/** Heads that are read with their changes at once. */
function* portionsOf(heads: readonly StoredHead[]): Generator<StoredHead[]> {
  let portion: StoredHead[] = [];
  let size = 0;
  for (const head of heads) {
    if (portion.length === ROWS_AT_ONCE || (portion.length > 0 && size + head.size > READ_AT_ONCE)) {
      yield portion;
      [portion, size] = [[], 0];
    }
    portion.push(head);
    size += head.size;
  }
  if (portion.length > 0) yield portion;
}

/** The changes of a study, from the first to the last or back. */
export async function* changesOf(
  q: Queries,
  studyId: string,
  heads: readonly StoredHead[],
  to: NewId,
  back = false,
): AsyncGenerator<StudyFile['changes'][number]> {
  for (const portion of portionsOf(back ? heads.toReversed() : heads)) {
    const [first, last] = [portion[0]!.revision, portion.at(-1)!.revision];
    const rows = await q
      .select()
      .from(changes)
      .where(and(eq(changes.studyId, studyId), between(changes.revision, Math.min(first, last), Math.max(first, last))))
      .orderBy(asc(changes.revision));
    for (const row of back ? rows.toReversed() : rows) yield WITH_IDS.changes(timed(row), to);
  }
}

/** The evidence of a study, one by one. */
export async function* evidenceOf(
  q: Queries,
  studyId: string,
  to: NewId,
): AsyncGenerator<StudyFile['evidence'][number]> {
  const { id, at } = evidence;
  for (const one of await q.select({ id }).from(evidence).where(eq(evidence.studyId, studyId)).orderBy(asc(at))) {
    const [piece] = await q.select().from(evidence).where(eq(id, one.id));
    const { recomputedAt: _, recomputedSame: __, ...row } = piece!;
    yield WITH_IDS.evidence(timed(row), to);
  }
}

/** The cells of columns of a study, by the id of each. */
export async function cellsOf(q: Queries, columnIds: readonly string[]): Promise<(id: string) => CellBlocks> {
  const last = max(cellBlocks.block);
  const reach = await q
    .select({ id: cellBlocks.columnId, last })
    .from(cellBlocks)
    .where(inArray(cellBlocks.columnId, [...columnIds, '']))
    .groupBy(cellBlocks.columnId);
  const counts = new Map(reach.map(({ id, last: block }) => [id, block! + 1]));
  return (id) => ({ count: counts.get(id) ?? 0, read: (from, count) => blocksOf(q, id, from, count) });
}

/** The small parts of a study. */
export async function smallParts(q: Queries, found: StudyRow) {
  const { id: studyId, name, question, state, asks, tags, alpha, quantileType, subject, revision, rowCount } = found;
  const to = originalIds(found);
  const own = await q.select().from(columns).where(eq(columns.studyId, studyId)).orderBy(asc(columns.position));
  const marked = async (table: MarkTable) =>
    (await q.select().from(table).where(eq(table.studyId, studyId)).orderBy(asc(table.row))).map((row) =>
      WITH_IDS.setAside(timed(row), to),
    );
  const log = await q.select().from(studyLog).where(eq(studyLog.studyId, studyId)).orderBy(asc(studyLog.entry));
  const ruled = await q.select().from(verdicts).where(eq(verdicts.studyId, studyId)).orderBy(asc(verdicts.at));
  const facts = { name, question, state, asks, tags, alpha, quantileType, subject, revision, rowCount };
  return {
    study: studyWithIds({ id: studyId, ...facts }, to),
    columns: own.map(({ studyId: _, ...column }) => ({ own: column.id, facts: WITH_IDS.columns(column, to) })),
    setAside: await marked(MARKS.aside),
    leftIn: await marked(MARKS.leftIn),
    // Each detail is of its kind: that is how they are written.
    log: log.map(({ evidenceId, ...row }) =>
      WITH_IDS.log({ ...timed(row), evidence: evidenceId } as unknown as StudyFile['log'][number], to),
    ),
    verdicts: ruled.map(({ reopenAt, ...verdict }) =>
      WITH_IDS.verdicts({ ...timed(verdict), reopenAt: reopenAt?.toISOString() ?? null }, to),
    ),
  };
}

/** A study as the check of its record reads it. Cells and changes are read while it goes on: only within one transaction. */
export async function recordedStudy(q: Queries, studyId: string): Promise<StudySource> {
  const found = await requireStudy(q, studyId);
  const to = originalIds(found);
  const { columns: all, ...small } = await smallParts(q, found);
  const heads = await headsOf(q, studyId);
  const outlines: StudySource['evidence'][number][] = [];
  for await (const piece of evidenceOf(q, studyId, to)) outlines.push(outlineOf(piece));
  return {
    ...{ ...small, columns: all.map(({ facts }) => facts), evidence: outlines, heads },
    cells: await cellsUnder(q, all),
    changes: (back) => changesOf(q, studyId, heads, to, back),
  };
}

/** The cells of columns by the ids that the chain has for them. A column that follows others has none. */
export async function cellsUnder(
  q: Queries,
  all: Awaited<ReturnType<typeof smallParts>>['columns'],
): Promise<StudySource['cells']> {
  const own = new Map(all.filter(({ facts }) => !facts.derivation).map(({ own: id, facts }) => [facts.id, id]));
  const cells = await cellsOf(q, [...own.values()]);
  return (id) => cells(own.get(id) ?? '');
}
