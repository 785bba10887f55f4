import type { QuantileType } from '@verdict/core/analyses';
import type { TableColumn } from '@verdict/core/table';
import { z } from 'zod';
import { JOBS } from './channels.js';
import type { Audit } from './chain/audit.js';
import { askedKindSchema, idSchema, reasonSchema, textSchema, whoSchema, type Change } from './changes.js';
import { DECISIONS, type AskedKind, type Decision } from './decisions.js';

export type StudyState = 'open' | 'ruled';

export interface StudySummary {
  id: string;
  name: string;
  question: string;
  state: StudyState;
  decision: Decision | null;
  /** The family that the decision names. */
  family: string | null;
  asks: AskedKind | null;
  tags: string[];
  /** The names of its columns: it is found by them. */
  columns: string[];
  subject: string | null;
  /** Readings of the subject that count; null without a subject, and while they are being counted. */
  n: number | null;
  counting: boolean;
  /** The subject's readings in bins of equal width, for a small picture; null where there are none, and for labels. */
  bins: number[] | null;
  /** The fault of the study, if there is one. */
  fault: string | null;
  rowCount: number;
  revision: number;
  /** Who made the last change; null while nothing was done. */
  changedBy: string | null;
  changedAt: string;
  deletedAt: string | null;
  /** When it was opened from a saved file; null where it began here. */
  openedAt: string | null;
  /** One of the examples that come with a new installation. */
  example: boolean;
}

export interface StudyColumn extends TableColumn {
  lowerLimit: number | null;
  target: number | null;
  upperLimit: number | null;
  /** The values claimed for the column: on a certificate, in a contract. */
  claimedMean: number | null;
  claimedSd: number | null;
}

/** A marked reading: set aside, or kept with a reason. */
export interface MarkedReading {
  column: string;
  row: number;
  reason: string;
  who: string;
  at: string;
}

export interface Verdict {
  id: string;
  decision: Decision;
  /** The family that the decision names. */
  family: string | null;
  reason: string;
  /** Why cautions were left open; empty where none was. */
  leftOpen: string;
  /** What had been looked at by then; null in verdicts from before that was counted. */
  looked: LookedCount | null;
  who: string;
  at: string;
  revision: number;
  /** In the order of the sheet. */
  evidence: string[];
  reopened: { reason: string; who: string; at: string } | null;
}

/** How many results, and how many tests among them, had been looked at when it was decided. */
export interface LookedCount {
  results: number;
  tests: number;
}

export interface Study {
  id: string;
  name: string;
  question: string;
  state: StudyState;
  /** What it is about, where that was said. */
  asks: AskedKind | null;
  tags: string[];
  alpha: number;
  /** How quartiles and percentiles are defined in all of the study. */
  quantileType: QuantileType;
  subject: string | null;
  revision: number;
  rowCount: number;
  columns: StudyColumn[];
  setAside: MarkedReading[];
  /** Far readings that were looked at and left in on purpose. */
  leftIn: MarkedReading[];
  /** The newest first; the first one stands while the study is ruled. */
  verdicts: Verdict[];
  canUndo: string | null;
  canRedo: string | null;
  /** The end of its chain: entries and the hash of the last; null while there is none. */
  entries: number;
  head: string | null;
  /** What its record was found not to agree with; null where nothing was found. */
  notVerified: string | null;
}

/** The cells of every column as written, by column id. */
export type StudyCells = Record<string, string[]>;

/** The kinds of entries of the record; those beside changes touch no readings. */
export type RecordKind = Change['kind'] | 'rule' | 'reopen' | 'bin' | 'restore';

export interface RecordEntry {
  revision: number;
  kind: RecordKind;
  /** The change in words. */
  text: string;
  reason: string | null;
  who: string;
  at: string;
  undoes: number | null;
  /** The change that takes this one back, where there is one. */
  undoneBy: number | null;
  /** The first cell it touched, where it touched cells. */
  place: { column: string; row: number } | null;
}

/** A change as it is sent to the other windows of the study: `change` is absent if it is too large. */
export interface Announced {
  revision: number;
  token: string;
  who: string;
  text: string;
  change: Change | null;
}

const idOrJobs = z.union([z.literal(JOBS), idSchema]);

/** The studies, and all jobs, whose events a browser subscribes to. */
export const eventsQuerySchema = z.object({
  of: z.union([z.array(idOrJobs), idOrJobs.transform((one) => [one])]),
});

/** Which page of the record: the entries before this one. */
export const recordQuerySchema = z.object({ before: z.coerce.number().int().min(1).optional() });

/** What a check of a study against its record found, in full and in a sentence; null where nothing was found. */
export type Checked = Audit & { notVerified: string | null };

export const newStudySchema = z.strictObject({
  asks: askedKindSchema.nullable().default(null),
  name: textSchema.trim().max(120, 'A study name may have at most 120 characters.').default(''),
});

export const ruleRequestSchema = z.strictObject({
  revision: z.int().min(0),
  who: whoSchema,
  decision: z.enum(DECISIONS, 'Choose a decision.'),
  /** Named by one decision only. */
  family: textSchema.trim().min(1).max(80).nullable().default(null),
  reason: reasonSchema,
  /** In the order of the sheet. */
  evidence: z.array(idSchema).max(200),
  /** Why cautions are left open; asked for where any is not answered. */
  leftOpen: textSchema.trim().max(1000, 'A reason may have at most 1 000 characters.').default(''),
});
export type RuleRequest = z.infer<typeof ruleRequestSchema>;

export const reopenRequestSchema = z.strictObject({ revision: z.int().min(0), who: whoSchema, reason: reasonSchema });
export type ReopenRequest = z.infer<typeof reopenRequestSchema>;
