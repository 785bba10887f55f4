import type { BlockLayout, ParsedBlock } from '@verdict/core/readings';
import { remembering, type Executor, type Stage } from '@verdict/core/road';
import workerpool from 'workerpool';
import workerUrl from './analysis-worker.js?worker&url';

const MOST_LANES = 8;

/** The browser's workers: one a core. Started with the first analysis and kept, since starting one costs more than most analyses. */
export const lanes = Math.max(1, Math.min(MOST_LANES, navigator.hardwareConcurrency || 2));

let pool: ReturnType<typeof workerpool.pool> | null = null;

function started() {
  pool ??= workerpool.pool(workerUrl, { maxWorkers: lanes, workerOpts: { type: 'module' } });
  return pool;
}

/** As many numbers as are remembered of the latest simulations, 32 MB. */
const MOST_REMEMBERED = 4_000_000;

const placed: Executor = {
  lanes,
  advance: async (...job) => (await started().exec('advance', job)) as Stage,
  chunk: async (order, k) => (await started().exec('chunk', [order, k])) as Float64Array,
};

export const inWorkers = remembering(placed, MOST_REMEMBERED);

/** Reads a long text in a worker, so that the page stays alive meanwhile. */
export const parseInWorker = async (text: string, layout: BlockLayout, taken: string[]): Promise<ParsedBlock> =>
  (await started().exec('parse', [text, layout, taken])) as ParsedBlock;

/** The same of a text so large that only its first rows come back. */
export const surveyInWorker = async (text: string, layout: BlockLayout, taken: string[]): Promise<ParsedBlock> =>
  (await started().exec('survey', [text, layout, taken])) as ParsedBlock;
