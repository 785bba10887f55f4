import { chunkReplicates, type KernelOrder } from './kernels.js';
import type { Executor } from './runner.js';

interface Kept {
  /** By number and size: only the last chunk of an order may be smaller. */
  chunks: Map<string, Promise<Float64Array>>;
  numbers: number;
}

/** Long columns are known by what their bits come to: written out, a hundred thousand readings take longer than the work on them. */
const digested = (_: string, value: unknown): unknown =>
  value instanceof Float64Array ? `${value.length} ${digestOf(value)}` : value;

/** 128 bits of the values, by four lanes of MurmurHash3's mixing (Appleby 2011): no two columns that anybody has will share them. */
export function digestOf(values: Float64Array): string {
  const words = new Int32Array(values.slice().buffer);
  let [a, b, c, d] = [1, 2, 3, 4];
  for (let i = 0; i < words.length; i += 2) {
    let k = Math.imul(words[i]!, 0xcc9e2d51);
    k = Math.imul((k << 15) | (k >>> 17), 0x1b873593);
    let m = Math.imul(words[i + 1]!, 0xab0e9789);
    m = Math.imul((m << 16) | (m >>> 16), 0x38b34ae5);
    a = (Math.imul(((a ^ k) << 13) | ((a ^ k) >>> 19), 5) + 0xe6546b64 + b) | 0;
    b = (Math.imul(((b ^ m) << 17) | ((b ^ m) >>> 15), 5) + 0x0bcaa747 + c) | 0;
    c = (Math.imul(((c ^ k ^ m) << 15) | ((c ^ k ^ m) >>> 17), 5) + 0x96cd1c35 + d) | 0;
    d = (Math.imul(((d ^ (k + m)) << 11) | ((d ^ (k + m)) >>> 21), 5) + 0x32ac3b17 + a) | 0;
  }
  return [a, b, c, d].map((word) => (word >>> 0).toString(36)).join(' ');
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
    if (key === undefined) keys.set(order, (key = JSON.stringify({ ...order, replicates: 0 }, digested)));
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
