import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countTexts } from '../src/store/cells.js';

describe('a block of cells as it is stored', () => {
  it('is counted as a parser counts it, whatever its cells hold', () => {
    const cell = fc.oneof(
      fc.string({ maxLength: 5 }),
      fc.constantFrom('', '"', '",', ',"', '\\', '\\\\', '\\"', '","', '\ud83d', '[', ']', '\n', '\u2028'),
    );
    fc.assert(
      fc.property(fc.array(cell, { maxLength: 30 }), (cells) => {
        expect(countTexts(JSON.stringify(cells))).toBe(cells.length);
      }),
      { numRuns: 2_000 },
    );
  });
});
