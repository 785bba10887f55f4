import fc from 'fast-check';
import { describe as group, expect, it } from 'vitest';
import { describe } from '../src/describe/describe.js';
import { column, columns, reference, relativeError } from './reference.js';

interface Expected {
  n: number;
  sum: number;
  mean: number;
  sd: number;
  variance: number;
  standardError: number;
  min: number;
  max: number;
  range: number;
  median: number;
  skewness: Record<'moment' | 'adjusted' | 'pearsonMedian' | 'standardError', number | undefined>;
  kurtosis: Record<'moment' | 'adjusted' | 'standardError', number | undefined>;
}
const expected = reference<Record<string, Expected>>('describe');

group('describe', () => {
  it.each(Object.keys(columns))('agrees with the reference on %s', (name) => {
    const found = describe(column(name), columns[name]!.resolution);
    const want = expected[name]!;
    for (const key of [
      'n',
      'sum',
      'mean',
      'sd',
      'variance',
      'standardError',
      'min',
      'max',
      'range',
      'median',
    ] as const) {
      expect(relativeError(found[key]!, want[key]), key).toBeLessThan(1e-9);
    }
    for (const key of ['moment', 'adjusted', 'pearsonMedian', 'standardError'] as const) {
      const value = want.skewness[key];
      if (value !== undefined)
        expect(Math.abs(found.skewness[key]! - value), key).toBeLessThan(1e-9 * (1 + Math.abs(value)));
    }
    for (const key of ['moment', 'adjusted', 'standardError'] as const) {
      const value = want.kurtosis[key];
      if (value !== undefined)
        expect(Math.abs(found.kurtosis[key]! - value), key).toBeLessThan(1e-9 * (1 + Math.abs(value)));
    }
  });

  it('keeps twelve digits of mean and sd under a large offset', () => {
    const found = describe(column('large-offset-30'), columns['large-offset-30']!.resolution);
    expect(relativeError(found.mean, expected['large-offset-30']!.mean)).toBeLessThan(1e-12);
    expect(relativeError(found.sd!, expected['large-offset-30']!.sd)).toBeLessThan(1e-12);
  });

  it('takes readings as doubles where they are no whole steps of the resolution', () => {
    expect(describe(Float64Array.of(1, 2.5, 3), 1).mean).toBeCloseTo(6.5 / 3, 15);
  });

  it('shifts with the data and scales with it', () => {
    const whole = fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 4, maxLength: 60 });
    fc.assert(
      fc.property(whole, fc.integer({ min: -50, max: 50 }), fc.constantFrom(0.5, 2, 4), (values, shift, scale) => {
        const before = describe(Float64Array.from(values));
        const after = describe(Float64Array.from(values, (x) => x * scale + shift));
        expect(after.mean).toBeCloseTo(before.mean * scale + shift, 9);
        expect(after.sd!).toBeCloseTo(before.sd! * scale, 9);
        if (before.skewness.moment !== null) expect(after.skewness.moment!).toBeCloseTo(before.skewness.moment, 7);
      }),
    );
  });

  it('gives no figure that n or a lack of spread forbids, and never NaN', () => {
    const one = describe(Float64Array.of(8.01));
    expect(one).toMatchObject({ n: 1, mean: 8.01, median: 8.01, sd: null, standardError: null });
    expect(one.skewness).toEqual({ moment: null, adjusted: null, pearsonMedian: null, standardError: null });
    const equal = describe(Float64Array.of(0.1, 0.1, 0.1, 0.1, 0.1, 0.1));
    expect(equal.skewness.moment).toBeNull();
    expect(equal.kurtosis.adjusted).toBeNull();
    expect(JSON.stringify([one, equal])).not.toContain('NaN');
  });
});
