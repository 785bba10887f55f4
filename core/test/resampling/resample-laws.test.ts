import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inThisThread } from '../../src/analyses/registry.js';
import type { BootstrapResult } from '../../src/analyses/resample/bootstrap-result.js';
import { formulaInterval } from '../../src/analyses/resample/bootstrap-formula.js';
import { formulaTest } from '../../src/analyses/resample/permutation-formula.js';
import type { PermutationResult } from '../../src/analyses/resample/permutation-result.js';
import type { StatisticId } from '../../src/road/statistic-settings.js';
import { statisticOf, notationOf, whatWords } from '../../src/road/statistic-asked.js';
import type { Asked } from '../../src/analyses/resample/resample-settings.js';
import { fisherP } from '../../src/claims/shares.js';
import { normalQuantile } from '../../src/numeric/standard-normal.js';
import { createStream } from '../../src/random/stream.js';
import { NO_READINGS, type Sample } from '../../src/readings/sample.js';
import { bootstrapReplicates } from '../../src/resampling/bootstrap.js';
import { intervalsOf } from '../../src/resampling/intervals.js';
import { acceleration, jackknife } from '../../src/resampling/jackknife.js';
import { evaluatorOf, type Statistic } from '../../src/resampling/statistic.js';
import { drive } from '../../src/road/runner.js';
import { samplesBeside } from '../../src/table/split.js';
import { relativeError } from '../reference.js';
import { sampleOf } from '../samples.js';

const BASE: Omit<Asked, 'statistic'> = { trim: '0.1', quantileType: 7, of: 'outside' };
const asked = (statistic: StatisticId, own: Partial<Asked> = {}): Asked => ({ ...BASE, statistic, ...own });
const named = (name: string, values: ArrayLike<number>): Sample => ({ ...sampleOf(Float64Array.from(values)), name });
const byKiln = (a: ArrayLike<number>, b: ArrayLike<number>): Sample => {
  const all = samplesBeside([named('a', a), named('b', b)]);
  return { ...all, name: 'x', groups: { ...all.groups!, by: 'kiln' } };
};
const permutation = async (request: object, sample: Sample) =>
  (await drive(inThisThread, {
    id: 'permutation',
    request: sample === NO_READINGS ? request : { column: 'x', ...request },
    sample,
  })) as PermutationResult;
const tenths = (size: { minLength: number; maxLength: number }) =>
  fc.array(fc.integer({ min: 0, max: 60 }), size).map((values) => values.map((x) => x / 10));

describe('properties of permutations', () => {
  const small = { minLength: 2, maxLength: 6 };
  const differs = (a: number[], b: number[]) => new Set([...a, ...b]).size > 1;

  it('groups that change places change the direction, and nothing else', async () => {
    const property = fc.asyncProperty(tenths(small), tenths(small), async (a, b) => {
      fc.pre(differs(a, b));
      const request = { statistic: 'difference-of-means', split: 'kiln' };
      const [one, other] = [await permutation(request, byKiln(a, b)), await permutation(request, byKiln(b, a))];
      expect(other.observed).toBeCloseTo(-one.observed, 12);
      expect([other.p!.less, other.p!.greater, other.p!.twoSided]).toEqual([
        one.p!.greater,
        one.p!.less,
        one.p!.twoSided,
      ]);
    });
    await fc.assert(property, { numRuns: 40 });
  });

  it('readings that are all moved or stretched alike have the same p', async () => {
    const property = fc.asyncProperty(
      tenths(small),
      tenths(small),
      fc.integer({ min: -9, max: 9 }),
      async (a, b, by) => {
        fc.pre(differs(a, b));
        for (const statistic of ['difference-of-means', 'difference-of-medians']) {
          const request = { statistic, split: 'kiln' };
          const moved = (values: number[]) => values.map((x) => 3 * x + 100 * by);
          const [as, after] = [
            await permutation(request, byKiln(a, b)),
            await permutation(request, byKiln(moved(a), moved(b))),
          ];
          expect(after.exact).toEqual(as.exact);
        }
      },
    );
    await fc.assert(property, { numRuns: 40 });
  });

  it('one-sided p is at least the share of one arrangement, and both tails together count at least everything', async () => {
    const property = fc.asyncProperty(tenths(small), tenths(small), async (a, b) => {
      fc.pre(differs(a, b));
      const { exact, p, arrangements } = await permutation(
        { statistic: 'difference-of-means', split: 'kiln' },
        byKiln(a, b),
      );
      expect(exact!.total).toBe(arrangements);
      expect(exact!.below + exact!.above).toBeGreaterThanOrEqual(exact!.total + 1);
      expect(Math.min(p!.less, p!.greater)).toBeGreaterThanOrEqual(1 / exact!.total);
      expect(p!.twoSided).toBeLessThanOrEqual(1);
    });
    await fc.assert(property, { numRuns: 40 });
  });

  it('of two counts one-sided p is Fisher’s, exactly', async () => {
    const count = fc.integer({ min: 0, max: 7 });
    const property = fc.asyncProperty(count, count, async (one, other) => {
      fc.pre(one + other > 0 && one + other < 15);
      const figures = [
        { count: one, n: 7 },
        { count: other, n: 8 },
      ];
      const { p, formula } = await permutation({ statistic: 'difference-of-shares', figures }, NO_READINGS);
      const table = [
        [one, 7 - one],
        [other, 8 - other],
      ] as const;
      expect(p!.greater).toBeCloseTo(fisherP(table, 'greater'), 12);
      expect(p!.less).toBeCloseTo(fisherP(table, 'less'), 12);
      expect(formula!.pValue).toBeCloseTo(fisherP(table, 'two-sided'), 14);
    });
    await fc.assert(property, { numRuns: 30 });
  });

  it('F of two groups has the two-sided p of their means: each rises with the other', async () => {
    const sample = byKiln([8.1, 8.4, 7.9, 8.8], [8.9, 9.1, 8.5, 9.4]);
    const f = await permutation({ statistic: 'f', split: 'kiln' }, sample);
    const means = await permutation({ statistic: 'difference-of-means', split: 'kiln' }, sample);
    expect(f.pValue).toBe(means.p!.twoSided);
    const largest = await permutation({ statistic: 'largest-difference', split: 'kiln' }, sample);
    expect(largest.pValue).toBe(means.p!.twoSided);
  });

  it('a formula is centred at its value for equal groups: 1 for a ratio, 0 for a difference', async () => {
    const sample = byKiln([8.1, 8.4, 7.9, 8.8], [8.9, 9.1, 8.5, 9.4]);
    const about = (formula: string) => permutation({ statistic: 'formula', formula, split: 'kiln' }, sample);
    const [ratio, off, difference] = [
      await about('mean1 / mean2'),
      await about('mean1 / mean2 - 1'),
      await about('mean1 - mean2'),
    ];
    expect([ratio.centre, off.centre, difference.centre]).toEqual([1, 0, 0]);
    expect(ratio.exact).toEqual(off.exact);
    const means = await permutation({ statistic: 'difference-of-means', split: 'kiln' }, sample);
    expect(difference.exact).toEqual(means.exact);
    // About 0 nearly all ratios would count as far.
    expect(ratio.pValue).toBeLessThan(0.2);
    const pairs = samplesBeside([named('x', [1, 2, 4, 3, 6, 5]), named('y', [1.1, 1.9, 3.2, 3.9, 5.1, 6.2])]);
    const refused = await permutation({ statistic: 'formula', formula: 'correlation * 2', beside: ['y'] }, pairs);
    expect((refused as unknown as { reason: string }).reason).toContain(
      'A formula over pairs has no null hypothesis to permute. Use the bootstrap, or test the',
    );
  });

  it('correlation and slope are the same test', async () => {
    const pairs = samplesBeside([named('x', [1, 2, 4, 3, 6, 5]), named('y', [1.1, 1.9, 3.2, 3.9, 5.1, 6.2])]);
    const both = await Promise.all(
      ['correlation', 'slope'].map((statistic) => permutation({ statistic, beside: ['y'] }, pairs)),
    );
    expect(both[0]!.exact).toEqual(both[1]!.exact);
    expect(both[0]!.formula).toEqual(both[1]!.formula);
  });
});

describe('properties of the bootstrap', () => {
  const input = (values: number[], statistic: Statistic) => ({
    ...{ statistic, groups: [Float64Array.from(values).sort()], times: 1, smooth: 0, studentised: false },
  });
  const run = (values: number[], statistic: Statistic) =>
    bootstrapReplicates(input(values, statistic), createStream(3, 0), 200);

  it('readings moved move every replicate of a place by as much, and leave those of a spread', () => {
    const property = fc.property(tenths({ minLength: 3, maxLength: 30 }), (values) => {
      const moved = values.map((x) => x + 50);
      for (const name of ['mean', 'median'] as const) {
        const [before, after] = [
          run(values, { of: 'one', figure: { name } }),
          run(moved, { of: 'one', figure: { name } }),
        ];
        before.forEach((value, i) => expect(after[i]).toBeCloseTo(value + 50, 9));
      }
      const [before, after] = [
        run(values, { of: 'one', figure: { name: 'sd' } }),
        run(moved, { of: 'one', figure: { name: 'sd' } }),
      ];
      before.forEach((value, i) => expect(after[i]).toBeCloseTo(value, 6));
    });
    fc.assert(property, { numRuns: 25 });
  });

  it('no replicate of a median or a percentile lies beyond the readings', () => {
    const property = fc.property(
      tenths({ minLength: 3, maxLength: 30 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (values, share) => {
        const [least, greatest] = [Math.min(...values), Math.max(...values)];
        for (const value of run(values, { of: 'one', figure: { name: 'percentile', share, type: 7 } }))
          expect(value >= least && value <= greatest).toBe(true);
      },
    );
    fc.assert(property, { numRuns: 40 });
  });

  it('a wider confidence holds a narrower one', () => {
    const statistics = run([1, 2, 2, 3, 5, 8, 13, 21, 22, 30], { of: 'one', figure: { name: 'mean' } });
    const at = (confidence: number) =>
      intervalsOf({
        ...{ observed: 10.7, statistics, studentised: null, standardError: null, confidence, tie: 1e-9 },
        acceleration: 0.05,
      });
    for (const name of ['percentile', 'basic', 'standard', 'bca'] as const) {
      const [narrow, wide] = [at(0.8)[name]!, at(0.95)[name]!];
      expect(wide.lower).toBeLessThanOrEqual(narrow.lower);
      expect(wide.upper).toBeGreaterThanOrEqual(narrow.upper);
    }
  });

  it('the jackknife leaves each reading out once; beyond 2 000 it leaves out blocks', () => {
    const values = Float64Array.of(1, 2, 4, 8, 16);
    const sd: Statistic = { of: 'one', figure: { name: 'sd' } };
    const [without] = jackknife(sd, [values]);
    values.forEach((_, k) => {
      const slow = evaluatorOf(sd)([values.filter((__, i) => i !== k)]);
      expect(without![k]).toBeCloseTo(slow, 14);
    });
    // The quick way of a mean is the slow one.
    const mean: Statistic = { of: 'difference', figure: { name: 'mean' } };
    const others = Float64Array.of(3, 5, 9);
    const [first, second] = jackknife(mean, [values, others]);
    expect(first![4]).toBeCloseTo(3.75 - 17 / 3, 12);
    expect(second![0]).toBeCloseTo(6.2 - 7, 12);
    const many = Float64Array.from({ length: 2_500 }, (_, i) => Math.exp(i / 1_000));
    expect(jackknife(sd, [many])[0]).toHaveLength(200);
    // Blocks tell about the same as single readings do.
    const [blocks, single] = [many, many.subarray(0, 2_000)].map((column) => acceleration(sd, [column])!);
    expect(Math.abs(blocks! - single!)).toBeLessThan(0.01);
  });
});

describe('comparison with formulas', () => {
  const x = Float64Array.of(1, 2, 3, 4, 5, 6);
  const y = Float64Array.of(1.1, 2.3, 2.7, 4.4, 4.6, 6.3);

  it('the correlation by Fisher’s z, and the slope by t', () => {
    const r = evaluatorOf({ of: 'correlation' })([x, y]);
    const z = Math.atanh(r);
    const half = -normalQuantile(0.025) / Math.sqrt(3);
    const found = formulaInterval(asked('correlation'), { groups: [x, y], observed: r }, 0.95)!;
    expect(found.lower!).toBeCloseTo(Math.tanh(z - half), 12);
    expect(found.upper!).toBeCloseTo(Math.tanh(z + half), 12);
    // A line through five points that all lie on it but for one: t(3) at 97.5 % is 3.182446305284263.
    const line = [Float64Array.of(0, 1, 2, 3, 5), Float64Array.of(0, 1, 2, 3, 4)];
    const slope = evaluatorOf({ of: 'slope' })(line);
    expect(slope).toBeCloseTo(1.2, 14);
    const about = formulaInterval(asked('slope'), { groups: line, observed: slope }, 0.95)!;
    const error = Math.sqrt(0.4 / 3 / 10);
    expect(about.upper!).toBeCloseTo(1.2 + 3.182446305284263 * error, 10);
  });

  it('the test of a correlation is t on n − 2, both ways', () => {
    const both = { alternative: 'two-sided', claimed: 0 } as const;
    const found = formulaTest(asked('correlation'), { groups: [x, y] }, both)!;
    const less = formulaTest(asked('correlation'), { groups: [x, y] }, { ...both, alternative: 'greater' })!;
    expect(found.pValue).toBeCloseTo(2 * less.pValue, 14);
    // Of the line above r is √0.9730: t = 1.2/√(0.4/30) = 10.392, p of t(3) both ways 0.0019.
    const line = [Float64Array.of(0, 1, 2, 3, 5), Float64Array.of(0, 1, 2, 3, 4)];
    expect(formulaTest(asked('slope'), { groups: line }, both)!.pValue).toBeCloseTo(0.0019, 4);
  });

  it('there is none where there is none, nor of too few readings', () => {
    const two = { groups: [Float64Array.of(1), Float64Array.of(2)] };
    const both = { alternative: 'two-sided', claimed: 0 } as const;
    expect(formulaTest(asked('difference-of-means'), two, both)).toBeNull();
    expect(formulaTest(asked('formula'), two, both)).toBeNull();
    expect(formulaInterval(asked('skewness'), { groups: [x], observed: 0 }, 0.95)).toBeNull();
    // Six readings have no interval of the median at 99 %.
    expect(formulaInterval(asked('median'), { groups: [x], observed: 3.5 }, 0.99)).toBeNull();
    const median = formulaInterval(asked('median'), { groups: [x], observed: 3.5 }, 0.95)!;
    expect([median.lower, median.upper]).toEqual([1, 6]);
  });

  it('the sd by χ² has the square roots of the variance', () => {
    const sd = evaluatorOf({ of: 'one', figure: { name: 'sd' } })([x]);
    const [ofSd, ofVariance] = [
      formulaInterval(asked('sd'), { groups: [x], observed: sd }, 0.9)!,
      formulaInterval(asked('variance'), { groups: [x], observed: sd * sd }, 0.9)!,
    ];
    expect(relativeError(ofVariance.lower!, ofSd.lower! ** 2)).toBeLessThan(1e-12);
    expect(relativeError(ofVariance.upper!, ofSd.upper! ** 2)).toBeLessThan(1e-12);
  });
});

describe('statistic, in words', () => {
  const whole = { name: 'thickness', by: null, names: ['thickness'], told: String };
  const split = { name: 'thickness', by: 'kiln', names: ['north', 'south'], told: String };
  const beside = { name: 'line', by: null, names: ['line', 'bench'], told: String };
  it.each([
    [asked('trimmed-mean', { trim: '0.2' }), whole, 'the trimmed mean of thickness (20 % at each end)'],
    [asked('percentile', { percentile: 0.95 }), whole, 'the 95 % quantile of thickness'],
    [asked('share', { lower: 7.5, upper: 8.5 }), whole, 'the proportion of thickness outside 7.5 to 8.5'],
    [asked('share', { upper: 8.5 }), whole, 'the proportion of thickness above 8.5'],
    [asked('share', { lower: 7.5, of: 'within' }), whole, 'the proportion of thickness at or above 7.5'],
    [asked('share', { level: 'chipped' }), { ...whole, name: 'fault' }, 'the proportion of “chipped” in fault'],
    [asked('difference-of-medians'), split, 'the median of thickness in north minus that in south'],
    [asked('difference-of-means'), beside, 'the mean of line minus that of bench'],
    [asked('difference-of-shares', { upper: 0.8 }), beside, 'the proportion of line above 0.8 minus that of bench'],
    [asked('log-ratio-of-sds'), split, 'the log ratio of the standard deviations of thickness in north and south'],
    [asked('slope'), beside, 'the slope of line against bench'],
    [asked('f'), split, 'F for the means of thickness by kiln'],
    [asked('largest-difference'), beside, 'the largest difference between the means of 2 columns'],
    [asked('formula', { formula: 'sd / mean' }), whole, 'sd / mean of thickness'],
  ])('%j', (request, of, words) => {
    expect(whatWords(request, of)).toBe(words);
  });

  it('each statistic can be computed, and has its own notation', () => {
    expect(statisticOf(asked('percentile', { percentile: 0.1, quantileType: 'hinges' }), false)).toEqual({
      of: 'one',
      figure: { name: 'percentile', share: 0.1, type: 7 },
    });
    expect(statisticOf(asked('difference-of-shares'), false)).toEqual({ of: 'difference', figure: { name: 'mean' } });
    const scale = { unit: 'mm', resolution: 0.01 };
    expect(notationOf(asked('sd'), scale)).toEqual({ scale: { ...scale, as: 'reading' }, kind: 'spread' });
    expect(notationOf(asked('share'), scale).scale.as).toBe('share');
    expect(notationOf(asked('skewness'), scale).scale.as).toBe('ratio');
  });
});

describe('the same request, the same bits', () => {
  it('of every statistic of one column, whatever was run before', async () => {
    const sample = named('x', [8, 8.2, 7.9, 8.4, 8.1, 8.3, 7.7, 8.6]);
    const once = (statistic: string) =>
      drive(inThisThread, { id: 'bootstrap', request: { column: 'x', statistic, replicates: 300 }, sample });
    for (const statistic of ['mean', 'median', 'trimmed-mean', 'percentile', 'sd', 'variance', 'cv', 'skewness']) {
      const first = (await once(statistic)) as BootstrapResult;
      await once('mean');
      expect(await once(statistic)).toEqual(first);
      expect(first.distribution.counts.reduce((a, b) => a + b, 0)).toBe(300 - first.undefined);
    }
  });
});
