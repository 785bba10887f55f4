import { describe, expect, it } from 'vitest';
import { outsideLimits, outsideWords } from '../../src/readings/outside-limits.js';

const rowsOf = (values: readonly number[]) => Int32Array.from(values, (_, i) => i + 1);
const outside = (values: number[], lower: number | null, upper: number | null, most = 50) =>
  outsideLimits(Float64Array.from(values), rowsOf(values), { lower, upper }, most);

describe('readings outside the limits of their column', () => {
  it('are found at either end, the limits themselves being within', () => {
    const { found, count } = outside([3.99, 4, 4.2, 4.5, 4.51], 4, 4.5);
    expect(count).toBe(2);
    expect(found.map(({ row, side, limit }) => [row, side, limit])).toEqual([
      [1, 'below', 4],
      [5, 'above', 4.5],
    ]);
    expect(outside([1, 2], null, null)).toEqual({ found: [], count: 0 });
  });

  it.each([
    [42.1, 'decimal place', 4.21],
    [0.421, 'decimal place', 4.21],
    [4210, 'decimal place', 4.21],
    [-4.21, 'sign', 4.21],
  ] as const)('%f among readings from 4.0 to 4.5 is a likely slip of a %s', (value, slip, meant) => {
    expect(outside([4.1, 4.3, 4.45, value], 4, 4.5).found[0]!.meant).toEqual({ value: meant, slip });
  });

  it('just beyond a wide range are no slip, though a decimal place away they would be within', () => {
    expect(outside([2, 20, 49, 60], 0, 50).found[0]!.meant).toBeNull();
    expect(outside([4.6], 4, 4.5).found[0]!.meant).toBeNull();
  });

  it('are counted on where they are not all listed, a row that counts several times once', () => {
    const { found, count } = outsideLimits(
      Float64Array.of(9, 9, 9, 8),
      Int32Array.of(1, 1, 1, 2),
      { lower: null, upper: 7 },
      1,
    );
    expect([found.length, count]).toEqual([1, 2]);
  });

  it('are said with the reading as written, the limit, and what it may have been', () => {
    const [one] = outside([4.1, 4.4, 42.1], 4, 4.5).found;
    expect(outsideWords(one!, '42.10', 'kg')).toBe(
      'Row 3 is 42.10\u00a0kg, above the upper limit 4.5\u00a0kg. Possible typing error: 4.21 (with the decimal point shifted) would be within the limits.',
    );
  });
});
