import type { Job } from '@verdict/contract';
import { drive, isUnavailable, Stopped, toWire, type Executor, type KernelOrder } from '@verdict/core/road';
import { createHash } from 'node:crypto';
import { isDatabaseGone, type Database } from '../store/database.js';
import { StoreError } from '../store/errors.js';
import {
  endJob,
  readChunks,
  readJob,
  resumeJob,
  storeProgress,
  unfinishedJobs,
  type StoredChunk,
} from '../store/jobs.js';
import type { AnalysisPool } from './analysis-pool.js';
import { FairTurns } from './fair-turns.js';
import type { StorePool } from './store-pool.js';

/** So long after the database was away a job is tried again. */
const RETRY = 10_000;

interface Surroundings {
  db: Database;
  store: StorePool;
  pool: AnalysisPool;
  tell: (job: Job) => void;
  failed: (error: unknown) => void;
  /** The interval at which results are stored and progress is sent. */
  storeEveryMilliseconds: number;
}

/** Why a run is to end before its end. */
type Halt = 'stopped' | 'closing' | null;

const keyOf = (order: KernelOrder) => createHash('sha256').update(JSON.stringify(order)).digest('hex');

/** The chunks of one job: stored ones are not calculated again, new ones wait to be stored. */
class Chunks {
  readonly #known = new Map<string, Float64Array>();
  readonly #keys = new WeakMap<KernelOrder, string>();
  #fresh: StoredChunk[] = [];

  constructor(stored: readonly StoredChunk[]) {
    for (const { order, chunk, numbers } of stored) this.#known.set(`${order} ${chunk}`, numbers);
  }

  async find(order: KernelOrder, chunk: number, work: () => Promise<Float64Array>): Promise<Float64Array> {
    let key = this.#keys.get(order);
    if (key === undefined) this.#keys.set(order, (key = keyOf(order)));
    const known = this.#known.get(`${key} ${chunk}`);
    if (known) return known;
    const numbers = await work();
    this.#fresh.push({ order: key, chunk, numbers });
    return numbers;
  }

  /** The chunks to be stored; each is returned once. */
  fresh(): StoredChunk[] {
    const taken = this.#fresh;
    this.#fresh = [];
    return taken;
  }
}

/**
 * Runs the jobs that pages have submitted in the worker threads, in turn by study. Results are stored as they arrive: after a restart, or when a
 * stopped job continues, only the rest is calculated. The bits are those that the page would have calculated.
 */
export class Jobs {
  readonly #turns: FairTurns;
  readonly #halts = new Map<string, { halt: Halt; ended: Promise<void> }>();
  #closing = false;

  constructor(private readonly around: Surroundings) {
    this.#turns = new FairTurns(around.pool.lanes);
  }

  /** Continues the jobs that were running when the server stopped. */
  async goOn(): Promise<void> {
    for (const id of await unfinishedJobs(this.around.db)) this.start(id);
  }

  start(id: string): void {
    if (this.#closing || this.#halts.has(id)) return;
    const own = { halt: null as Halt, ended: Promise.resolve() };
    this.#halts.set(id, own);
    own.ended = this.#run(id, () => own.halt)
      .catch((error: unknown) => {
        if (isDatabaseGone(error)) setTimeout(() => this.start(id), RETRY).unref();
        else this.around.failed(error);
      })
      .finally(() => this.#halts.delete(id));
  }

  /** Stops a job; what it has come to is kept, so that it can go on. */
  async stop(id: string): Promise<Job> {
    const { db } = this.around;
    const running = this.#halts.get(id);
    if (running) {
      running.halt = 'stopped';
      await running.ended;
    }
    // A job whose run broke off, with the database away, is still said to be at work.
    if ((await readJob(db, id)).state === 'running') await endJob(db, id, { state: 'stopped' });
    return this.#told(id);
  }

  async resume(id: string): Promise<Job> {
    await resumeJob(this.around.db, id);
    const job = await this.#told(id);
    this.start(id);
    return job;
  }

  /** Ends all runs, so that the next start goes on with them. */
  async close(): Promise<void> {
    this.#closing = true;
    for (const running of this.#halts.values()) running.halt = 'closing';
    await Promise.all([...this.#halts.values()].map(({ ended }) => ended));
  }

  async #told(id: string): Promise<Job> {
    const job = await readJob(this.around.db, id);
    this.around.tell(job);
    return job;
  }

  async #run(id: string, halt: () => Halt): Promise<void> {
    const { db } = this.around;
    try {
      // Stopped while it waited for the database to come back.
      if ((await readJob(db, id)).state !== 'running') return;
      const result = await this.#workedOut(id, halt);
      await endJob(
        db,
        id,
        isUnavailable(result) ? { state: 'failed', problem: result.reason } : { state: 'done', result: toWire(result) },
      );
    } catch (error) {
      if (halt() === 'closing') return;
      if (isDatabaseGone(error)) throw error;
      if (error instanceof Stopped) await endJob(db, id, { state: 'stopped' });
      else {
        const foreseen = error instanceof StoreError;
        await endJob(db, id, {
          state: 'failed',
          problem: foreseen ? error.message : 'Something went wrong on the server.',
        });
        if (!foreseen) this.around.failed(error);
      }
    }
    await this.#told(id);
  }

  async #workedOut(id: string, halt: () => Halt): Promise<unknown> {
    const { db, store, pool } = this.around;
    const { job, sample } = await store.jobWithSample(id);
    const chunks = new Chunks(await readChunks(db, id));
    const turn = <T>(work: () => Promise<T>) => this.#turns.take(job.study.id, work);
    const executor: Executor = {
      lanes: pool.lanes,
      advance: (...of) => turn(() => pool.advance(...of)),
      chunk: (order, k) => chunks.find(order, k, () => turn(() => pool.chunk(order, k))),
    };
    let share = 0;
    let stored = performance.now();
    let storing: Promise<void> = Promise.resolve();
    const putBy = () => {
      stored = performance.now();
      const fresh = chunks.fresh();
      storing = storing.then(() => storeProgress(db, id, share, fresh)).then(() => this.around.tell({ ...job, share }));
      // Told where it is waited for.
      storing.catch(() => undefined);
    };
    try {
      return await drive(
        executor,
        { id: job.analysis, request: job.request, sample },
        {
          stopped: () => halt() !== null,
          onProgress: (now) => {
            // What is stored is known again in no time.
            share = Math.max(job.share, now.share);
            if (performance.now() - stored > this.around.storeEveryMilliseconds) putBy();
          },
        },
      );
    } finally {
      if (halt() !== null) putBy();
      await storing;
    }
  }
}
