import type { QuantileType } from '@verdict/core/analyses';
import type { TableColumn } from '@verdict/core/table';
import { z } from 'zod';
import { idSchema, reasonSchema, textSchema, whoSchema, type Change } from './changes.js';
import { DECISIONS, type Decision } from './decisions.js';

export type StudyState = 'open' | 'ruled';

export interface StudySummary {
  id: string;
  name: string;
  question: string;
  state: StudyState;
  decision: Decision | null;
  subject: string | null;
  /** Readings of the subject that count; null without a subject, and while they are being counted. */
  n: number | null;
  counting: boolean;
  /** What is wrong with the study, where something is. */
  fault: string | null;
  rowCount: number;
  revision: number;
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
  /** What somebody claims of the column: on a certificate, in a contract. */
  claimedMean: number | null;
  claimedSd: number | null;
}

/** A reading that somebody has marked: set aside, or left in on purpose. */
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
  reason: string;
  who: string;
  at: string;
  revision: number;
  evidence: string[];
  reopened: { reason: string; who: string; at: string } | null;
}

export interface Study {
  id: string;
  name: string;
  question: string;
  state: StudyState;
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
}

/** The cells of every column as written, by column id. */
export type StudyCells = Record<string, string[]>;

export type RecordKind = Change['kind'] | 'rule' | 'reopen';

export interface RecordEntry {
  revision: number;
  kind: RecordKind;
  /** What was done, in words. */
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

/** A change as it is told to the other windows on the study: `change` is left out where it is too large to send along. */
export interface Announced {
  revision: number;
  token: string;
  who: string;
  text: string;
  change: Change | null;
}

export const newStudySchema = z.strictObject({
  name: textSchema.trim().max(120, 'A study name has at most 120 characters.').default(''),
});

export const ruleRequestSchema = z.strictObject({
  revision: z.int().min(0),
  who: whoSchema,
  decision: z.enum(DECISIONS, 'Choose a decision.'),
  reason: reasonSchema,
  evidence: z.array(idSchema).max(200),
});
export type RuleRequest = z.infer<typeof ruleRequestSchema>;

export const reopenRequestSchema = z.strictObject({ revision: z.int().min(0), who: whoSchema, reason: reasonSchema });
export type ReopenRequest = z.infer<typeof reopenRequestSchema>;
