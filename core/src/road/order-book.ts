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
