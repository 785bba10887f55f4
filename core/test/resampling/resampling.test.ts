import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arranging, countArrangements, type Arranged } from '../../src/resampling/arrangements.js';
import { bootstrapReplicates, type BootstrapDraws } from '../../src/resampling/bootstrap.js';
import { distributionOf, frameOf } from '../../src/resampling/distribution.js';
import { countDrawn, pickDrawn, squaresDrawn, sumDrawn } from '../../src/resampling/draw.js';
import { trimmedMean, type Figure } from '../../src/resampling/figure.js';
import { readFiguresFormula } from '../../src/resampling/formula.js';
import { intervalsOf, spreadOf } from '../../src/resampling/intervals.js';
import { acceleration } from '../../src/resampling/jackknife.js';
import {
  arrangementStatistics,
  arrangedFigure,
  permutationReplicates,
  type Shuffled,
} from '../../src/resampling/permutation.js';
import { arrangementAt, bootstrapReplicate, permutationReplicate } from '../../src/resampling/replicate.js';
import { evaluatorOf, tieOf, type Statistic } from '../../src/resampling/statistic.js';
import { countTails } from '../../src/resampling/tails.js';
import { createStream } from '../../src/random/stream.js';
import { resampledChunkSize } from '../../src/road/kernels.js';
import { column, reference, relativeError } from '../reference.js';

interface Permuted {
  statistic: string;
  a: number[];
  b: number[];
  observed: number;
  arrangements: number;
  below: number;
  above: number;
  atLeastAsFar: number;
  pValue: Record<'less' | 'greater' | 'two-sided', number>;
}
interface Bootstrapped {
  bca95: [number, number];
  percentile95: [number, number];
  standardError: number;
  monteCarlo: [number, number];
}
const known = reference<{
  permutation: Permuted[];
  signFlips: { differences: number[]; observed: number; arrangements: number; pValue: Permuted['pValue'] };
  bootstrap: Record<
    string,
    {
      meanExactSe: number;
      medianExact?: { mean: number; se: number };
      mean: Bootstrapped;
      sd: Bootstrapped;
      jackknifeAccelerationOfMean: number;
    }
  >;
}>('resampling');

const sorted = (values: ArrayLike<number>) => Float64Array.from(values).sort();
const one = (name: 'mean' | 'median' | 'sd' | 'variance' | 'cv' | 'skewness'): Statistic => ({
  of: 'one',
  figure: { name },
});
const difference = (name: 'mean' | 'median'): Statistic => ({ of: 'difference', figure: { name } });
const draws = (
  statistic: Statistic,
  groups: readonly Float64Array[],
  own: Partial<BootstrapDraws> = {},
): BootstrapDraws => ({ ...{ statistic, groups, times: 1, smooth: 0, studentised: false }, ...own });

describe('permutation by counting out', () => {
  it.each(known.permutation)('$statistic: $arrangements arrangements to the last digit', (expected) => {
    const [a, b] = [sorted(expected.a), sorted(expected.b)];
    const statistic = difference(expected.statistic.endsWith('medians') ? 'median' : 'mean');
    const observed = evaluatorOf(statistic)([a, b]);
    expect(relativeError(observed, expected.observed)).toBeLessThan(1e-14);
    const arranged: Arranged = { design: 'labels', sizes: [a.length, b.length] };
    expect(countArrangements(arranged)).toBe(expected.arrangements);
    const input: Shuffled = { arranged, statistic, values: sorted([...a, ...b]) };
    // In stretches, as they are ordered.
    const chunks = [0, 1_000, 9_000].flatMap((from, i, all) => {
      const to = Math.min(all[i + 1] ?? Infinity, expected.arrangements);
      return to > from ? [arrangementStatistics({ ...input, from }, createStream(1, 0), to - from)] : [];
    });
    const tie = tieOf(statistic, observed, [a, b]);
    const found = countTails(chunks, { observed, centre: 0, tie });
    const { arrangements: total, below, above, atLeastAsFar } = expected;
    expect(found).toMatchObject({ total, below, above, atLeastAsFar });
    expect(found.below / found.total).toBeCloseTo(expected.pValue.less, 15);
    expect(found.atLeastAsFar / found.total).toBeCloseTo(expected.pValue['two-sided'], 15);
  });

  it('of signs turned over', () => {
    const { differences, observed, arrangements, pValue } = known.signFlips;
    const input: Shuffled = {
      ...{ arranged: { design: 'signs', n: differences.length }, statistic: one('mean') },
      values: sorted(differences),
    };
    const all = arrangementStatistics({ ...input, from: 0 }, createStream(1, 0), arrangements);
    const found = countTails([all], { observed, centre: 0, tie: 1e-10 });
    expect(found.below / arrangements).toBe(pValue.less);
    expect(found.above / arrangements).toBe(pValue.greater);
    expect(found.atLeastAsFar / arrangements).toBe(pValue['two-sided']);
  });

  const every: Arranged[] = [
    { design: 'labels', sizes: [3, 5] },
    { design: 'labels', sizes: [6, 2] },
    { design: 'labels', sizes: [2, 3, 2] },
    { design: 'labels', sizes: [1, 1, 1, 3] },
    { design: 'signs', n: 7 },
    { design: 'pairs', n: 6 },
  ];
  it.each(every)('goes through each arrangement just once, from wherever it begins: %j', (arranged) => {
    const total = countArrangements(arranged);
    const ways = arranging(arranged);
    const seen = new Set<string>();
    ways.goTo(0);
    for (let k = 0; k < total; k++, ways.next()) {
      const there = arranging(arranged);
      there.goTo(k);
      expect([...there.at]).toEqual([...ways.at]);
      seen.add(ways.at.join());
    }
    expect(seen.size).toBe(total);
  });

  it.each(every)('all arrangements are equally likely: %j', (arranged) => {
    const total = countArrangements(arranged);
    const ways = arranging(arranged);
    const counts = new Map<string, number>();
    const state = createStream(8, 0);
    const isSet = arranged.design === 'labels' && arranged.sizes.length === 2;
    for (let k = 0; k < total * 40; k++) {
      ways.shuffle(state);
      // Of two groups it is the set that counts, in whatever order it was drawn.
      const key = (isSet ? [...ways.at].sort((a, b) => a - b) : [...ways.at]).join();
      counts.set(key, (counts.get(key) ?? 0) + 1);
    }
    expect(counts.size).toBe(total);
    const chi = [...counts.values()].reduce((sum, count) => sum + (count - 40) ** 2 / 40, 0);
    expect(chi).toBeLessThan(total - 1 + 5 * Math.sqrt(2 * (total - 1)));
  });

  const values = sorted([3, 1, 4, 1, 5, 9, 2, 6, 5, 3, 5, 8].map((x) => x + 0.1));
  it.each([
    [5, 7],
    [8, 4],
    [1, 11],
  ])('the fast statistics of %d and %d equal those computed from the readings', (...sizes) => {
    const statistics: Statistic[] = [
      difference('mean'),
      difference('median'),
      { of: 'log-ratio' },
      { of: 'formula', formula: 'mean1 / mean2', pairs: false },
    ];
    for (const statistic of statistics) {
      const figure = arrangedFigure({ arranged: { design: 'labels', sizes }, statistic, values });
      const ways = arranging({ design: 'labels', sizes });
      for (let k = 0; k < 12; k++) {
        ways.goTo(k);
        const inside = new Set(ways.at);
        const small = values.filter((_, i) => inside.has(i));
        const rest = values.filter((_, i) => !inside.has(i));
        const slow = evaluatorOf(statistic)(sizes[0]! <= sizes[1]! ? [small, rest] : [rest, small]);
        if (Number.isNaN(slow)) expect(Number.isFinite(figure(ways.at))).toBe(false);
        else expect(figure(ways.at)).toBeCloseTo(slow, 12);
      }
    }
  });

  it.each(['f', 'largest-difference'] as const)('so does %s of three groups', (of) => {
    const sizes = [4, 3, 5];
    const figure = arrangedFigure({ arranged: { design: 'labels', sizes }, statistic: { of }, values });
    const ways = arranging({ design: 'labels', sizes });
    for (const k of [0, 17, 20_000]) {
      ways.goTo(k);
      const groups = sizes.map((_, g) => values.filter((__, i) => ways.at[i] === g));
      expect(figure(ways.at)).toBeCloseTo(evaluatorOf({ of })(groups), 10);
    }
  });
});

describe('drawing with replacement', () => {
  it.each([7, 500, 70_000])('sums, counts and picks are of the same of %d readings', (n) => {
    const values = Float64Array.from({ length: n }, (_, i) => Math.sin(i));
    const picks = new Int32Array(1_000);
    pickDrawn(createStream(5, 1), n, picks);
    const drawn = Array.from(picks, (at) => values[at]!);
    const sum = drawn.reduce((a, b) => a + b, 0);
    expect(sumDrawn(createStream(5, 1), values, 1_000)).toBeCloseTo(sum, 10);
    const both = new Float64Array(2);
    squaresDrawn(createStream(5, 1), values, 1_000, both);
    expect(both[0]).toBeCloseTo(sum, 10);
    const squares = drawn.reduce((a, b) => a + b * b, 0);
    expect(both[1]).toBeCloseTo(squares, 10);
    const counts = new Int32Array(n);
    expect(countDrawn(createStream(5, 1), counts, 1_000, 3)).toBe(picks.filter((at) => at < 3).length);
    const expected = new Int32Array(n);
    for (const at of picks) expected[at]!++;
    expect(counts).toEqual(expected);
  });

  it('draws every reading with equal probability', () => {
    const counts = new Int32Array(9);
    countDrawn(createStream(2, 0), counts, 90_000, 0);
    const chi = counts.reduce((sum, count) => sum + (count - 10_000) ** 2 / 10_000, 0);
    expect(chi).toBeLessThan(26.1);
  });

  const figures: Figure[] = [
    ...(['mean', 'median', 'sd', 'variance', 'cv', 'skewness'] as const).map((name) => ({ name })),
    { name: 'trimmed-mean', trim: 0.1 },
    ...([0, 0.1, 0.5, 0.9, 1] as const).flatMap((share) =>
      ([1, 2, 3, 4, 5, 6, 7, 8, 9] as const).map((type) => ({ name: 'percentile' as const, share, type })),
    ),
  ];
  it('replicate i of a run is replicate i drawn alone, and what the readings drawn give', () => {
    const values = sorted([8.01, 7.94, 8.1, 8.03, 7.97, 8.02, 8.02, 7.99, 8.15, 8.04, 7.9]);
    const others = sorted([7.9, 8, 8.2, 8.3, 7.7]);
    const asked: [Statistic, Float64Array[]][] = [
      ...figures.map((figure): [Statistic, Float64Array[]] => [{ of: 'one', figure }, [values]]),
      ...figures
        .slice(0, 8)
        .map((figure): [Statistic, Float64Array[]] => [{ of: 'difference', figure }, [values, others]]),
      [{ of: 'log-ratio' }, [values, others]],
      [{ of: 'formula', formula: 'sd / mean', pairs: false }, [values]],
      [{ of: 'correlation' }, [others, Float64Array.of(5, 4, 3, 2, 1)]],
      [{ of: 'slope' }, [others, Float64Array.of(1, 4, 2, 3, 5)]],
    ];
    const size = 40;
    for (const [statistic, groups] of asked)
      for (const own of [{}, { times: 3 }, { smooth: 0.01 }]) {
        const input = draws(statistic, groups, own);
        const run = bootstrapReplicates(input, createStream(9, 2), size);
        for (const i of [0, 17, 39]) {
          const alone = bootstrapReplicate(input, { number: 2 * size + i + 1, seed: 9, chunkSize: size });
          if (Number.isNaN(run[i]!)) expect(alone.statistic).toBeNaN();
          else expect(alone.statistic, JSON.stringify(statistic)).toBeCloseTo(run[i]!, 11);
        }
      }
  });

  it('a shuffle of a run is the same shuffle drawn alone', () => {
    const values = sorted([3, 1, 4, 1, 5, 9, 2, 6, 5, 3]);
    const inputs: Shuffled[] = [
      { arranged: { design: 'labels', sizes: [4, 6] }, statistic: difference('mean'), values },
      { arranged: { design: 'labels', sizes: [7, 3] }, statistic: difference('mean'), values },
      { arranged: { design: 'labels', sizes: [7, 3] }, statistic: difference('median'), values },
      { arranged: { design: 'labels', sizes: [4, 3, 3] }, statistic: { of: 'f' }, values },
      { arranged: { design: 'signs', n: 10 }, statistic: one('median'), values: values.map((x) => x - 4) },
      {
        arranged: { design: 'pairs', n: 10 },
        statistic: { of: 'correlation' },
        values,
        others: values.slice().reverse(),
      },
    ];
    for (const input of inputs) {
      const run = permutationReplicates(input, createStream(4, 1), 30);
      for (const i of [0, 11, 29]) {
        const { statistic } = permutationReplicate(input, { number: 30 + i + 1, seed: 4, chunkSize: 30 });
        expect(statistic).toBeCloseTo(run[i]!, 12);
      }
      const counted = arrangementStatistics({ ...input, from: 5 }, createStream(0, 0), 3);
      expect(arrangementAt(input, 7).statistic).toBe(counted[1]);
    }
  });
});

describe('bootstrap', () => {
  const REPLICATES = 40_000;
  it.each(Object.keys(known.bootstrap))('%s: exact standard errors, intervals within their errors', (name) => {
    const expected = known.bootstrap[name]!;
    const values = sorted(column(name));
    for (const figure of ['mean', 'sd'] as const) {
      const statistic = one(figure);
      const observed = evaluatorOf(statistic)([values]);
      const statistics = bootstrapReplicates(draws(statistic, [values]), createStream(71, 0), REPLICATES);
      const { sd } = spreadOf(statistics);
      // The error of an sd of B replicates is about sd/√(2B); the reference has its own.
      const error = expected[figure].standardError / Math.sqrt(2 * REPLICATES);
      expect(Math.abs(sd - expected[figure].standardError)).toBeLessThan(6 * error);
      if (figure === 'mean') expect(Math.abs(sd - expected.meanExactSe)).toBeLessThan(4 * error);
      const tie = tieOf(statistic, observed, [values]);
      const made = { observed, statistics, studentised: null, standardError: null, confidence: 0.95, tie };
      const { bca, percentile } = intervalsOf({ ...made, acceleration: acceleration(statistic, [values]) });
      const { bca95, percentile95, monteCarlo } = expected[figure];
      const near = (found: number, own: number | null, end: number, theirs: number) =>
        expect(Math.abs(found - end), `${figure} ${end}`).toBeLessThan(4 * Math.hypot(own!, theirs) + sd * 0.02);
      near(percentile!.lower, percentile!.lowerError, percentile95[0], monteCarlo[0]);
      near(percentile!.upper, percentile!.upperError, percentile95[1], monteCarlo[1]);
      near(bca!.lower, bca!.lowerError, bca95[0], monteCarlo[0]);
      near(bca!.upper, bca!.upperError, bca95[1], monteCarlo[1]);
    }
    const { jackknifeAccelerationOfMean: accelerated, medianExact } = expected;
    expect(relativeError(acceleration(one('mean'), [values])!, accelerated)).toBeLessThan(1e-9);
    if (!medianExact) return;
    const medians = bootstrapReplicates(draws(one('median'), [values]), createStream(72, 0), REPLICATES);
    const { mean, sd } = spreadOf(medians);
    expect(Math.abs(mean - medianExact.mean)).toBeLessThan((4 * sd) / Math.sqrt(REPLICATES));
    expect(Math.abs(sd - medianExact.se)).toBeLessThan(0.02 * sd);
  });

  it('the distribution of an odd median is the binomial one, value by value', () => {
    // P(median ≤ x₍ₖ₎) = P(Bin(n, k/n) ≥ (n + 1)/2), Efron (1979).
    const values = Float64Array.of(1, 2, 3, 4, 5);
    const medians = bootstrapReplicates(draws(one('median'), [values]), createStream(6, 0), 50_000);
    const choose = [1, 5, 10, 10, 5, 1];
    const atLeast3 = (p: number) => [3, 4, 5].reduce((sum, j) => sum + choose[j]! * p ** j * (1 - p) ** (5 - j), 0);
    values.forEach((value, i) => {
      const chance = atLeast3((i + 1) / 5) - atLeast3(i / 5);
      const share = medians.filter((median) => median === value).length / 50_000;
      expect(Math.abs(share - chance)).toBeLessThan(4 * Math.sqrt((chance * (1 - chance)) / 50_000));
    });
  });

  it('of a sample k times as large as the sample the standard error of a mean shrinks with √k', () => {
    const values = sorted(column('normal-40'));
    const exact = known.bootstrap['normal-40']!.meanExactSe;
    for (const times of [1, 2, 10]) {
      const input = draws(one('mean'), [values], { times });
      const { sd } = spreadOf(bootstrapReplicates(input, createStream(3, times), 20_000));
      expect(Math.abs(sd * Math.sqrt(times) - exact)).toBeLessThan((4 * exact) / Math.sqrt(40_000));
    }
  });

  it('moving readings within a step adds the variance of a step', () => {
    const values = new Float64Array(50).fill(8);
    const moved = bootstrapReplicates(draws(one('mean'), [values], { smooth: 0.6 }), createStream(3, 0), 20_000);
    const exact = 0.6 / Math.sqrt(12 * 50);
    expect(Math.abs(spreadOf(moved).sd - exact)).toBeLessThan((4 * exact) / Math.sqrt(40_000));
  });

  it('keeps its digits far away from 0, and equal readings have no spread at all', () => {
    const near = [0.1, 0.2, 0.3, 0.4];
    const sds = (values: number[]) => bootstrapReplicates(draws(one('sd'), [sorted(values)]), createStream(3, 0), 500);
    const [far, close] = [sds(near.map((x) => 1e9 + x)), sds(near)];
    far.forEach((value, i) => expect(Math.abs(value - close[i]!)).toBeLessThan(1e-6));
    expect(close.some((value) => value === 0)).toBe(true);
  });

  it('BCa without bias and lean is the percentile interval; basic mirrors it', () => {
    const property = fc.property(
      fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 40, maxLength: 200 }),
      (drawn) => {
        // Mirrored about 0, so that as many lie below as above.
        const statistics = Float64Array.from(drawn.flatMap((x) => [x, -x]));
        const made = { observed: 0, statistics, studentised: null, standardError: null, confidence: 0.9, tie: 1e-9 };
        const found = intervalsOf({ ...made, acceleration: 0 });
        if (found.bca) expect(found.bca.lower).toBeCloseTo(found.percentile!.lower, 9);
        expect(found.basic!.lower).toBeCloseTo(-found.percentile!.upper, 12);
        expect(found.standard!.upper).toBeCloseTo(-found.standard!.lower, 12);
      },
    );
    fc.assert(property, { numRuns: 50 });
  });
});

describe('replicates piled up', () => {
  it('are counted every one, in bins that mirror each other, with an edge where the tails begin', () => {
    const state = createStream(1, 0);
    const values = sorted(column('normal-40'));
    const input: Shuffled = { arranged: { design: 'labels', sizes: [15, 25] }, statistic: difference('mean'), values };
    const chunks = [permutationReplicates(input, state, 700), permutationReplicates(input, state, 300)];
    const pilot = Array.from(chunks[0]!.subarray(0, 200));
    const found = distributionOf(
      { chunks, stride: 1 },
      frameOf(pilot, { centre: 0, edge: 0.9, also: [-0.9, 0.9], tie: 1e-9 }),
    );
    expect(found.counts.reduce((a, b) => a + b, 0)).toBe(1_000);
    const tails = countTails(chunks, { observed: 0.9, centre: 0, tie: 1e-9 });
    const { edges } = found;
    const shaded = found.counts.filter((_, i) => edges[i + 1]! <= -0.9 + 1e-9 || edges[i]! >= 0.9 - 1e-9);
    expect(shaded.reduce((a, b) => a + b, 0)).toBe(tails.atLeastAsFar);
    const all = chunks.flatMap((chunk) => [...chunk]);
    found.examples.forEach((number, i) => {
      if (found.counts[i] === 0) return;
      const value = all[number - 1]!;
      expect(value >= edges[i]! - 1e-9 && value <= edges[i + 1]! + 1e-9).toBe(true);
    });
  });

  it('are shown at their values if these are few; undefined ones are left out', () => {
    const chunk = Float64Array.of(0.1 + 0.2, 0.3, NaN, 0.1, 0.1);
    const found = distributionOf({ chunks: [chunk], stride: 1 }, frameOf([0.1, 0.3], { centre: 0.3, tie: 1e-12 }));
    expect(found.values!.map((value) => value.toFixed(3))).toEqual(['0.100', '0.300']);
    expect(found.counts).toEqual([2, 2]);
    expect(found.examples).toEqual([4, 1]);
  });

  it('a few infinite ones are reported, not drawn', () => {
    const chunk = Float64Array.from({ length: 5_000 }, (_, i) => (i === 17 ? 1e12 : i / 1000));
    const found = distributionOf({ chunks: [chunk], stride: 1 }, frameOf([0, 1, 2, 3, 4, 5], { centre: 2, tie: 1e-9 }));
    expect(found.counts.length).toBeLessThanOrEqual(400);
    expect(found.above).toBe(1);
    expect(found.counts.reduce((a, b) => a + b, 0) + found.above + found.below).toBe(5_000);
  });

  it('chunks have a fixed size, whatever the request', () => {
    expect([24, 500, 2_000_000].map(resampledChunkSize)).toEqual([5_000, 4_000, 1]);
  });
});

describe('figures and formulas', () => {
  it('a trimmed mean leaves out whole readings at either end', () => {
    expect(trimmedMean(Float64Array.of(0, 1, 2, 3, 100), 0.2)).toBe(2);
    const squares = Float64Array.from({ length: 10 }, (_, i) => i * i);
    expect(trimmedMean(squares, 0.1)).toBeCloseTo((285 - 81) / 8, 12);
  });

  it('a formula says what is wrong with it', () => {
    const problem = (formula: string, groups = 1, pairs = false) => {
      const read = readFiguresFormula(formula, groups, pairs);
      return 'problem' in read ? read.problem : null;
    };
    expect(problem('sd / mean')).toBeNull();
    expect(problem('mean1 / mean2', 2)).toBeNull();
    expect(problem('slope * mean2', 2, true)).toBeNull();
    expect(problem('mean1 / mean2')).toContain('There is no statistic “mean1”');
    expect(problem('2 + 2')).toContain(
      'A formula must contain at least one statistic: mean, median, sd, variance, cv, skewness,',
    );
    expect(problem('sd /')).toContain('cannot be read');
    const worked = (formula: string, values: number[]) =>
      evaluatorOf({ of: 'formula', formula, pairs: false })([Float64Array.from(values)]);
    expect(worked('q3 - q1 + least', [1, 2, 3, 4, 5])).toBe(3);
    expect(worked('1 / (mean - 3)', [1, 5])).toBeNaN();
  });
});
