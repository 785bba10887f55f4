import { derivationSchema } from '@verdict/core';
import { z } from 'zod';
import { columnSchema, idSchema, MOST_ROWS } from './changes.js';
import { partsSchema } from './evidence.js';
import { DECISIONS } from './studies.js';

/** What a study file says it is, and its version: a newer one is refused with that reason instead of being half read. */
export const STUDY_FILE = 'verdict study';
export const STUDY_FILE_VERSION = 1;

const time = z.iso.datetime();
const who = z.string().max(80);
const row = z.int().min(1).max(MOST_ROWS);
const revision = z.int().min(0);

/** A whole study: readings as written, the record with what undoes it, evidence, verdicts. */
export const studyFileSchema = z.strictObject({
  format: z.literal(STUDY_FILE, 'This is no study file of Verdict.'),
  version: z.literal(STUDY_FILE_VERSION, 'This study file was written by another version of Verdict.'),
  app: z.string().max(40),
  savedAt: time,
  study: z.strictObject({
    id: idSchema,
    name: z.string().max(120),
    question: z.string().max(500),
    state: z.enum(['open', 'ruled']),
    alpha: z.number().gt(0).lt(1),
    subject: idSchema.nullable(),
    revision,
    rowCount: z.int().min(0).max(MOST_ROWS),
  }),
  columns: z.array(
    columnSchema.extend({
      derivation: derivationSchema.nullable(),
      position: z.int().min(0),
      removed: z.boolean(),
      cells: z.array(z.string().max(1000)).max(MOST_ROWS),
    }),
  ),
  setAside: z.array(z.strictObject({ columnId: idSchema, row, reason: z.string().max(1000), who, at: time })),
  changes: z.array(
    z.strictObject({
      revision: z.int().min(1),
      token: idSchema,
      kind: z.string().max(20),
      detail: z.unknown(),
      inverse: z.unknown(),
      text: z.string().max(600),
      reason: z.string().max(1000).nullable(),
      who,
      at: time,
      undoes: z.int().nullable(),
      placeColumn: idSchema.nullable(),
      placeRow: z.int().nullable(),
    }),
  ),
  evidence: z.array(
    z.strictObject({
      id: idSchema,
      columnId: idSchema.nullable(),
      parts: partsSchema.nullable().default(null),
      analysis: z.string().max(60),
      version: z.int(),
      appVersion: z.string().max(20),
      request: z.record(z.string(), z.unknown()),
      fingerprint: z.string().regex(/^[0-9a-f]{64}$/),
      revision,
      seed: z.number().nullable(),
      result: z.unknown(),
      method: z.string(),
      finding: z.array(z.strictObject({ text: z.string(), strong: z.boolean().optional() })),
      note: z.string().max(2000),
      who,
      at: time,
    }),
  ),
  verdicts: z.array(
    z.strictObject({
      id: idSchema,
      decision: z.enum(DECISIONS),
      reason: z.string().max(1000),
      evidence: z.array(idSchema),
      revision,
      who,
      at: time,
      reopenReason: z.string().max(1000).nullable(),
      reopenWho: who.nullable(),
      reopenAt: time.nullable(),
    }),
  ),
});
export type StudyFile = z.infer<typeof studyFileSchema>;
