import { describe, expect, it } from 'vitest';
import { stripOf } from '../src/stages/readings/column/strip.js';

const BARE = { lowerLimit: null, target: null, upperLimit: null };

describe('the strip of readings', () => {
  it('holds every place between its ends, also for the maximums there are', () => {
    const { marks, least, most } = stripOf(Float64Array.of(0, -Number.MAX_VALUE, Number.MAX_VALUE, 1e308), BARE)!;
    expect(marks.map(({ x }) => Math.round(x))).toEqual([200, 10, 390, 306]);
    expect([least, most]).toEqual([-Number.MAX_VALUE, Number.MAX_VALUE]);
    expect(stripOf(new Float64Array(0), BARE)).toBeNull();
  });

  it('draws at most several hundred marks, including ties at the ends and an outlier', () => {
    const ones = Float64Array.from({ length: 100_000 }, (_, i) => i % 2);
    expect(stripOf(ones, BARE)!.marks.length).toBeLessThan(810);
    ones[777] = 9;
    const { marks } = stripOf(ones, BARE)!;
    expect(Math.max(...marks.map(({ x }) => x))).toBe(390);
  });

  it('reaches to the limits, and shows a target that lies inside', () => {
    const { limits, aim } = stripOf(Float64Array.of(2, 3), { lowerLimit: 0, target: 1, upperLimit: 4 })!;
    expect(limits).toEqual([10, 390]);
    expect(aim).toBe(105);
    expect(stripOf(Float64Array.of(2, 3), { ...BARE, target: 9 })!.aim).toBeNull();
  });
});
