import {
  changeRequestSchema,
  type ChangeRequest,
  type Evidence,
  type Job,
  type JobRequest,
  type KeepRequest,
  type StepRequest,
} from '@verdict/contract';
import type { Sample } from '@verdict/core/readings';
import { bytesOf, textInto } from '../files/spool.js';
import { makeChange, stepBack, type Made } from './changes.js';
import type { Database } from './database.js';
import { staleEvidence } from './arranged.js';
import { evidenceWithSample, keepEvidence } from './evidence.js';
import { createJob, jobWithSample } from './jobs.js';
import { countSubject } from './studies.js';
import { auditStored } from './audit-stored.js';
import { openStudy } from './open-study.js';
import { saveStudy } from './save-study.js';

/** JSON that was left as bytes because it is large. */
export type Bytes = Uint8Array;

/**
 * The uses of the store that may take long: they read or write whole columns. They run in a thread of their own (jobs/store-worker),
 * so that the server keeps answering; every other use is a short query or two.
 */
export interface LongUses {
  makeChange(studyId: string, request: ChangeRequest | Bytes): Promise<Made>;
  stepBack(studyId: string, request: StepRequest): Promise<Made>;
  keepEvidence(studyId: string, keep: KeepRequest): Promise<Evidence>;
  evidenceWithSample(
    evidenceId: string,
  ): Promise<{ kept: Evidence; sample: Sample; revision: number; fingerprint: string }>;
  staleEvidence(studyId: string): Promise<{ revision: number; stale: string[] }>;
  countSubject(studyId: string): Promise<void>;
  createJob(studyId: string, asked: JobRequest): Promise<Job>;
  jobWithSample(jobId: string): Promise<{ job: Job; sample: Sample }>;
  /** Writes the study into an open file. @param file its number, which all threads share */
  saveStudy(studyId: string, file: number): Promise<void>;
  openStudy(file: number, who: string): ReturnType<typeof openStudy>;
  auditStudy(studyId: string): ReturnType<typeof auditStored>;
}

const jsonOf = (bytes: Bytes): unknown => JSON.parse(new TextDecoder().decode(bytes));

export const longUses = (db: Database): LongUses => ({
  makeChange: (studyId, request) =>
    makeChange(db, studyId, request instanceof Uint8Array ? changeRequestSchema.parse(jsonOf(request)) : request),
  stepBack: (studyId, request) => stepBack(db, studyId, request),
  keepEvidence: (studyId, keep) => keepEvidence(db, studyId, keep),
  evidenceWithSample: (evidenceId) => evidenceWithSample(db, evidenceId),
  staleEvidence: (studyId) => staleEvidence(db, studyId),
  countSubject: (studyId) => countSubject(db, studyId),
  createJob: (studyId, asked) => createJob(db, studyId, asked),
  jobWithSample: (jobId) => jobWithSample(db, jobId),
  saveStudy: async (studyId, file) => {
    const text = textInto(file);
    await saveStudy(db, studyId, text.write);
    text.end();
  },
  openStudy: (file, who) => openStudy(db, () => bytesOf(file), who),
  auditStudy: (studyId) => auditStored(db, studyId),
});
