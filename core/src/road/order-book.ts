import { GREATEST_SEED } from '../random/stream.js';
import type { KernelOrder } from './kernels.js';

/** What is ordered, without the streams it draws from. */
type Work = Pick<KernelOrder, 'kernel' | 'input'>;

/** The orders of a run, each with streams of its own. */
export interface OrderBook {
  orders: KernelOrder[];
  /**
   * Orders replicates and tells where their answers will stand. With `like`, the place of an earlier order, they draw from its streams: two comparisons of
   * the same draws then differ by what is compared, and not by chance.
   */
  add(work: Work, replicates: number, like?: number): number;
}

/** Hands out streams of a seed, from the first on, so that no two orders share one unless they are meant to. */
export function orderBook(seed: number, chunkSize: number): OrderBook {
  const orders: KernelOrder[] = [];
  let next = 0;
  return {
    orders,
    add(work, replicates, like) {
      const firstStream = like === undefined ? next : orders[like]!.firstStream;
      if (like === undefined) next += Math.ceil(replicates / chunkSize);
      return orders.push({ ...work, seed, firstStream, replicates, chunkSize } as KernelOrder) - 1;
    },
  };
}

const SEEDS_APART = 7919;

/** The k-th seed after one, 0 being itself: books of another chunk size draw from seeds of their own, since their streams would be the same. */
export const anotherSeed = (seed: number, k: number): number => (seed + k * SEEDS_APART) % (GREATEST_SEED + 1);
