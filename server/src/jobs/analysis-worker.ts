import { advance } from '@verdict/core/analyses';
import { performChunk, type KernelOrder } from '@verdict/core/road';
import workerpool from 'workerpool';

workerpool.worker({
  advance,
  chunk: async (order: KernelOrder, k: number) => {
    const numbers = await performChunk(order, k);
    return new workerpool.Transfer(numbers, [numbers.buffer as ArrayBuffer]);
  },
});
