import type { Sample } from '@verdict/core/readings';
import { drive, type Answers } from '@verdict/core/road';
import { saveFile } from '../../files/save-file.js';
import { inWorkers } from '../../workers/analysis-pool.js';

/** Saves the statistics of all replicates, in the order of their drawing: they are drawn again, or remembered. */
export async function saveReplicates(
  job: { id: string; request: object; sample: Sample },
  { name, count, orders }: { name: string; count: number; orders: 'first' | 'all' },
): Promise<void> {
  let last: Answers = [];
  await drive(inWorkers, job, {
    onProgress: ({ share, soFar }) => {
      if (share === 1) last = soFar();
    },
  });
  const chunks = orders === 'first' ? last[0]! : last.flat();
  const numbers = chunks.reduce((sum, { length }) => sum + length, 0);
  const stride = Math.max(1, Math.round(numbers / count));
  const lines = ['number,statistic'];
  let number = 0;
  for (const chunk of chunks)
    for (let i = 0; i < chunk.length; i += stride)
      lines.push(`${++number},${Number.isFinite(chunk[i]!) ? chunk[i] : ''}`);
  saveFile(`${name}.csv`, `${lines.join('\n')}\n`, 'text/csv');
}
