import workerpool from 'workerpool';
import type { Opened } from '../files/incoming.js';
import type { SheetColumn } from '../files/workbook/write-workbook.js';
import workerUrl from './workbook-worker.js?worker&url';

/** Uses a worker of its own, which ends with the use. */
async function once<T>(use: (pool: workerpool.Pool) => Promise<T>): Promise<T> {
  const pool = workerpool.pool(workerUrl, { maxWorkers: 1, workerOpts: { type: 'module' } });
  try {
    return await use(pool);
  } finally {
    await pool.terminate(true);
  }
}

/** Reads a workbook in a worker; one that takes too long is given up. Whatever ends the worker is said. */
export const readInWorker = (source: string, bytes: Uint8Array, longest: number): Promise<Opened> =>
  once(async (pool) => {
    try {
      return (await pool.exec('readWorkbook', [source, bytes]).timeout(longest)) as Opened;
    } catch (error) {
      const why =
        error instanceof workerpool.Promise.TimeoutError
          ? `took longer than ${longest / 1000} seconds to read and was stopped`
          : 'could not be read, probably because the browser ran out of memory';
      return { refusal: `${source} ${why}. Save its readings as CSV and open that file.` };
    }
  });

export const writeInWorker = (title: string, columns: readonly SheetColumn[]): Promise<Blob> =>
  once(async (pool) => (await pool.exec('writeWorkbook', [title, columns])) as Blob);
