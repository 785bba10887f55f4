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
  /** The column of the readings; null for results that need none. */
  column: idSchema.nullable(),
  parts: partsSchema.nullable().default(null),
  request: z.record(z.string(), z.unknown()),
  fingerprint: z.string().regex(/^[0-9a-f]{64}$/),
  result: z.record(z.string(), z.unknown()),
  note: textSchema.trim().max(2000, 'A note may have at most 2 000 characters.').default(''),
  /** The piece that it replaces: the same request on changed readings. The older piece is kept, but left out of the report. */
  replaces: idSchema.nullable().default(null),
});
/** A request from the page: values with a default may be left out. */
export type KeepInput = z.input<typeof keepRequestSchema>;
export type KeepRequest = z.infer<typeof keepRequestSchema>;

/** What a result says besides its finding is answered in words, one answer each. */
const answerRequestSchema = z.strictObject({
  /** The caution in its own words, as it stands in the result. */
  to: textSchema.min(1).max(10_000),
  /** Nothing where an answer is taken back. */
  words: textSchema.trim().max(1000, 'An answer may have at most 1 000 characters.'),
  who: whoSchema,
});

/** Notes on a piece of evidence; the result itself cannot be changed. Absent parts stay as they are. */
export const sayRequestSchema = z.strictObject({
  note: textSchema.trim().max(2000, 'A note may have at most 2 000 characters.').optional(),
  leftOut: z.boolean().optional(),
  /** True for the one piece that the sheet leads with: the others step back. */
  leads: z.boolean().optional(),
  answer: answerRequestSchema.optional(),
  /** Who says it, for the record. */
  who: whoSchema.optional(),
});
export type SayRequest = z.infer<typeof sayRequestSchema>;

/** Pieces of evidence in their order on the sheet. */
export const orderRequestSchema = z.strictObject({
  order: z.array(idSchema).min(1).max(1000),
  who: whoSchema.optional(),
});
export type OrderRequest = z.infer<typeof orderRequestSchema>;

/** A caution as it was answered. */
export interface Answer {
  to: string;
  words: string;
  who: string;
  at: string;
}

/** Results viewed on the page, each under the digest of its request and column. */
export const looksRequestSchema = z.strictObject({
  looks: z
    .array(
      z.strictObject({
        digest: z.string().regex(/^[0-9a-f]{64}$/),
        analysis: z.string().max(60),
        column: idSchema.nullable(),
        /** How many tests it shows the p of. */
        tests: z.int().min(0).max(1000),
      }),
    )
    .min(1)
    .max(50),
});
export type Look = z.infer<typeof looksRequestSchema>['looks'][number];

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
  /** The method as a sentence, and the finding in pieces, as this version of Verdict words the result. */
  method: string;
  finding: Piece[];
  note: string;
  /** Its place in the report, if the pieces were put in order. */
  place: number | null;
  leftOut: boolean;
  /** True for the piece that the sheet leads with. */
  leads: boolean;
  /** The cautions of the result that were answered. */
  answers: Answer[];
  /** The piece that it replaces. */
  replaces: string | null;
  who: string;
  at: string;
  /** The outcome of recalculating it on the server; null as long as that has not been done. */
  recomputed: { same: boolean; at: string } | null;
}

/** The texts of the cautions that a kept result says, each once; a result that came from elsewhere may hold anything in their place. */
export function cautionsOf(result: unknown): string[] {
  const notes = (result as { notes?: unknown } | null)?.notes;
  if (!Array.isArray(notes)) return [];
  const texts = (notes as { text?: unknown; quiet?: unknown }[]).flatMap((note) =>
    typeof note?.text === 'string' && note.quiet !== true ? [note.text] : [],
  );
  return [...new Set(texts)];
}

/** The unanswered ones. */
export function openCautionsOf({ result, answers }: Pick<Evidence, 'result' | 'answers'>): string[] {
  const met = new Set(answers.map(({ to }) => to));
  return cautionsOf(result).filter((text) => !met.has(text));
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
