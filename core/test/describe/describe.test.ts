import fc from 'fast-check';
import { describe as group, expect, it } from 'vitest';
import { describe, USUAL_DESCRIBE } from '../../src/describe/describe.js';
import { medianDistance } from '../../src/describe/deviations.js';
import { driftOf } from '../../src/describe/drift.js';
import { widestGap } from '../../src/describe/gap.js';
import { geometricMean } from '../../src/describe/geometric-mean.js';
import { medianRanks } from '../../src/describe/intervals.js';
import { modesOfSorted } from '../../src/describe/modes.js';
import { medianOfSorted, quantileOfSorted, quartilesOfSorted } from '../../src/describe/quantiles.js';
import { worked } from '../../src/describe/working-unit.js';
import { kurtosisTest } from '../../src/goodness-of-fit/normality/kurtosis.js';
import { skewnessTest } from '../../src/goodness-of-fit/normality/skewness.js';
import { ordered } from '../../src/numeric/ordered.js';
import { normalQuantile } from '../../src/numeric/standard-normal.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { column, columns, reference, relativeError } from '../reference.js';

type Figures = Record<string, number | undefined>;
interface Expected extends Record<string, unknown> {
  quantileProbabilities: number[];
  quantilesByType: Record<string, number[]>;
  modes: { values: number[]; count: number };
  skewness: Figures;
  kurtosis: Figures;
  meanInterval95: [number, number];
  sdInterval95: [number, number];
}
const expected = reference<Record<string, Expected>>('describe');
const names = Object.keys(columns);
const NUMBERED = [1, 2, 3, 4, 5, 6, 7, 8, 9] as const;

/**
 * Where a share falls midway between two readings, type 3 takes the one of even rank (Hyndman & Fan 1996, definition 3); the reference has the one
 * of odd rank. The paper decides: docs/decisions/0009.
 */
const NEAREST_EVEN: Record<string, Record<number, number>> = {
  three: { 0.5: 8 },
  'right-skew-50': { 0.25: 1.248, 0.75: 2.357 },
  'one-far-25': { 0.1: 11.29, 0.5: 11.8, 0.9: 12.08 },
  'large-offset-30': { 0.75: 10000000.4 },
};
const sortedOf = (values: ArrayLike<number>) => Float64Array.from(values).sort();

/** Relative to 1e-9, or absolute about 0. */
const close = (found: number | null, want: number) => Math.abs(found! - want) <= 1e-9 * Math.max(1, Math.abs(want));

group('describe', () => {
  it.each(names)('agrees with the reference on %s', (name) => {
    const found = describe(column(name), columns[name]!.resolution);
    const want = expected[name]!;
    for (const key of [
      ...['n', 'sum', 'mean', 'sd', 'variance', 'sdPopulation', 'variancePopulation', 'standardError', 'cv'],
      ...['min', 'max', 'range', 'median', 'meanAbsoluteDeviation', 'medianAbsoluteDeviation'],
    ] as (keyof typeof found & keyof Expected)[]) {
      expect(relativeError(found[key] as number, want[key] as number), key).toBeLessThan(1e-9);
    }
    if (want.geometricMean === undefined) expect(found.geometricMean).toBeNull();
    else expect(relativeError(found.geometricMean!, want.geometricMean as number)).toBeLessThan(1e-12);
    expect(found.modes).toMatchObject(want.modes);
    expect(relativeError(found.madSigma!, (want.medianAbsoluteDeviation as number) * 1.482602218505602)).toBeLessThan(
      1e-9,
    );
    for (const key of ['moment', 'adjusted', 'pearsonMedian', 'standardError'] as const) {
      if (want.skewness[key] !== undefined) expect(close(found.skewness[key], want.skewness[key]), key).toBe(true);
    }
    for (const key of ['moment', 'adjusted', 'standardError'] as const) {
      if (want.kurtosis[key] !== undefined) expect(close(found.kurtosis[key], want.kurtosis[key]), key).toBe(true);
    }
    for (const end of [0, 1] as const) {
      expect(relativeError(found.meanInterval![end], want.meanInterval95[end])).toBeLessThan(1e-9);
      expect(relativeError(found.sdInterval![end], want.sdInterval95[end])).toBeLessThan(1e-9);
    }
  });

  it.each(names)('gives the quantiles of all nine types as the reference on %s', (name) => {
    const { quantileProbabilities: shares, quantilesByType: byType } = expected[name]!;
    const percentiles = shares.map((share) => share * 100);
    const found = describe(column(name), columns[name]!.resolution, { ...USUAL_DESCRIBE, percentiles });
    for (const type of NUMBERED) {
      shares.forEach((_, i) => {
        const { byType: values, value } = found.percentiles[i]!;
        const want = type === 3 ? (NEAREST_EVEN[name]?.[shares[i]!] ?? byType[3]![i]!) : byType[type]![i]!;
        expect(relativeError(values[type - 1]!, want), `type ${type}`).toBeLessThan(1e-9);
        if (type === 7) expect(value).toBe(values[6]);
      });
      const quartiles = found.quartiles.find((one) => one.type === type)!;
      expect([quartiles.q1, quartiles.q3]).toEqual([1, 3].map((i) => found.percentiles[i]!.byType[type - 1]));
    }
  });

  it('keeps twelve digits of mean and sd under a large offset', () => {
    const found = describe(column('large-offset-30'), columns['large-offset-30']!.resolution);
    expect(relativeError(found.mean, expected['large-offset-30']!.mean as number)).toBeLessThan(1e-12);
    expect(relativeError(found.sd!, expected['large-offset-30']!.sd as number)).toBeLessThan(1e-12);
  });

  it('gives readings on a grid back as the decimals they are', () => {
    const found = describe(Float64Array.of(0.1, 0.2, 0.3, 0.3), 0.1);
    expect([found.min, found.median, found.max, found.sum, found.modes.values]).toEqual([0.1, 0.25, 0.3, 0.9, [0.3]]);
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
        expect(after.q3).toBeCloseTo(before.q3 * scale + shift, 9);
        expect(after.sd!).toBeCloseTo(before.sd! * scale, 9);
        expect(after.medianAbsoluteDeviation).toBeCloseTo(before.medianAbsoluteDeviation * scale, 9);
        if (before.skewness.moment !== null) expect(after.skewness.moment!).toBeCloseTo(before.skewness.moment, 7);
      }),
    );
  });

  it('gives no figure that n or a lack of spread forbids, and never NaN', () => {
    const one = describe(Float64Array.of(8.01));
    expect(one).toMatchObject({ n: 1, mean: 8.01, median: 8.01, q1: 8.01, sd: null, standardError: null, cv: null });
    expect(one).toMatchObject({ sdPopulation: 0, meanInterval: null, sdInterval: null, medianInterval: null });
    expect(one.skewness).toEqual({ moment: null, adjusted: null, pearsonMedian: null, standardError: null });
    const equal = describe(Float64Array.of(0.1, 0.1, 0.1, 0.1, 0.1, 0.1));
    expect(equal.skewness.moment).toBeNull();
    expect(equal.kurtosis.adjusted).toBeNull();
    expect(equal.sd).toBe(0);
    expect(equal.modes).toEqual({ values: [0.1], count: 6, total: 1 });
    expect(describe(Float64Array.of(0, 0, 0)).cv).toBeNull();
    expect(describe(Float64Array.of(-1, 1)).geometricMean).toBeNull();
  });

  const shapeOfScaled = (power: number) => {
    const base = [1, 2, 4, 8.5, 9, 9.25, 30];
    const found = describe(Float64Array.from(base, (x) => x * power));
    return { found, plain: describe(Float64Array.from(base)) };
  };
  it.each([1e300, 1e-300, 1e150, 1e-200])('works with readings of the size of %g', (power) => {
    const { found, plain } = shapeOfScaled(power);
    for (const key of ['mean', 'sd', 'q1', 'iqr', 'geometricMean', 'standardError'] as const) {
      expect(relativeError(found[key]! / power, plain[key]!), key).toBeLessThan(1e-12);
    }
    expect(relativeError(found.skewness.adjusted!, plain.skewness.adjusted!)).toBeLessThan(1e-12);
    // The square of the spread is no double; it is left out, not given as 0 or infinite.
    if (power === 1e300 || power === 1e-300) expect(found.variance).toBeNull();
    else expect(found.variance === null || found.variance > 0).toBe(true);
  });

  it('never gives NaN or an infinity, whatever the readings', () => {
    const readings = fc.array(fc.double({ noNaN: true, noDefaultInfinity: true }), { minLength: 1, maxLength: 30 });
    const finite = (value: unknown): boolean =>
      typeof value === 'number'
        ? Number.isFinite(value)
        : value === null || typeof value !== 'object' || Object.values(value).every(finite);
    fc.assert(
      fc.property(readings, (values) => finite(describe(Float64Array.from(values), null))),
      { numRuns: 400 },
    );
  });
});

group('quantiles', () => {
  it('of halves share the middle reading when n is odd', () => {
    expect(quartilesOfSorted(Float64Array.of(1, 2, 3, 4, 5), 'hinges')).toEqual([2, 4]);
    expect(quartilesOfSorted(Float64Array.of(1, 2, 3, 4), 'hinges')).toEqual([1.5, 3.5]);
    expect(quartilesOfSorted(Float64Array.of(7), 'hinges')).toEqual([7, 7]);
  });

  it('rise with the share and stay between the ends, by every definition', () => {
    const readings = fc.array(fc.integer({ min: -40, max: 40 }), { minLength: 1, maxLength: 25 });
    fc.assert(
      fc.property(readings, fc.constantFrom(...NUMBERED), (values, type) => {
        const sorted = sortedOf(values);
        const found = Array.from({ length: 41 }, (_, i) => quantileOfSorted(sorted, i / 40, type));
        expect([...found].sort((a, b) => a - b)).toEqual(found);
        expect(found[0]).toBeGreaterThanOrEqual(sorted[0]!);
        expect(found[40]).toBe(sorted.at(-1));
      }),
    );
  });

  it('at a half are the median for the symmetric definitions', () => {
    const readings = fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(readings, fc.constantFrom(2, 5, 6, 7, 8, 9), (values, type) => {
        const sorted = sortedOf(values);
        expect(quantileOfSorted(sorted, 0.5, type as 7)).toBeCloseTo(medianOfSorted(sorted), 12);
      }),
    );
  });
});

group('modes and deviations', () => {
  it('name all values that occur most often, and none where each occurs once', () => {
    expect(modesOfSorted(Float64Array.of(1, 1, 2, 3, 3))).toEqual({
      modes: { values: [1, 3], count: 2, total: 2 },
      distinct: 3,
      tied: 4,
    });
    expect(modesOfSorted(Float64Array.of(1, 2)).modes).toEqual({ values: [], count: 0, total: 0 });
  });

  it('median distance equals the slow way', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -20, max: 20 }), { minLength: 1, maxLength: 30 }), (values) => {
        const sorted = sortedOf(values);
        const median = medianOfSorted(sorted);
        expect(medianDistance(sorted, median)).toBe(medianOfSorted(sortedOf(values.map((x) => Math.abs(x - median)))));
      }),
    );
  });

  it('geometric mean equals the mean of logarithms, over all of the doubles', () => {
    const readings = fc.array(fc.double({ min: 1e-300, max: 1e300, noNaN: true }), { minLength: 1, maxLength: 30 });
    fc.assert(
      fc.property(readings, (values) => {
        const logs = values.reduce((sum, x) => sum + Math.log(x), 0) / values.length;
        expect(Math.log(geometricMean(Float64Array.from(values))!)).toBeCloseTo(logs, 9);
      }),
    );
  });
});

group('the interval of the median', () => {
  // Conover (1999), table A5, and the binomial sums themselves: n, rank, coverage.
  it.each([
    [5, 1, 0.9375],
    [6, 1, 0.96875],
    [10, 2, 0.978515625],
    [15, 4, 0.96484375],
    [20, 6, 0.958610534667969],
  ])('of %i readings runs from the rank %i and covers %d', (n, rank, coverage) => {
    const found = medianRanks(n, 0.95);
    expect(found.rank).toBe(rank);
    expect(found.coverage).toBeCloseTo(coverage, 12);
  });

  it('covers the median of a skewed population with the stated confidence', () => {
    const { rank, coverage } = medianRanks(17, 0.9);
    const draws = new Float64Array(17);
    const state = createStream(5, 0);
    let covered = 0;
    const samples = 20_000;
    for (let k = 0; k < samples; k++) {
      fillNormals(state, draws);
      draws.sort();
      // Any rising transform of a normal has its median where the normal has 0.
      if (draws[rank - 1]! <= 0 && draws[17 - rank]! >= 0) covered++;
    }
    expect(Math.abs(covered / samples - coverage)).toBeLessThan(4 * Math.sqrt((coverage * (1 - coverage)) / samples));
  });
});

group('tests of the shape', () => {
  const normality =
    reference<Record<string, Record<string, { statistic: number; pAsymptotic: number } | undefined>>>('normality');
  it.each(names)('agree with the reference on %s', (name) => {
    const { skewness, kurtosis, n } = describe(column(name), columns[name]!.resolution);
    const want = normality[name] ?? {};
    const found = { skewness: skewnessTest(skewness.moment!, n), kurtosis: kurtosisTest(kurtosis.moment!, n) };
    for (const test of ['skewness', 'kurtosis'] as const) {
      if (!want[test]) {
        expect(n < (test === 'skewness' ? 8 : 20) || !(name in normality)).toBe(true);
        continue;
      }
      expect(close(found[test]!.z, want[test].statistic)).toBe(true);
      expect(relativeError(found[test]!.pValue, want[test].pAsymptotic)).toBeLessThan(1e-8);
    }
  });
});

group('drift', () => {
  const correlationOf = (values: number[]) => driftOf(ordered(Float64Array.from(values)));

  it('equals Pearson’s correlation of the ranks, ties at their mean', () => {
    const readings = fc.array(fc.integer({ min: 0, max: 12 }), { minLength: 10, maxLength: 90 });
    fc.assert(
      fc.property(readings, (values) => {
        const found = correlationOf(values);
        if (new Set(values).size === 1) return expect(found).toBeNull();
        const rank = (x: number) => values.filter((y) => y < x).length + (values.filter((y) => y === x).length + 1) / 2;
        const ranks = values.map(rank);
        const mean = (values.length + 1) / 2;
        const products = ranks.reduce((sum, r, i) => sum + (r - mean) * (i + 1 - mean), 0);
        const squares = (of: number[]) => of.reduce((sum, r) => sum + (r - mean) ** 2, 0);
        const slow = products / Math.sqrt(squares(ranks) * squares(ranks.map((_, i) => i + 1)));
        expect(found!.correlation).toBeCloseTo(slow, 12);
      }),
    );
  });

  it('finds 5 % of samples without a drift at the level of 5 %', () => {
    const draws = new Float64Array(30);
    const state = createStream(8, 0);
    let found = 0;
    for (let k = 0; k < 10_000; k++) {
      fillNormals(state, draws);
      if (driftOf(ordered(draws))!.pValue < 0.05) found++;
    }
    expect(Math.abs(found / 10_000 - 0.05)).toBeLessThan(0.009);
  });

  it('finds readings in perfect order, and says nothing of fewer than ten', () => {
    expect(correlationOf([1, 2, 3, 4, 5, 6, 7, 8, 9, 10])!.pValue).toBeCloseTo(2 / 3_628_800, 12);
    expect(correlationOf([9, 8, 7, 6, 5, 4, 3, 2, 1])).toBeNull();
  });
});

group('the widest gap', () => {
  const normals = (n: number) => Float64Array.from({ length: n }, (_, i) => normalQuantile((i + 0.5) / n));

  it('is found between two groups, and not in a normal sample', () => {
    const two = column('two-groups-64').sort();
    const figures = describe(two);
    const gap = widestGap(two, figures.mean, figures.sd!, 0.01)!;
    expect(gap.pValue).toBeLessThan(0.001);
    expect(gap.to - gap.from).toBeGreaterThan(0.5);
    expect(widestGap(normals(64), 0, 1, 0)!.pValue).toBe(1);
  });

  it('is found by chance in at most 5 % of normal samples at the level of 5 %', () => {
    const draws = new Float64Array(40);
    const state = createStream(9, 0);
    let found = 0;
    for (let k = 0; k < 4_000; k++) {
      fillNormals(state, draws);
      const { mean, sd } = describe(draws);
      if (widestGap(draws.slice().sort(), mean, sd!, 0)!.pValue < 0.05) found++;
    }
    expect(found / 4_000).toBeLessThan(0.06);
    expect(found).toBeGreaterThan(20);
  });

  it('does not take coarse steps for gaps', () => {
    const coarse = Float64Array.from({ length: 60 }, (_, i) => Math.round(normalQuantile((i + 0.5) / 60)));
    expect(widestGap(coarse, 0, 1, 1)).toBeNull();
  });
});

group('the unit of calculation', () => {
  it('is whole steps on the grid, a power of two for extreme readings, else the readings themselves', () => {
    const plain = Float64Array.of(1.5, 2.7);
    expect(worked(plain, null).values).toBe(plain);
    expect(worked(Float64Array.of(7.8, 7.91), 0.01).values).toEqual(Float64Array.of(780, 791));
    for (const values of [Float64Array.of(1e300, 2e300), Float64Array.of(1e-300, 5e-324)]) {
      const { values: own, back } = worked(values, null);
      expect(Array.from(own, back)).toEqual(Array.from(values));
      expect(Math.max(...own)).toBeLessThanOrEqual(1);
    }
  });
});

group('ordering', () => {
  it('puts values in rising order and says where each stood, equal ones in theirs', () => {
    const anything = fc.oneof(
      fc.array(fc.double({ noNaN: true }), { maxLength: 400 }),
      fc.array(fc.integer({ min: -3, max: 3 }), { minLength: 60, maxLength: 400 }),
      // Alike in the upper half of their bits.
      fc
        .array(fc.integer({ min: 0, max: 1e6 }), { minLength: 300, maxLength: 400 })
        .map((all) => all.map((k) => 1 + k * 2 ** -52)),
    );
    fc.assert(
      fc.property(anything, (values) => {
        const { sorted, order } = ordered(Float64Array.from(values));
        const slow = values
          .map((_, i) => i)
          .sort((a, b) => (values[a]! < values[b]! ? -1 : values[a]! > values[b]! ? 1 : a - b));
        expect(Array.from(order)).toEqual(slow);
        expect(Array.from(sorted, (x) => x + 0)).toEqual(slow.map((i) => values[i]! + 0));
      }),
      { numRuns: 300 },
    );
  });
});

group('the intervals of a normal', () => {
  const samples = 4_000;
  const n = 12;
  /** How often an interval at a confidence holds what it is for, over samples of a normal with mean 5 and sd 2. */
  function covered(confidence: number): { mean: number; sd: number } {
    const state = createStream(12, 0);
    const draws = new Float64Array(n);
    const held = { mean: 0, sd: 0 };
    for (let k = 0; k < samples; k++) {
      fillNormals(state, draws);
      const values = draws.map((z) => 5 + 2 * z);
      const { meanInterval, sdInterval } = describe(values, null, { ...USUAL_DESCRIBE, confidence });
      if (meanInterval![0] <= 5 && meanInterval![1] >= 5) held.mean++;
      if (sdInterval![0] <= 2 && sdInterval![1] >= 2) held.sd++;
    }
    return { mean: held.mean / samples, sd: held.sd / samples };
  }

  it.each([0.5, 0.9, 0.99])('at %d cover mean and SD with the stated confidence', (confidence) => {
    const { mean, sd } = covered(confidence);
    const margin = 4 * Math.sqrt((confidence * (1 - confidence)) / samples);
    expect(Math.abs(mean - confidence)).toBeLessThan(margin);
    expect(Math.abs(sd - confidence)).toBeLessThan(margin);
  });

  it('grow with the confidence and hold the estimate', () => {
    const values = Float64Array.of(7.9, 8.1, 8, 8.4, 7.7, 8.2);
    const at = (confidence: number) => describe(values, null, { ...USUAL_DESCRIBE, confidence });
    const [narrow, wide] = [at(0.5), at(0.99)];
    for (const key of ['meanInterval', 'sdInterval'] as const) {
      expect(wide[key]![0]).toBeLessThan(narrow[key]![0]);
      expect(wide[key]![1]).toBeGreaterThan(narrow[key]![1]);
    }
    expect(narrow.meanInterval![0]).toBeLessThan(narrow.mean);
    expect(narrow.medianInterval!.coverage).toBeLessThan(wide.medianInterval!.coverage);
  });
});

group('the tests of the shape under normality', () => {
  it('find 5 % of normal samples at the level of 5 %', () => {
    const state = createStream(14, 0);
    const draws = new Float64Array(40);
    const found = { skewness: 0, kurtosis: 0 };
    const samples = 6_000;
    for (let k = 0; k < samples; k++) {
      fillNormals(state, draws);
      const { skewness, kurtosis } = describe(draws);
      if (skewnessTest(skewness.moment!, 40)!.pValue < 0.05) found.skewness++;
      if (kurtosisTest(kurtosis.moment!, 40)!.pValue < 0.05) found.kurtosis++;
    }
    // Both are approximations; their authors give about half a percent.
    expect(Math.abs(found.skewness / samples - 0.05)).toBeLessThan(0.014);
    expect(Math.abs(found.kurtosis / samples - 0.05)).toBeLessThan(0.014);
  });

  it('turn round with the readings', () => {
    const skewed = column('right-skew-50');
    const { skewness } = describe(skewed);
    const back = describe(skewed.map((x) => -x)).skewness;
    expect(skewnessTest(back.moment!, 50)!.z).toBeCloseTo(-skewnessTest(skewness.moment!, 50)!.z, 9);
    expect(skewnessTest(0, 50)).toEqual({ z: 0, pValue: 1 });
    expect(kurtosisTest(1, 19)).toBeNull();
  });

  it('keeps all digits of readings ten thousand million steps from 0', () => {
    const values = Float64Array.of(10000000.162, 10000000.188, 10000000.189, 10000000.253, 10000000.066);
    const found = describe(values, 0.001);
    // 162, 188, 189, 253 and 66 thousandths: variance 18441.2/4 in squares of these.
    expect(found.variance).toBeCloseTo(0.0046103, 15);
    expect(found.medianAbsoluteDeviation).toBe(0.026);
    const wide = values.map((x) => Number((x * 1e5).toFixed(0)) / 1);
    expect(describe(wide, 1).range).toBe(18700);
  });

  it('is 0 where the mean is zero up to rounding, as of standard scores', () => {
    const z = column('normal-40');
    const { mean, sd } = describe(z);
    const scores = z.map((x) => (x - mean) / sd!);
    const left = describe(scores).mean;
    expect(describe(scores.map((x) => x - left)).mean).toBe(0);
    expect(describe(Float64Array.of(0.1, 0.2, -0.3)).sum).toBe(0);
    expect(describe(Float64Array.of(1e-9, 2e-9, -2e-9)).mean).toBeGreaterThan(0);
  });
});
