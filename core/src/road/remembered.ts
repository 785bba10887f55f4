import { chunkReplicates, type KernelOrder } from './kernels.js';
import type { Executor } from './runner.js';

interface Kept {
  /** By number and size: only the last chunk of an order may be smaller. */
  chunks: Map<string, Promise<Float64Array>>;
  numbers: number;
}

/**
 * An executor that remembers the chunks of the latest orders, up to `most` numbers in all: an order is all that a chunk hangs on, so one that is given again
 * (another level, another name, another column of the same n) is answered without work, and one for more replicates is gone on with. Chunks that failed are not
 * kept.
 */
export function remembering(executor: Executor, most: number): Executor {
  const orders = new Map<string, Kept>();
  const keys = new WeakMap<KernelOrder, string>();
  let total = 0;

  function keyOf(order: KernelOrder): string {
    let key = keys.get(order);
    if (key === undefined) keys.set(order, (key = JSON.stringify({ ...order, replicates: 0 })));
    return key;
  }

  /** The order used last comes last; the first ones go when there is no room. */
  function used(key: string): Kept {
    const kept = orders.get(key) ?? { chunks: new Map(), numbers: 0 };
    orders.delete(key);
    orders.set(key, kept);
    return kept;
  }

  function makeRoom(): void {
    for (const [key, { numbers }] of orders) {
      if (total <= most) return;
      orders.delete(key);
      total -= numbers;
    }
  }

  return {
    ...executor,
    chunk(order, k) {
      const key = keyOf(order);
      const kept = used(key);
      const place = `${k} ${chunkReplicates(order, k)}`;
      const known = kept.chunks.get(place);
      if (known) return known;
      const asked = executor.chunk(order, k);
      kept.chunks.set(place, asked);
      asked.then(
        ({ length }) => {
          if (orders.get(key) !== kept) return;
          kept.numbers += length;
          total += length;
          makeRoom();
        },
        () => kept.chunks.delete(place),
      );
      return asked;
    },
  };
}
