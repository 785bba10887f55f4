import { MOST_JOBS, type Job, type JobRequest } from '@verdict/contract';
import { analysisById } from '@verdict/core/analyses';
import { fingerprintOf, type Sample } from '@verdict/core/readings';
import { methodOf, type Settings } from '@verdict/core/road';
import { and, desc, eq, getTableColumns, isNull } from 'drizzle-orm';
import { checkedRequest, sampleFor, underKeptNames } from './asked.js';
import { isDuplicate, type Database } from './database.js';
import { notFound, StoreError } from './errors.js';
import { jobChunks, jobs, studies } from './schema.js';
import { refuseBinned, requireStudy } from './study-row.js';

/** As many jobs as are listed: the latest. */
const MOST_LISTED = 200;

/** The listed parts of a job: all but its result. */
const { result: _result, studyId: _studyId, columnId: column, ...plain } = getTableColumns(jobs);

/** All jobs of studies that are not in the bin, the latest first; those of one study, or one alone, where it is named. */
export async function listJobs(db: Database, only: { study?: string; job?: string } = {}): Promise<Job[]> {
  const rows = await db
    .select({ ...plain, column, study: { id: studies.id, name: studies.name } })
    .from(jobs)
    .innerJoin(studies, eq(studies.id, jobs.studyId))
    .where(
      and(
        isNull(studies.deletedAt),
        ...(only.study === undefined ? [] : [eq(jobs.studyId, only.study)]),
        ...(only.job === undefined ? [] : [eq(jobs.id, only.job)]),
      ),
    )
    .orderBy(desc(jobs.at), desc(jobs.id))
    .limit(MOST_LISTED);
  return rows.map(({ at, endedAt, ...row }) => ({
    ...row,
    at: at.toISOString(),
    endedAt: endedAt?.toISOString() ?? null,
  }));
}

export async function readJob(db: Database, jobId: string): Promise<Job> {
  const [job] = await listJobs(db, { job: jobId });
  if (!job) throw notFound('job');
  return job;
}

/** Notes what the server is to work out. Asking twice is once. */
export async function createJob(db: Database, studyId: string, asked: JobRequest): Promise<Job> {
  const study = await requireStudy(db, studyId);
  const [again] = await db.select({ studyId: jobs.studyId }).from(jobs).where(eq(jobs.id, asked.id));
  if (again?.studyId === studyId) return readJob(db, asked.id);
  if (again)
    throw new StoreError('invalid', 'This id belongs to a job of another study. Nothing was started.', { field: 'id' });
  refuseBinned(study);
  if (!asked.place.startsWith(`/studies/${studyId}/`)) {
    throw new StoreError('invalid', 'The address of a job must lie within its study.', { field: 'place' });
  }
  if ((await db.$count(jobs, eq(jobs.state, 'running'))) >= MOST_JOBS) {
    throw new StoreError('under-way', `${MOST_JOBS} jobs are already running. Stop one, or wait until one has ended.`);
  }
  const { analysis, request } = await checkedRequest(db, study, asked, 'Nothing was started.');
  const { id, parts, version, fingerprint, place, who } = asked;
  const row = {
    ...{
      id,
      studyId,
      columnId: asked.column,
      parts,
      analysis: asked.analysis,
      version,
      request,
      fingerprint,
      place,
      who,
    },
    method: methodOf(analysis, request as Settings),
    at: new Date(),
  };
  try {
    await db.insert(jobs).values(row);
  } catch (error) {
    if (isDuplicate(error)) return createJob(db, studyId, asked);
    throw error;
  }
  return readJob(db, id);
}

/** A job with the readings its columns hold now; refused where these are no longer those that it is about. */
export async function jobWithSample(db: Database, jobId: string): Promise<{ job: Job; sample: Sample }> {
  const job = await readJob(db, jobId);
  if (analysisById(job.analysis).version !== job.version) {
    throw new StoreError(
      'invalid',
      `Version ${job.version} of this analysis is no longer available. Start it again on the page.`,
    );
  }
  const study = await requireStudy(db, job.study.id);
  const { sample } = await sampleFor(db, study, job.column, job.parts);
  const named = underKeptNames(sample, job.request);
  if (fingerprintOf(named) !== job.fingerprint) {
    throw new StoreError(
      'data-changed',
      'The readings have changed since this job was created. Start it again on the page.',
    );
  }
  return { job, sample: named };
}

/** The result of a job that has ended well. */
export async function jobResult(db: Database, jobId: string): Promise<unknown> {
  const [row] = await db.select({ result: jobs.result, state: jobs.state }).from(jobs).where(eq(jobs.id, jobId));
  if (!row) throw notFound('job');
  if (row.state !== 'done') throw new StoreError('not-found', 'This job has no result yet.');
  return row.result;
}

/** The ids of the jobs that were at work when the server last stopped; those of a study in the bin wait until it is restored. */
export async function unfinishedJobs(db: Database): Promise<string[]> {
  const rows = await db
    .select({ id: jobs.id })
    .from(jobs)
    .innerJoin(studies, eq(studies.id, jobs.studyId))
    .where(and(eq(jobs.state, 'running'), isNull(studies.deletedAt)))
    .orderBy(jobs.at);
  return rows.map(({ id }) => id);
}

export interface StoredChunk {
  order: string;
  chunk: number;
  numbers: Float64Array;
}

export async function readChunks(db: Database, jobId: string): Promise<StoredChunk[]> {
  const { order, chunk, numbers } = jobChunks;
  return db.select({ order, chunk, numbers }).from(jobChunks).where(eq(jobChunks.jobId, jobId));
}

/** The greatest size of one statement in bytes: the database accepts 16 MB, and writes binary data as text of twice the length. */
const MOST_BYTES = 4_000_000;

function inStatements(chunks: readonly StoredChunk[]): StoredChunk[][] {
  const statements: StoredChunk[][] = [];
  let bytes = Infinity;
  for (const chunk of chunks) {
    bytes += chunk.numbers.byteLength;
    if (bytes > MOST_BYTES) {
      statements.push([]);
      bytes = chunk.numbers.byteLength;
    }
    statements.at(-1)!.push(chunk);
  }
  return statements;
}

/** Stores the results since the last time, and the progress. */
export async function storeProgress(
  db: Database,
  jobId: string,
  share: number,
  chunks: readonly StoredChunk[],
): Promise<void> {
  for (const some of inStatements(chunks)) {
    const rows = some.map((chunk) => ({ jobId, ...chunk }));
    await db.insert(jobChunks).ignore().values(rows);
  }
  await db.update(jobs).set({ share }).where(eq(jobs.id, jobId));
}

/** A job that ends, with its result, because it was stopped, or because it cannot go on. Its chunks are kept only where it may go on. */
export async function endJob(
  db: Database,
  jobId: string,
  ended: { state: 'done'; result: unknown } | { state: 'stopped' } | { state: 'failed'; problem: string },
): Promise<void> {
  await db.transaction(async (q) => {
    const { state } = ended;
    await q
      .update(jobs)
      .set({
        state,
        endedAt: new Date(),
        ...(state === 'done' ? { share: 1, result: ended.result } : {}),
        ...(state === 'failed' ? { problem: ended.problem } : {}),
      })
      .where(eq(jobs.id, jobId));
    if (state !== 'stopped') await q.delete(jobChunks).where(eq(jobChunks.jobId, jobId));
  });
}

/** A stopped job goes on. */
export async function resumeJob(db: Database, jobId: string): Promise<void> {
  const { state } = await readJob(db, jobId);
  if (state !== 'stopped') throw new StoreError('invalid', 'Only a stopped job can be continued.', { field: 'state' });
  await db.update(jobs).set({ state: 'running', endedAt: null }).where(eq(jobs.id, jobId));
}

/** Takes a job that has ended off the list, its result with it. */
export async function removeJob(db: Database, jobId: string): Promise<void> {
  const { state } = await readJob(db, jobId);
  if (state === 'running') throw new StoreError('invalid', 'This job is running. Stop it first.', { field: 'state' });
  await db.transaction(async (q) => {
    await q.delete(jobChunks).where(eq(jobChunks.jobId, jobId));
    await q.delete(jobs).where(eq(jobs.id, jobId));
  });
}
