import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BLOCK, Cells, digestOfCells } from '../src/index.js';

/** A column as it is stored, of which some blocks are shorter than they could be. */
function stored(texts: readonly string[], shorten = false): Cells {
  const blocks = Array.from({ length: Math.ceil(texts.length / BLOCK) }, (_, i) => {
    const block = texts.slice(i * BLOCK, (i + 1) * BLOCK);
    while (shorten && block.at(-1) === '') block.pop();
    return block;
  });
  return new Cells({
    count: blocks.length,
    read: (from, count) => Promise.resolve(blocks.slice(from, from + count)),
  });
}
const numbered = (count: number) => Array.from({ length: count }, (_, i) => (i % 7 === 0 ? '' : String(i + 1)));

/** The same steps on a plain list. */
interface Step {
  kind: 'write' | 'take' | 'put';
  rows: number[];
}
const rowsOf = (most: number) =>
  fc
    .uniqueArray(fc.integer({ min: 1, max: most }), { minLength: 1, maxLength: 30 })
    .map((rows) => rows.sort((a, b) => a - b));
const runOf = (most: number) =>
  fc
    .tuple(fc.integer({ min: 1, max: most }), fc.integer({ min: 1, max: 3 * BLOCK }))
    .map(([from, count]) => Array.from({ length: count }, (_, i) => from + i));
const steps = fc.array(
  fc.record<Step>({
    kind: fc.constantFrom('write', 'take', 'put'),
    rows: fc.oneof(rowsOf(5 * BLOCK), rowsOf(20), runOf(5 * BLOCK)),
  }),
  { minLength: 1, maxLength: 8 },
);

async function onCells(cells: Cells, { kind, rows }: Step, texts: string[]): Promise<string[]> {
  if (kind === 'take') return cells.take(rows);
  if (kind === 'put') await cells.put(rows, texts);
  else for (const [i, row] of rows.entries()) await cells.write(row, [texts[i]!]);
  return [];
}
function onList(list: string[], { kind, rows }: Step, texts: string[]): string[] {
  if (kind === 'take') {
    const taken = rows.map((row) => list[row - 1] ?? '');
    for (const row of [...rows].reverse()) list.splice(row - 1, 1);
    return taken;
  }
  for (const [i, row] of rows.entries()) {
    while (list.length < row - 1) list.push('');
    list.splice(row - 1, kind === 'put' ? 0 : 1, texts[i]!);
  }
  return [];
}

describe('the cells of a column at one moment of its record', () => {
  it('are those of a list with which the same was done', async () => {
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 0, max: 4 * BLOCK }), steps, async (count, all) => {
        const list = numbered(count);
        const cells = stored(list, true);
        for (const [k, step] of all.entries()) {
          const texts = step.rows.map((row) => `${k}:${row}`);
          expect(await onCells(cells, step, texts)).toEqual(onList(list, step, texts));
          expect(await cells.digest()).toBe(digestOfCells(list));
        }
        expect(await cells.read(1, list.length + 3)).toEqual([...list, '', '', '']);
        const end = list.findLastIndex((text) => text !== '');
        expect(await cells.anyBehind(end + 1)).toBe(false);
        if (end >= 0) expect(await cells.anyBehind(end)).toBe(true);
      }),
      { numRuns: 60, seed: 4711 },
    );
  });

  it('stay the same when more parts are changed than are held at once', async () => {
    const list = numbered(120 * BLOCK);
    const cells = stored(list);
    for (const turn of [1, 2])
      for (let row = 1; row <= list.length; row += BLOCK) {
        await cells.write(row, [`${turn}:${row}`]);
        list[row - 1] = `${turn}:${row}`;
      }
    expect(await cells.take([BLOCK, 60 * BLOCK])).toEqual([list[BLOCK - 1], list[60 * BLOCK - 1]]);
    list.splice(60 * BLOCK - 1, 1);
    list.splice(BLOCK - 1, 1);
    expect(await cells.digest()).toBe(digestOfCells(list));
  });
});
