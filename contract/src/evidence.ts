import type { Difference, Piece } from '@verdict/core/road';
import { z } from 'zod';
import { idSchema, textSchema, whoSchema } from './changes.js';

/** Beside the first: 200 columns in all. */
const MOST_BESIDE = 199;

/** By what the readings stand in parts: the levels of a label column, or further columns beside the first. */
export const partsSchema = z.union([
  z.strictObject({ split: idSchema }),
  /** As many as a look at many columns takes; the analyses that draw them side by side take fewer. */
  z.strictObject({ beside: z.array(idSchema).min(1).max(MOST_BESIDE) }),
]);
export type PartsBy = z.infer<typeof partsSchema>;

export const keepRequestSchema = z.strictObject({
  id: idSchema,
  who: whoSchema,
  analysis: z.string().max(60),
  version: z.int().min(1),
  /** The column the readings are of; null for what was worked out without any. */
  column: idSchema.nullable(),
  parts: partsSchema.nullable().default(null),
  request: z.record(z.string(), z.unknown()),
  fingerprint: z.string().regex(/^[0-9a-f]{64}$/),
  result: z.record(z.string(), z.unknown()),
  note: textSchema.trim().max(2000, 'A note has at most 2 000 characters.').default(''),
});
export type KeepRequest = z.infer<typeof keepRequestSchema>;

export const noteRequestSchema = z.strictObject({ note: keepRequestSchema.shape.note });

export interface Evidence {
  id: string;
  analysis: string;
  version: number;
  appVersion: string;
  column: string | null;
  parts: PartsBy | null;
  request: Record<string, unknown>;
  fingerprint: string;
  revision: number;
  seed: number | null;
  result: unknown;
  /** The method as a sentence, and the finding in pieces, as they stood when it was kept. */
  method: string;
  finding: Piece[];
  note: string;
  who: string;
  at: string;
  /** What came of working it out on the server from the readings there; null as long as that has not been done. */
  recomputed: { same: boolean; at: string } | null;
}

/** What recomputing on the server found. */
export interface Recomputed {
  same: boolean;
  /** The data used now are those used then. */
  sameData: boolean;
  keptRevision: number;
  nowRevision: number;
  fingerprint: string;
  differences: Difference[];
  milliseconds: number;
}
