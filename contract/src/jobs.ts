import { z } from 'zod';
import { keepRequestSchema, type PartsBy } from './evidence.js';

/** Long work that the server does instead of the page: the request, its readings, and the page it came from. */
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
  /** Null for results that need no column. */
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

/** The number of jobs that run at once; more are refused until one ends. */
export const MOST_JOBS = 20;
