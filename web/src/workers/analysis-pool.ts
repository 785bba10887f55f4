import type { BlockLayout, ParsedBlock } from '@verdict/core/readings';
import { remembering, type Executor, type Stage } from '@verdict/core/road';
import workerpool from 'workerpool';
import workerUrl from './analysis-worker.js?worker&url';

const MOST_LANES = 8;

/** The browser's workers: one a core. Started with the first analysis and kept, since starting one costs more than most analyses. */
export const lanes = Math.max(1, Math.min(MOST_LANES, globalThis.navigator?.hardwareConcurrency || 2));

let pool: ReturnType<typeof workerpool.pool> | null = null;

function started() {
  pool ??= workerpool.pool(workerUrl, { maxWorkers: lanes, workerOpts: { type: 'module' } });
  return pool;
}

const ENDED =
  'The browser could not finish this calculation, probably because it ran out of memory. Reload the page. If it happens again, use fewer samples or readings.';

/** Asks a worker. What ends the worker itself has no words of its own. */
async function asked<T>(use: string, args: unknown[]): Promise<T> {
  try {
    return (await started().exec(use, args)) as T;
  } catch (error) {
    if (error instanceof Error && !/^workerpool worker/i.test(error.message)) throw error;
    throw new Error(ENDED, { cause: error });
  }
}

/** As many numbers as are remembered of the latest simulations, 32 MB. */
const MOST_REMEMBERED = 4_000_000;

const placed: Executor = {
  lanes,
  advance: (...job) => asked<Stage>('advance', job),
  chunk: (order, k) => asked<Float64Array>('chunk', [order, k]),
};

export const inWorkers = remembering(placed, MOST_REMEMBERED);

/** Reads a long text in a worker, so that the page stays alive meanwhile. */
export const parseInWorker = (text: string, layout: BlockLayout, taken: string[]): Promise<ParsedBlock> =>
  asked('parse', [text, layout, taken]);

/** The same of a text so large that only its first rows come back. */
export const surveyInWorker = (text: string, layout: BlockLayout, taken: string[]): Promise<ParsedBlock> =>
  asked('survey', [text, layout, taken]);
