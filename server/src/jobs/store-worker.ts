import { UnknownAnalysis } from '@verdict/core/analyses';
import { workerData } from 'node:worker_threads';
import workerpool from 'workerpool';
import { ZodError } from 'zod';
import { isBusy, isDatabaseGone, isDiskFull, openDatabase } from '../store/database.js';
import { BUSY, DISK_FULL, StoreError } from '../store/errors.js';
import { longUses } from '../store/long-uses.js';
import type { Answer } from './store-pool.js';

/** One use at a time a thread: more connections than one would only lie idle. */
const { db } = openDatabase((workerData as { databaseUrl: string }).databaseUrl, 1);

/** Errors lose their class on the way between threads; what the store foresees travels as a value. */
function answerOf(error: unknown): Answer {
  if (error instanceof StoreError) return { refused: { code: error.code, message: error.message, extra: error.extra } };
  if (error instanceof ZodError) {
    const [issue] = error.issues;
    const extra = { field: issue?.path.join('.') ?? '' };
    return { refused: { code: 'invalid', message: issue?.message ?? '', extra } };
  }
  if (error instanceof UnknownAnalysis) {
    return { refused: { code: 'invalid', message: error.message, extra: { field: 'analysis' } } };
  }
  if (error instanceof SyntaxError) {
    return { refused: { code: 'not-json', message: 'The body is not JSON.', extra: {} } };
  }
  if (isDiskFull(error)) return { refused: { code: 'disk-full', message: DISK_FULL, extra: {} } };
  if (isBusy(error)) return { refused: { code: 'busy', message: BUSY, extra: {} } };
  if (isDatabaseGone(error)) return { gone: true };
  throw error;
}

const answered =
  (use: (...args: never[]) => Promise<unknown>) =>
  async (...args: never[]): Promise<Answer> => {
    try {
      return { done: await use(...args) };
    } catch (error) {
      return answerOf(error);
    }
  };

workerpool.worker(Object.fromEntries(Object.entries(longUses(db)).map(([name, use]) => [name, answered(use)])));
