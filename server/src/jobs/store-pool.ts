import { fileURLToPath } from 'node:url';
import workerpool from 'workerpool';
import { DatabaseGone } from '../store/database.js';
import { StoreError, type RefusalCode, type RefusalExtra } from '../store/errors.js';
import type { LongUses } from '../store/long-uses.js';

/** The answer of the thread: the outcome, or an expected error. */
export type Answer =
  { done: unknown } | { refused: { code: RefusalCode; message: string; extra: RefusalExtra } } | { gone: true };

export interface StorePool extends LongUses {
  close(): Promise<void>;
}

/** The worker as built JavaScript: worker threads do not go through a loader, so source runs (dev, tests) use the build too. */
const WORKER = fileURLToPath(new URL('../../dist/jobs/store-worker.js', import.meta.url));

/** Two threads for what goes through whole studies: one long use does not make another, of another study, wait. */
const THREADS = 2;
/** What reads a column or two has a thread of its own: a job is asked for, or a result kept, beside the import and the freezing of others. */
const OF_COLUMNS: ReadonlySet<keyof LongUses> = new Set([
  ...(['keepEvidence', 'evidenceWithSample', 'staleEvidence'] as const),
  ...(['countSubject', 'createJob', 'jobWithSample'] as const),
]);

/** The long uses of the store, each in a thread with a connection of its own. */
export function createStorePool(databaseUrl: string): StorePool {
  const threads = (maxWorkers: number) =>
    workerpool.pool(WORKER, {
      ...{ workerType: 'thread', maxWorkers },
      // One is ready before the first use: it takes a second to start.
      minWorkers: 1,
      // Blocks of cells are short-lived: with the usual room for such values a thread takes about 50 MB more.
      workerThreadOpts: { execArgv: [], workerData: { databaseUrl }, resourceLimits: { maxYoungGenerationSizeMb: 12 } },
    });
  const [ofStudies, ofColumns] = [threads(THREADS), threads(1)];
  async function ask<T>(use: keyof LongUses, ...args: unknown[]): Promise<T> {
    const answer = (await (OF_COLUMNS.has(use) ? ofColumns : ofStudies).exec(use, args)) as Answer;
    if ('done' in answer) return answer.done as T;
    if ('gone' in answer) throw new DatabaseGone();
    throw new StoreError(answer.refused.code, answer.refused.message, answer.refused.extra);
  }
  return {
    makeChange: (...args) => ask('makeChange', ...args),
    stepBack: (...args) => ask('stepBack', ...args),
    keepEvidence: (...args) => ask('keepEvidence', ...args),
    evidenceWithSample: (...args) => ask('evidenceWithSample', ...args),
    staleEvidence: (...args) => ask('staleEvidence', ...args),
    countSubject: (...args) => ask('countSubject', ...args),
    createJob: (...args) => ask('createJob', ...args),
    jobWithSample: (...args) => ask('jobWithSample', ...args),
    saveStudy: (...args) => ask('saveStudy', ...args),
    openStudy: (...args) => ask('openStudy', ...args),
    auditStudy: (...args) => ask('auditStudy', ...args),
    close: async () => void (await Promise.all([ofStudies.terminate(true), ofColumns.terminate(true)])),
  };
}
