import type { Decision, MarkedReading, PartsBy, Study, StudyColumn, StudySummary, Verdict } from '@verdict/contract';
import { smallBins } from '@verdict/core/analyses';
import type { Sample } from '@verdict/core/readings';
import { sampleInParts } from '@verdict/core/table';
import { and, asc, count, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm';
import { readCellsAsJson } from './cells.js';
import { standingChanges } from './history.js';
import { isDatabaseGone, type Database } from './database.js';
import { notFound } from './errors.js';
import { columns, MARKS, studies, verdicts, type MarkTable } from './schema.js';
import { readTable, standingColumns, type ColumnRow } from './tables.js';

type StudyRow = typeof studies.$inferSelect;

export async function createStudy(
  db: Database,
  { id, ...begun }: Pick<StudyRow, 'id' | 'name'> & Partial<Pick<StudyRow, 'asks' | 'example'>>,
): Promise<string> {
  await db.insert(studies).values({ id, ...begun, changedAt: new Date() });
  return id;
}

export async function countStudies(db: Database): Promise<number> {
  const [row] = await db.select({ n: count() }).from(studies);
  return row?.n ?? 0;
}

function toColumn({ studyId: _, position: __, removed: ___, ...column }: ColumnRow): StudyColumn {
  return column;
}

/** The studies in use, or those in the bin, the last changed first: one query, whatever they hold. */
export async function listStudies(db: Database, bin: boolean): Promise<StudySummary[]> {
  const rows = await db
    .select({ study: studies, subject: columns.name, decision: verdicts.decision, family: verdicts.family })
    .from(studies)
    .leftJoin(
      columns,
      and(eq(columns.id, studies.subject), eq(columns.studyId, studies.id), eq(columns.removed, false)),
    )
    .leftJoin(verdicts, and(eq(verdicts.studyId, studies.id), eq(studies.state, 'ruled'), isNull(verdicts.reopenAt)))
    .where(bin ? isNotNull(studies.deletedAt) : isNull(studies.deletedAt))
    .orderBy(desc(studies.changedAt), asc(studies.id), desc(verdicts.at));
  const names = await namesOfColumns(db);
  // A study with two verdicts that both stand would be listed twice: the newest counts.
  return rows
    .filter(({ study }, i) => study.id !== rows[i - 1]?.study.id)
    .map((row) => toSummary(row, names.get(row.study.id) ?? []));
}

/** The names of the columns of all studies, in their order. */
async function namesOfColumns(db: Database): Promise<Map<string, string[]>> {
  const { studyId, name, removed, position } = columns;
  const rows = await db
    .select({ studyId, name })
    .from(columns)
    .where(eq(removed, false))
    .orderBy(asc(studyId), asc(position));
  const names = new Map<string, string[]>();
  for (const row of rows) {
    const own = names.get(row.studyId);
    if (own) own.push(row.name);
    else names.set(row.studyId, [row.name]);
  }
  return names;
}

/**
 * A text that is another one as soon as the list would be: everything listed stands in the study's own row or moves its revision on. Far
 * quicker than the list itself.
 */
export async function listDigest(db: Database): Promise<string> {
  const { id, revision, name, state, subject, subjectCount, subjectFault, deletedAt, changedAt } = studies;
  const row = sql`concat_ws('|', ${id}, ${revision}, ${name}, ${state}, ${subject}, ${subjectCount}, ${subjectFault}, ${deletedAt}, ${changedAt})`;
  const [found] = await db
    .select({
      digest: sql<string>`concat_ws('/', count(*), sum(${revision}), count(${subjectCount}), sum(crc32(${row})))`,
    })
    .from(studies);
  return found?.digest ?? '';
}

const LOST_SUBJECT = 'Its subject is a column that it does not have. Open it and choose another.';

interface Listed {
  study: StudyRow;
  subject: string | null;
  decision: Decision | null;
  family: string | null;
}

function toSummary({ study, subject, decision, family }: Listed, names: string[]): StudySummary {
  const fault = study.subject !== null && subject === null ? LOST_SUBJECT : study.subjectFault;
  return {
    ...{ id: study.id, name: study.name, state: study.state, decision, subject, n: study.subjectCount, fault },
    ...{ question: study.question, asks: study.asks, tags: study.tags, family, example: study.example },
    ...{ columns: names, bins: study.subjectBins, changedBy: study.changedBy },
    counting: subject !== null && study.subjectCount === null && fault === null,
    rowCount: study.rowCount,
    revision: study.revision,
    changedAt: study.changedAt.toISOString(),
    deletedAt: study.deletedAt?.toISOString() ?? null,
    openedAt: study.openedAt?.toISOString() ?? null,
  };
}

/** Counts the subject's readings and keeps the number with the study, unless it is changed meanwhile. */
export async function countSubject(db: Database, studyId: string): Promise<void> {
  const [study] = await db.select().from(studies).where(eq(studies.id, studyId));
  if (!study?.subject || study.subjectCount !== null) return;
  const counted = await readSample(db, studyId, study.subject).then(
    ({ sample }) => ({
      subjectCount: sample.values.length,
      subjectBins: sample.levels ? null : smallBins(sample.values, sample.resolution),
    }),
    (error: unknown) => {
      if (isDatabaseGone(error)) throw error;
      return { subjectFault: 'Its readings cannot be counted. Open it to see them.' };
    },
  );
  const asRead = and(eq(studies.id, studyId), eq(studies.revision, study.revision));
  await db.update(studies).set(counted).where(asRead);
}

async function readVerdicts(db: Database, studyId: string): Promise<Verdict[]> {
  const rows = await db.select().from(verdicts).where(eq(verdicts.studyId, studyId)).orderBy(desc(verdicts.at));
  return rows.map(({ studyId: _, at, reopenAt, reopenReason, reopenWho, ...verdict }) => ({
    ...verdict,
    at: at.toISOString(),
    reopened: reopenAt && { reason: reopenReason ?? '', who: reopenWho ?? '', at: reopenAt.toISOString() },
  }));
}

const toMarked = ({ columnId, row, reason, who, at }: MarkTable['$inferSelect']): MarkedReading => ({
  ...{ column: columnId, row, reason, who, at: at.toISOString() },
});

/** Everything about a study but its cells. */
export async function readStudy(db: Database, studyId: string): Promise<Study> {
  const [study] = await db.select().from(studies).where(eq(studies.id, studyId));
  if (!study) throw notFound('study');
  const marked = (table: MarkTable) =>
    db.select().from(table).where(eq(table.studyId, studyId)).orderBy(asc(table.row));
  const [rows, aside, left, steps, ruled] = await Promise.all([
    standingColumns(db, studyId),
    marked(MARKS.aside),
    marked(MARKS.leftIn),
    standingChanges(db, studyId),
    readVerdicts(db, studyId),
  ]);
  const { id, name, question, state, asks, tags, alpha, quantileType, subject, revision, rowCount } = study;
  return {
    ...{ id, name, question, state, asks, tags, alpha, quantileType, subject, revision, rowCount },
    columns: rows.map(toColumn),
    setAside: aside.map(toMarked),
    leftIn: left.map(toMarked),
    verdicts: ruled,
    canUndo: steps.undo?.text ?? null,
    canRedo: steps.redo?.text ?? null,
    ...{ entries: study.entries, head: study.head, notVerified: study.notVerified },
  };
}

/** The cells of all written columns with the revision they belong to, read in one consistent view, as the text of a JSON object. */
export async function readStudyCells(db: Database, studyId: string, gone: () => boolean): Promise<string> {
  return db.transaction(async (q) => {
    const [study] = await q.select().from(studies).where(eq(studies.id, studyId));
    if (!study) throw notFound('study');
    const written = (await standingColumns(q, studyId)).filter(({ derivation }) => !derivation);
    const ids = written.map(({ id }) => id);
    return `{"revision":${study.revision},"cells":${await readCellsAsJson(q, ids, study.rowCount, gone)}}`;
  });
}

/** A column's readings as an analysis takes them, in parts where that is asked for, and the revision they belong to. */
export async function readSample(
  db: Pick<Database, 'transaction'>,
  studyId: string,
  columnId: string,
  parts: PartsBy | null = null,
): Promise<{ sample: Sample; revision: number }> {
  return db.transaction(async (q) => {
    const [study] = await q.select().from(studies).where(eq(studies.id, studyId));
    if (!study) throw notFound('study');
    const others = parts === null ? [] : 'split' in parts ? [parts.split] : parts.beside;
    const table = await readTable(q, study, [columnId, ...others]);
    const columnOf = (wanted: string) => {
      const column = table.columns.find(({ id }) => id === wanted);
      if (!column) throw notFound('column');
      return column;
    };
    const by = parts && ('split' in parts ? { split: columnOf(parts.split) } : { beside: parts.beside.map(columnOf) });
    return { sample: sampleInParts(table, columnOf(columnId), by), revision: study.revision };
  });
}
