import {
  DECISIONS,
  JOB_STATES,
  LOG_KINDS,
  QUESTIONS,
  type Answer,
  type LookedCount,
  type PartsBy,
} from '@verdict/contract';
import type { QuantileType } from '@verdict/core/analyses';
import type { Levels } from '@verdict/core/readings';
import type { Derivation } from '@verdict/core/table';
import { sql } from 'drizzle-orm';
import {
  boolean,
  customType,
  datetime,
  double,
  index,
  int,
  mysqlTable,
  primaryKey,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';

/** JSON kept as text: MariaDB has no binary JSON, and text gives back the very digits that were written. */
const json = <T>() =>
  customType<{ data: T; driverData: string }>({
    dataType: () => 'longtext',
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (text) => JSON.parse(text) as T,
  });
const longText = customType<{ data: string; driverData: string }>({ dataType: () => 'longtext' });

/** Doubles as they stand in memory: little-endian on every machine that this runs on. */
const numbers = customType<{ data: Float64Array; driverData: Buffer }>({
  dataType: () => 'longblob',
  toDriver: (values) => Buffer.from(values.buffer, values.byteOffset, values.byteLength),
  fromDriver: (bytes) => new Float64Array(Uint8Array.from(bytes).buffer),
});

/** Compared byte by byte: two ids that differ in case only are two. */
const id = (name = 'id') => customType<{ data: string }>({ dataType: () => 'varchar(36) COLLATE utf8mb4_bin' })(name);
/** A definition of quantiles, kept as it is written: a number or `hinges`. */
const quantileType = customType<{ data: QuantileType; driverData: string }>({
  dataType: () => 'varchar(6)',
  fromDriver: (text) => (text === 'hinges' ? text : (Number(text) as QuantileType)),
  toDriver: String,
});
const time = (name: string) => datetime(name, { fsp: 3 });

export const studies = mysqlTable('studies', {
  id: id().primaryKey(),
  name: varchar('name', { length: 120 }).notNull().default(''),
  question: varchar('question', { length: 500 }).notNull().default(''),
  state: varchar('state', { length: 10, enum: ['open', 'ruled'] })
    .notNull()
    .default('open'),
  /** What it is about, where that was said. */
  asks: varchar('asks', { length: 20, enum: QUESTIONS }),
  tags: json<string[]>()('tags')
    .notNull()
    .default(sql`'[]'`),
  alpha: double('alpha').notNull().default(0.05),
  quantileType: quantileType('quantile_type').notNull().default(7),
  subject: id('subject'),
  revision: int('revision').notNull().default(0),
  rowCount: int('row_count').notNull().default(0),
  /** The number of readings of the subject, calculated for the list when needed; null once a change may have altered it. */
  subjectCount: int('subject_count'),
  /** Their counts in bins, for a small picture; calculated together with the number. */
  subjectBins: json<number[] | null>()('subject_bins'),
  /** Why its readings could not be counted. */
  subjectFault: varchar('subject_fault', { length: 200 }),
  changedAt: time('changed_at').notNull(),
  /** Who made the last change; null while nothing was done. */
  changedBy: varchar('changed_by', { length: 80 }),
  deletedAt: time('deleted_at'),
  /** When it was opened from a saved file; null where it began here. */
  openedAt: time('opened_at'),
  /** One of the examples that come with a new installation. */
  example: boolean('example').notNull().default(false),
  /** The end of its chain: entries, and the hash of the last one. */
  entries: int('entries').notNull().default(0),
  head: varchar('head', { length: 64 }),
  /** The ids that its chain has for those it has here; null where it began here. */
  origins: json<Record<string, string> | null>()('origins'),
  /** What its record was found not to agree with. */
  notVerified: varchar('not_verified', { length: 600 }),
});

export const columns = mysqlTable(
  'columns',
  {
    id: id().primaryKey(),
    studyId: id('study_id').notNull(),
    position: int('position').notNull(),
    name: varchar('name', { length: 80 }).notNull(),
    unit: varchar('unit', { length: 20 }).notNull(),
    kind: varchar('kind', { length: 10, enum: ['measure', 'label', 'count'] }).notNull(),
    decimal: varchar('decimal_mark', { length: 10, enum: ['point', 'comma'] }).notNull(),
    thousands: varchar('thousands_mark', {
      length: 12,
      enum: ['none', 'comma', 'point', 'blank', 'apostrophe'],
    }).notNull(),
    resolution: double('resolution'),
    lowerLimit: double('lower_limit'),
    target: double('target'),
    upperLimit: double('upper_limit'),
    claimedMean: double('claimed_mean'),
    claimedSd: double('claimed_sd'),
    levels: json<Levels>()('levels'),
    frequencies: id('frequencies'),
    derivation: json<Derivation>()('derivation'),
    removed: boolean('removed').notNull().default(false),
  },
  (table) => [index('columns_of_study').on(table.studyId, table.position)],
);

/** 1 000 cells as written; rows beyond the last written one are simply absent. */
export const cellBlocks = mysqlTable(
  'cell_blocks',
  {
    columnId: id('column_id').notNull(),
    block: int('block').notNull(),
    cells: json<string[]>()('cells').notNull(),
  },
  (table) => [primaryKey({ columns: [table.columnId, table.block] })],
);

/** Columns of running imports: an import stores cells before it becomes part of the study, so that nobody has to wait for it. */
export const stagedColumns = mysqlTable('staged_columns', { id: id().primaryKey(), at: time('at').notNull() });

/** Readings that are marked, each with its reason, by whom and when. */
const readingMarks = <const Name extends string>(name: Name) =>
  mysqlTable(
    name,
    {
      columnId: id('column_id').notNull(),
      row: int('row_number').notNull(),
      studyId: id('study_id').notNull(),
      reason: varchar('reason', { length: 1000 }).notNull(),
      who: varchar('who', { length: 80 }).notNull(),
      at: time('at').notNull(),
    },
    (table) => [primaryKey({ columns: [table.columnId, table.row] }), index(`${name}_of_study`).on(table.studyId)],
  );
export const setAside = readingMarks('set_aside');
/** Far readings that were looked at and left in on purpose. */
export const leftIn = readingMarks('left_in');

/** The tables of marked readings: set aside, or left in on purpose. Of one shape. */
export const MARKS = { aside: setAside, leftIn } as const;
export type MarkTable = (typeof MARKS)[keyof typeof MARKS];

/** The record: append-only. `inverse` is the change that takes this one back; null where nothing can. */
export const changes = mysqlTable(
  'changes',
  {
    studyId: id('study_id').notNull(),
    revision: int('revision').notNull(),
    token: id('token').notNull(),
    kind: varchar('kind', { length: 20 }).notNull(),
    detail: json<unknown>()('detail').notNull(),
    inverse: json<unknown>()('inverse'),
    text: varchar('text', { length: 600 }).notNull(),
    reason: varchar('reason', { length: 1000 }),
    who: varchar('who', { length: 80 }).notNull(),
    at: time('at').notNull(),
    /** The revision this change takes back (undo) or brings back (redo). */
    undoes: int('undoes'),
    /** The first cell it touched, to go there from the record. */
    placeColumn: id('place_column'),
    placeRow: int('place_row'),
    /** SHA-256 of the cells of each column that it wrote and does not hold itself. */
    cells: json<Record<string, string> | null>()('cells'),
    /** Its number in the chain of the study, and its hash; null for entries from before the chain. */
    entry: int('entry'),
    hash: varchar('hash', { length: 64 }),
  },
  (table) => [
    primaryKey({ columns: [table.studyId, table.revision] }),
    uniqueIndex('change_once').on(table.studyId, table.token),
  ],
);

/** Entries of the chain that are no changes: append-only. */
export const studyLog = mysqlTable(
  'study_log',
  {
    studyId: id('study_id').notNull(),
    entry: int('entry').notNull(),
    kind: varchar('kind', { length: 10, enum: LOG_KINDS }).notNull(),
    evidenceId: id('evidence_id'),
    detail: json<Record<string, unknown>>()('detail').notNull(),
    who: varchar('who', { length: 80 }).notNull(),
    at: time('at').notNull(),
    hash: varchar('hash', { length: 64 }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.studyId, table.entry] })],
);

export const evidence = mysqlTable(
  'evidence',
  {
    id: id().primaryKey(),
    studyId: id('study_id').notNull(),
    columnId: id('column_id'),
    parts: json<PartsBy | null>()('parts'),
    analysis: varchar('analysis', { length: 60 }).notNull(),
    version: int('version').notNull(),
    appVersion: varchar('app_version', { length: 20 }).notNull(),
    request: json<Record<string, unknown>>()('request').notNull(),
    fingerprint: varchar('fingerprint', { length: 64 }).notNull(),
    revision: int('revision').notNull(),
    seed: double('seed'),
    result: json<unknown>()('result').notNull(),
    method: longText('method').notNull(),
    finding: json<{ text: string; strong?: boolean; code?: string }[]>()('finding').notNull(),
    note: varchar('note', { length: 2000 }).notNull(),
    /** Its place in the report, if the pieces were put in order. */
    place: int('place'),
    leftOut: boolean('left_out').notNull().default(false),
    leads: boolean('leads').notNull().default(false),
    answers: json<Answer[]>()('answers')
      .notNull()
      .default(sql`'[]'`),
    /** The piece that it replaces. */
    replaces: id('replaces'),
    /** When the server last worked it out itself, and whether it came out the same; null: not yet. */
    recomputedAt: time('recomputed_at'),
    recomputedSame: boolean('recomputed_same'),
    who: varchar('who', { length: 80 }).notNull(),
    at: time('at').notNull(),
  },
  (table) => [index('evidence_of_study').on(table.studyId, table.at)],
);

/** Long work that the server does; `result` is null until it has ended well. */
export const jobs = mysqlTable(
  'jobs',
  {
    id: id().primaryKey(),
    studyId: id('study_id').notNull(),
    /** Null for results that need no column. */
    columnId: id('column_id'),
    parts: json<PartsBy | null>()('parts'),
    analysis: varchar('analysis', { length: 60 }).notNull(),
    version: int('version').notNull(),
    request: json<Record<string, unknown>>()('request').notNull(),
    fingerprint: varchar('fingerprint', { length: 64 }).notNull(),
    method: longText('method').notNull(),
    place: longText('place').notNull(),
    state: varchar('state', { length: 10, enum: JOB_STATES }).notNull().default('running'),
    share: double('share').notNull().default(0),
    problem: varchar('problem', { length: 500 }),
    result: json<unknown>()('result'),
    who: varchar('who', { length: 80 }).notNull(),
    at: time('at').notNull(),
    endedAt: time('ended_at'),
  },
  (table) => [index('jobs_of_study').on(table.studyId, table.at)],
);

/** Chunks of repeated work that are done, so that a restart goes on where it was; gone once the job has its result. */
export const jobChunks = mysqlTable(
  'job_chunks',
  {
    jobId: id('job_id').notNull(),
    /** SHA-256 of the order that the chunk belongs to. */
    order: varchar('order_key', { length: 64 }).notNull(),
    chunk: int('chunk').notNull(),
    numbers: numbers('numbers').notNull(),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.order, table.chunk] })],
);

export const verdicts = mysqlTable(
  'verdicts',
  {
    id: id().primaryKey(),
    studyId: id('study_id').notNull(),
    decision: varchar('decision', {
      length: 30,
      enum: DECISIONS,
    }).notNull(),
    /** The family that the decision names. */
    family: varchar('family', { length: 80 }),
    reason: varchar('reason', { length: 1000 }).notNull(),
    /** Why cautions were left open. */
    leftOpen: varchar('left_open', { length: 1000 }).notNull().default(''),
    looked: json<LookedCount | null>()('looked'),
    evidence: json<string[]>()('evidence').notNull(),
    revision: int('revision').notNull(),
    who: varchar('who', { length: 80 }).notNull(),
    at: time('at').notNull(),
    reopenReason: varchar('reopen_reason', { length: 1000 }),
    reopenWho: varchar('reopen_who', { length: 80 }),
    reopenAt: time('reopen_at'),
  },
  (table) => [index('verdicts_of_study').on(table.studyId, table.at)],
);

/** Results that were looked at, each once: what a verdict rests on is weighed against how much was looked at. */
export const looks = mysqlTable(
  'looks',
  {
    studyId: id('study_id').notNull(),
    digest: varchar('digest', { length: 64 }).notNull(),
    analysis: varchar('analysis', { length: 60 }).notNull(),
    columnId: id('column_id'),
    /** How many tests it shows the p of. */
    tests: int('tests').notNull(),
    at: time('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.studyId, table.digest] })],
);
