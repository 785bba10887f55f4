import { z } from 'zod';
import { keepRequestSchema, type PartsBy } from './evidence.js';

/** Long work that the server does in place of the page: what is asked, of which readings, and where on the page it was asked. */
export const jobRequestSchema = keepRequestSchema.omit({ result: true, note: true, replaces: true }).extend({
  /** The address of the page that asked, to go back there. */
  place: z
    .string()
    .max(4_000)
    .regex(/^\/studies\/[\w-]+\/[\w-]+(\?.*)?$/, 'The address of a job must lie within its study.'),
});
export type JobRequest = z.infer<typeof jobRequestSchema>;

export const JOB_STATES = ['running', 'done', 'stopped', 'failed'] as const;
export type JobState = (typeof JOB_STATES)[number];

/** A job as it is listed; its result is asked for by itself. */
export interface Job {
  id: string;
  study: { id: string; name: string };
  analysis: string;
  version: number;
  /** Null for what is worked out without any. */
  column: string | null;
  parts: PartsBy | null;
  request: Record<string, unknown>;
  fingerprint: string;
  /** The method as a sentence. */
  method: string;
  state: JobState;
  /** 0 … 1 of its repeated work. */
  share: number;
  /** Why it failed. */
  problem: string | null;
  place: string;
  who: string;
  at: string;
  endedAt: string | null;
}

/** So many jobs run at once; more are refused until one ends. */
export const MOST_JOBS = 20;
