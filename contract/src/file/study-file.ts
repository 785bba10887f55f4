import { LONGEST_CELL } from '@verdict/core/readings';
import { derivationSchema } from '@verdict/core/table';
import { z } from 'zod';
import {
  askedKindSchema,
  columnSchema,
  idSchema,
  MOST_ROWS,
  tagsSchema,
  textSchema,
  quantileTypeSchema,
} from '../changes.js';
import { partsSchema } from '../evidence.js';
import { DECISIONS } from '../decisions.js';

/** What a study file says it is, and its version: a newer one is refused with that reason instead of being half read. */
export const STUDY_FILE = 'verdict study';
export const STUDY_FILE_VERSION = 2;
/** Version 1 has no chain. */
const READ_VERSIONS = [1, STUDY_FILE_VERSION] as const;

const time = z.iso.datetime();
const who = textSchema.max(80);
const row = z.int().min(1).max(MOST_ROWS);
/** What the database holds as a whole number. */
const GREATEST = 2 ** 31 - 1;
const revision = z.int().min(0).max(GREATEST);

const marked = z.strictObject({ columnId: idSchema, row, reason: textSchema.max(1000), who, at: time });

const hash = z.string().regex(/^[0-9a-f]{64}$/);

const lookedSchema = z.strictObject({ results: revision, tests: revision });

const answerSchema = z.strictObject({ to: textSchema.max(10_000), words: textSchema.max(1000), who, at: time });

const verdictSchema = z.strictObject({
  id: idSchema,
  decision: z.enum(DECISIONS),
  family: textSchema.max(80).nullable().default(null),
  reason: textSchema.max(1000),
  leftOpen: textSchema.max(1000).default(''),
  looked: lookedSchema.nullable().default(null),
  evidence: z.array(idSchema),
  revision,
  who,
  at: time,
  reopenReason: textSchema.max(1000).nullable(),
  reopenWho: who.nullable(),
  reopenAt: time.nullable(),
});

const arranged = {
  note: textSchema.max(2000),
  place: z.int().min(0).max(GREATEST).nullable(),
  leftOut: z.boolean(),
  leads: z.boolean(),
  answers: z.array(answerSchema).max(100),
};
const { note, leftOut, leads } = arranged;

/** What each entry of the log says. */
const LOG_DETAILS = {
  kept: z.strictObject({ content: hash, words: hash, note }),
  said: z.strictObject({
    ...z.object({ note, leftOut, leads }).partial().shape,
    answer: answerSchema.optional(),
  }),
  ordered: z.strictObject({ order: z.array(idSchema).max(1000) }),
  worded: z.strictObject({ words: hash }),
  opened: z.strictObject({
    app: textSchema.max(40),
    entries: revision,
    head: hash.nullable(),
    fault: textSchema.max(600).nullable(),
  }),
  /** A study as it stood when its chain began. */
  began: z.strictObject({
    changes: revision,
    changesDigest: hash,
    evidence: z.array(z.strictObject({ id: idSchema, content: hash, words: hash, ...arranged })),
    verdicts: z.array(verdictSchema),
    rowCount: z.int().min(0).max(MOST_ROWS),
    cells: z.record(idSchema, hash),
    factsDigest: hash,
    marksDigest: hash,
  }),
};
export type LogDetail = { [K in keyof typeof LOG_DETAILS]: z.infer<(typeof LOG_DETAILS)[K]> };
/** What happens to a study besides its changes. */
export const LOG_KINDS = Object.keys(LOG_DETAILS) as [keyof LogDetail, ...(keyof LogDetail)[]];

const logEntry = <K extends keyof typeof LOG_DETAILS>(kind: K) =>
  z.strictObject({
    ...{
      entry: revision.min(1),
      hash,
      kind: z.literal(kind),
      evidence: idSchema.nullable(),
      detail: LOG_DETAILS[kind],
    },
    ...{ who, at: time },
  });
const logSchema = z.discriminatedUnion('kind', [
  logEntry('kept'),
  logEntry('said'),
  logEntry('ordered'),
  logEntry('worded'),
  logEntry('opened'),
  logEntry('began'),
]);

/** What a study file says besides its lists. */
export const fileHeadSchema = z.strictObject({
  format: z.literal(STUDY_FILE, 'This is not a study file of Verdict.'),
  version: z.literal(READ_VERSIONS, 'This study file was written by another version of Verdict.'),
  app: textSchema.max(40),
  savedAt: time,
  study: z.strictObject({
    id: idSchema,
    name: textSchema.max(120),
    question: textSchema.max(500),
    state: z.enum(['open', 'ruled']),
    alpha: z.number().gt(0).lt(1),
    // Files from before it was a choice of the study.
    quantileType: quantileTypeSchema.default(7),
    // Files from before a study could say what it is about.
    asks: askedKindSchema.nullable().default(null),
    tags: tagsSchema.default([]),
    subject: idSchema.nullable(),
    revision,
    rowCount: z.int().min(0).max(MOST_ROWS),
  }),
});

/** Cells as they are written, from one on. */
export const cellTextsSchema = z.array(textSchema.max(LONGEST_CELL));

/** What the lists of a study file hold, one by one. The cells of a column are a list of their own. */
export const LISTED = {
  columns: columnSchema.extend({
    derivation: derivationSchema.nullable(),
    position: z.int().min(0).max(GREATEST),
    removed: z.boolean(),
  }),
  setAside: marked,
  leftIn: marked,
  changes: z.strictObject({
    revision: revision.min(1),
    token: idSchema,
    kind: textSchema.max(20),
    detail: z.unknown(),
    inverse: z.unknown(),
    text: textSchema.max(600),
    reason: textSchema.max(1000).nullable(),
    who,
    at: time,
    undoes: revision.nullable(),
    placeColumn: idSchema.nullable(),
    placeRow: revision.nullable(),
    /** SHA-256 of the cells of each column that the change wrote and does not hold itself. */
    cells: z.record(idSchema, hash).nullable().default(null),
    /** Its number in the chain and its hash; null of changes that were recorded before there was one. */
    entry: revision.min(1).nullable().default(null),
    hash: hash.nullable().default(null),
  }),
  /** The entries of the chain that are no changes. */
  log: logSchema,
  evidence: z.strictObject({
    id: idSchema,
    columnId: idSchema.nullable(),
    parts: partsSchema.nullable().default(null),
    analysis: textSchema.max(60),
    version: revision,
    appVersion: textSchema.max(20),
    request: z.record(z.string(), z.unknown()),
    fingerprint: z.string().regex(/^[0-9a-f]{64}$/),
    revision,
    seed: z.number().nullable(),
    result: z.unknown(),
    method: textSchema.max(10_000),
    finding: z.array(
      z.strictObject({
        text: textSchema.max(10_000),
        strong: z.boolean().optional(),
        code: textSchema.max(40).optional(),
      }),
    ),
    note: textSchema.max(2000),
    // Files from before evidence could be arranged and its cautions answered.
    place: z.int().min(0).max(GREATEST).nullable().default(null),
    leftOut: z.boolean().default(false),
    leads: z.boolean().default(false),
    answers: z.array(answerSchema).max(100).default([]),
    replaces: idSchema.nullable().default(null),
    who,
    at: time,
  }),
  verdicts: verdictSchema,
  /** What had been looked at. */
  looks: z.strictObject({
    digest: z.string().regex(/^[0-9a-f]{64}$/),
    analysis: textSchema.max(60),
    columnId: idSchema.nullable(),
    tests: z.int().min(0).max(1000),
    at: time,
  }),
};
export type ListName = keyof typeof LISTED;
type Listed = { [K in ListName]: z.infer<(typeof LISTED)[K]> };
export type FileHead = z.infer<typeof fileHeadSchema>;
/** A column of a study file without its cells. */
export type FileColumn = Listed['columns'];

/** A whole study: readings as written, the record with what undoes it, evidence, verdicts. */
export type StudyFile = FileHead & { [K in Exclude<ListName, 'columns'>]: Listed[K][] } & {
  columns: (FileColumn & { cells: string[] })[];
};

const taken = z.array(z.never());
/** The rest of a study file once its lists have been taken out, one by one. */
export const fileRestSchema = fileHeadSchema.extend({
  columns: z.array(LISTED.columns.extend({ cells: taken })),
  ...{ setAside: taken, changes: taken, evidence: taken, verdicts: taken },
  // Files from before there were such things.
  ...{ leftIn: taken.default([]), log: taken.default([]), looks: taken.default([]) },
});
