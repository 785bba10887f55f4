import { advance } from '@verdict/core/analyses';
import { parseBlock, type BlockLayout, type ParsedBlock } from '@verdict/core/readings';
import { performChunk, type KernelOrder } from '@verdict/core/road';
import workerpool from 'workerpool';

const PREVIEW = 20;

/** What a large text holds, with the first rows of it only: a million cells stay where they are. */
function survey(text: string, layout: BlockLayout, taken: string[]): ParsedBlock {
  const block = parseBlock(text, layout, taken);
  return { ...block, columns: block.columns.map((column) => ({ ...column, cells: column.cells.slice(0, PREVIEW) })) };
}

workerpool.worker({
  advance,
  survey,
  parse: parseBlock,
  chunk: (order: KernelOrder, k: number) => {
    const numbers = performChunk(order, k);
    return new workerpool.Transfer(numbers, [numbers.buffer as ArrayBuffer]);
  },
});
