import type { Sample } from '@verdict/core/readings';
import { drive, type Executor, type Stage } from '@verdict/core/road';
import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import workerpool from 'workerpool';

export interface AnalysisPool extends Pick<Executor, 'advance' | 'chunk' | 'lanes'> {
  /** @param stopped asked between chunks; true ends the run, which then throws `Stopped` */
  run(id: string, request: unknown, sample: Sample, stopped?: () => boolean): Promise<unknown>;
  close(): Promise<void>;
}

/** The worker as built JavaScript: worker threads do not go through a loader, so source runs (dev, tests) use the build too. */
const WORKER = fileURLToPath(new URL('../../dist/jobs/analysis-worker.js', import.meta.url));

/** Runs analyses in worker threads, one fewer than cores but at least one, so that the server keeps answering. */
export function createAnalysisPool(): AnalysisPool {
  const lanes = Math.max(1, availableParallelism() - 1);
  const pool = workerpool.pool(WORKER, { workerType: 'thread', maxWorkers: lanes, workerThreadOpts: { execArgv: [] } });
  const executor: Executor = {
    lanes,
    advance: async (...job) => (await pool.exec('advance', job)) as Stage,
    chunk: async (order, k) => (await pool.exec('chunk', [order, k])) as Float64Array,
  };
  return {
    ...executor,
    run: (id, request, sample, stopped) => drive(executor, { id, request, sample }, stopped ? { stopped } : {}),
    close: async () => void (await pool.terminate(true)),
  };
}
