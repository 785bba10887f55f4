import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  completed,
  distribution,
  FAMILIES,
  familyByName,
  parameterFaults,
  rangeWords,
  UnknownFamily,
} from '../../src/distributions/registry.js';
import type { Distribution, Parameters } from '../../src/distributions/family.js';
import { intervalProbability } from '../../src/distributions/interval-probability.js';
import { createStream } from '../../src/random/stream.js';
import { CASES } from './families.js';
import { reference, relativeError } from '../reference.js';

interface Point {
  x: number;
  density: number;
  cumulative: number;
  survival: number;
}
const published =
  reference<{ family: string; parameters: Parameters; points: Point[]; mean?: number; variance?: number }[]>(
    'distributions',
  );
const defined = reference<
  { function: string; family: string; parameters: Parameters; x: number; values: [number, number, number] }[]
>('specialFunctions').filter((row) => row.function === 'family');

/** The relative error that x and the parameters, as doubles, leave room for: the slope of the logarithm times half a unit of each. */
function conditioning(
  d: Distribution,
  { x }: Point,
  parameters: Parameters,
  of: 'density' | 'cumulative' | 'survival',
) {
  const size = Math.max(Math.abs(x), ...Object.values(parameters).map(Math.abs));
  const h = 1e-7 * Math.max(1e-300, Math.sqrt(d.variance) || Math.abs(x) || 1);
  const slope = (Math.log(d[of](x + h)) - Math.log(d[of](x - h))) / (2 * h);
  return Number.isFinite(slope) ? Math.abs(slope) * size * 2.3e-16 : 0;
}

function expectPoint(d: Distribution, parameters: Parameters, point: Point): void {
  for (const of of ['density', 'cumulative', 'survival'] as const) {
    const wanted = point[of];
    // Below this a double is subnormal and has fewer digits itself.
    if (wanted < 1e-305) continue;
    const most = 1e-12 + conditioning(d, point, parameters, of);
    expect(relativeError(d[of](point.x), wanted), `${of} at ${point.x}`).toBeLessThan(most);
  }
}

describe('every family against 50-digit arithmetic', () => {
  it.each(published.map((row) => [`${row.family} ${JSON.stringify(row.parameters)}`, row] as const))(
    '%s',
    (_, { family, parameters, points, mean, variance }) => {
      const d = distribution(familyByName(family), parameters);
      for (const point of points) expectPoint(d, parameters, point);
      if (mean !== undefined) expect(relativeError(d.mean, mean)).toBeLessThan(1e-13);
      if (variance !== undefined) expect(relativeError(d.variance, variance)).toBeLessThan(1e-12);
    },
  );

  it.each(defined.map((row) => [`${row.family} at ${row.x}`, row] as const))(
    'from its formula: %s',
    (_, { family, parameters, x, values: [density, cumulative, survival] }) => {
      const point = { x, density, cumulative, survival };
      expectPoint(distribution(familyByName(family), parameters), parameters, point);
    },
  );
});

/** The next double away from 0, less the double: one unit in the last place. */
function unitOf(x: number): number {
  const bits = new DataView(new ArrayBuffer(8));
  bits.setFloat64(0, Math.abs(x));
  bits.setBigUint64(0, bits.getBigUint64(0) + 1n);
  return bits.getFloat64(0) - Math.abs(x);
}

const CHANCES = [
  1e-300,
  1e-200,
  1e-100,
  1e-30,
  1e-12,
  1e-9,
  1e-6,
  1e-4,
  1e-3,
  0.01,
  0.025,
  0.05,
  0.1,
  0.2,
  0.3,
  0.4,
  0.45,
  0.49,
  0.499999,
  0.5,
  0.5000001,
  0.51,
  0.6,
  0.75,
  0.8,
  0.9,
  0.95,
  0.975,
  0.99,
  0.999,
  0.9999,
  1 - 1e-6,
  1 - 1e-9,
];
const continuous = CASES.filter(({ family }) => !family.discrete);
const counted = CASES.filter(({ family }) => family.discrete);

/** By how many units of p the quantile misses, or 0 where p is met within four units of p or of x, whichever is the coarser. */
function missOf(d: Distribution, p: number, side: 'lower' | 'upper'): number {
  const x = side === 'lower' ? d.quantile(p) : d.survivalQuantile(p);
  const tail = side === 'lower' ? d.cumulative : d.survival;
  const miss = Math.abs(tail(x) - p) / unitOf(p);
  if (miss <= 4) return 0;
  const reach = 4 * unitOf(x);
  return (tail(x - reach) - p) * (tail(x + reach) - p) <= 0 ? 0 : miss;
}

describe('properties of every family', () => {
  it('covers all 28', () => {
    expect(FAMILIES).toHaveLength(28);
    expect(new Set(CASES.map(({ family }) => family.family)).size).toBe(28);
  });

  it('quantiles invert both tails to four units of p or of x, in the far tails but for a handful', () => {
    const missed: string[] = [];
    for (const { name, distribution: d } of continuous) {
      for (const p of CHANCES) {
        for (const side of ['lower', 'upper'] as const) {
          const miss = missOf(d, p, side);
          if (miss > 0) missed.push(`${name} ${side} ${p}: ${miss.toFixed(0)}`);
          // Never worse than this many units, 4e-14 of the probability.
          expect(miss, `${name} ${side} ${p}`).toBeLessThan(180);
        }
      }
    }
    expect(missed.length, missed.join('\n')).toBeLessThanOrEqual(10);
  });

  it.each(counted.map((one) => [one.name, one] as const))('%s: quantiles are the least that reach p', (_, one) => {
    const d = one.distribution;
    for (const p of CHANCES) {
      const k = d.quantile(p);
      expect(d.cumulative(k)).toBeGreaterThanOrEqual(p * (1 - 1e-15));
      if (k > d.support.lower) expect(d.cumulative(k - 1)).toBeLessThan(p);
      const s = d.survivalQuantile(p);
      expect(d.survival(s)).toBeLessThanOrEqual(p * (1 + 1e-15));
      if (s > d.support.lower) expect(d.survival(s - 1)).toBeGreaterThan(p);
    }
  });

  it.each(counted.map((one) => [one.name, one] as const))('%s: probabilities add up to the tails', (_, one) => {
    const d = one.distribution;
    let sum = 0;
    const last = d.survivalQuantile(1e-14);
    for (let k = d.support.lower; k <= last; k++) {
      sum += d.density(k);
      if (k % 7 === 0) expect(d.cumulative(k)).toBeCloseTo(sum, 11);
    }
    expect(sum).toBeCloseTo(1, 11);
    expect(d.density(d.mean + 0.123456)).toBe(0);
    expect(d.cumulative(last + 0.5)).toBe(d.cumulative(last));
  });

  it.each(CASES.map((one) => [one.name, one] as const))(
    '%s: rises, complements, ends where its support ends',
    (_, one) => {
      const d = one.distribution;
      const { lower, upper } = d.support;
      fc.assert(
        fc.property(
          fc.double({ min: 1e-6, max: 1 - 1e-6, noNaN: true }),
          fc.double({ min: 0, max: 3, noNaN: true }),
          (p, step) => {
            const x = d.quantile(p);
            const further = x + step * (Math.sqrt(d.variance) || 1);
            expect(d.cumulative(x) + d.survival(x)).toBeCloseTo(1, 12);
            expect(d.cumulative(further)).toBeGreaterThanOrEqual(d.cumulative(x) * (1 - 1e-13));
            expect(d.survival(further)).toBeLessThanOrEqual(d.survival(x) * (1 + 1e-13));
            expect(x).toBeGreaterThanOrEqual(lower);
            expect(x).toBeLessThanOrEqual(upper);
            if (d.density(x) > 0) expect(d.logDensity(x)).toBeCloseTo(Math.log(d.density(x)), 9);
          },
        ),
        { numRuns: 60 },
      );
      expect(d.quantile(0)).toBe(lower);
      expect(d.quantile(1)).toBe(upper);
      expect(d.survivalQuantile(0)).toBe(upper);
      expect(d.quantile(-0.1)).toBeNaN();
      expect(d.quantile(1.2)).toBeNaN();
      if (Number.isFinite(lower))
        expect([d.density(lower - 1), d.cumulative(lower - 1), d.survival(lower - 1)]).toEqual([0, 0, 1]);
      if (Number.isFinite(upper))
        expect([d.density(upper + 1), d.cumulative(upper + 1), d.survival(upper + 1)]).toEqual([0, 1, 0]);
    },
  );

  it.each(continuous.map((one) => [one.name, one] as const))('%s: the density is the slope of both tails', (_, one) => {
    const d = one.distribution;
    for (const p of [0.001, 0.05, 0.3, 0.5, 0.72, 0.95, 0.9995]) {
      const x = d.quantile(p);
      // A step that is small beside the distance over which the density changes.
      const h = (1e-4 * Math.min(p, 1 - p)) / d.density(x);
      const slope = intervalProbability(d, x - h, x + h) / (2 * h);
      const tails = p < 0.5 ? d.cumulative(x + h) - d.cumulative(x - h) : d.survival(x - h) - d.survival(x + h);
      // Next to the kink of a mode the chord cuts the corner.
      expect(relativeError(tails / (2 * h), d.density(x))).toBeLessThan(2e-4);
      expect(relativeError(slope, d.density(x))).toBeLessThan(2e-4);
    }
  });

  it.each(CASES.map((one) => [one.name, one] as const))('%s: mean and variance are those of the density', (_, one) => {
    const d = one.distribution;
    if (one.family.discrete || !Number.isFinite(d.variance)) return;
    // ∫ x dF = ∫ Q(p) dp, by the midpoint rule in log odds, which reaches both tails.
    let total = 0;
    let first = 0;
    let second = 0;
    for (let u = -45; u <= 45; u += 0.1) {
      const p = 1 / (1 + Math.exp(-u));
      const q = 1 / (1 + Math.exp(u));
      const x = u < 0 ? d.quantile(p) : d.survivalQuantile(q);
      total += p * q;
      first += x * p * q;
      second += (x - d.mean) ** 2 * p * q;
    }
    const spread = Math.sqrt(d.variance);
    expect(Math.abs(first / total - d.mean)).toBeLessThan(2e-5 * spread);
    expect(relativeError(second / total, d.variance)).toBeLessThan(
      one.name.includes('"df":4.5') || one.name.includes('log-logistic') ? 0.03 : 3e-3,
    );
  });

  it.each(CASES.map((one) => [one.name, one] as const))(
    '%s: draws have its mean, its variance and its quartiles',
    (_, one) => {
      const d = one.distribution;
      const n = 40_000;
      const draws = new Float64Array(n);
      d.sample(createStream(20261123, 0), draws);
      const again = new Float64Array(n);
      d.sample(createStream(20261123, 0), again);
      // Compared value by value: the library's own comparison of long arrays takes most of the test's time.
      expect(again.every((value, i) => Object.is(value, draws[i]))).toBe(true);
      const mean = draws.reduce((a, b) => a + b, 0) / n;
      if (Number.isFinite(d.kurtosis)) {
        expect(Math.abs(mean - d.mean)).toBeLessThan(5 * Math.sqrt(d.variance / n));
        const variance = draws.reduce((a, b) => a + (b - mean) ** 2, 0) / n;
        const error = d.variance * Math.sqrt((d.kurtosis + 2) / n);
        expect(Math.abs(variance - d.variance)).toBeLessThan(7 * error + 1e-3 * d.variance);
      }
      for (const p of [0.02, 0.25, 0.5, 0.75, 0.99]) {
        const x = d.quantile(p);
        const share = draws.reduce((count, v) => count + (v <= x ? 1 : 0), 0) / n;
        const expected = d.cumulative(x);
        expect(Math.abs(share - expected)).toBeLessThan(5 * Math.sqrt((expected * (1 - expected)) / n) + 1e-9);
      }
      if (one.family.discrete) expect(draws.every(Number.isInteger)).toBe(true);
      expect(draws.every((v) => v >= d.support.lower && v <= d.support.upper)).toBe(true);
    },
  );

  it.each(counted.map((one) => [one.name, one] as const))('%s: draws have the probability of each number', (_, one) => {
    const d = one.distribution;
    const n = 60_000;
    const draws = new Float64Array(n);
    d.sample(createStream(5, 3), draws);
    const counts = new Map<number, number>();
    for (const k of draws) counts.set(k, (counts.get(k) ?? 0) + 1);
    let statistic = 0;
    let cells = 0;
    for (let k = d.quantile(1e-4); k <= d.survivalQuantile(1e-4); k++) {
      const expected = n * d.density(k);
      if (expected < 20) continue;
      statistic += ((counts.get(k) ?? 0) - expected) ** 2 / expected;
      cells++;
    }
    // Chi-square with about `cells` degrees of freedom: five sds above its mean.
    expect(statistic).toBeLessThan(cells + 5 * Math.sqrt(2 * cells) + 5);
  });

  it('a threshold shifts and a scale stretches', () => {
    for (const { family, parameters, distribution: d } of CASES) {
      if (family.discrete) continue;
      const names = family.parameters.map(({ name }) => name);
      if (names.includes('threshold')) {
        const moved = family.of({ ...parameters, threshold: parameters.threshold! + 32 });
        expect(moved.cumulative(d.quantile(0.3) + 32)).toBeCloseTo(0.3, 10);
        expect(moved.mean - d.mean).toBeCloseTo(32, 9);
      }
      if (names.includes('scale')) {
        const wide = family.of({ ...parameters, scale: parameters.scale! * 4 });
        const from = parameters.threshold ?? parameters.location ?? 0;
        expect(wide.cumulative(from + 4 * (d.quantile(0.3) - from))).toBeCloseTo(0.3, 10);
        expect(
          wide.variance === d.variance * 16 ||
            relativeError(wide.variance, d.variance * 16) < 1e-12 ||
            Number.isNaN(d.variance),
        ).toBe(true);
      }
    }
  });

  it('parameters from mean and variance have that mean and variance', () => {
    let tried = 0;
    for (const { family, parameters, distribution: d } of CASES) {
      const { fromMoments } = family.estimation;
      if (!fromMoments || !Number.isFinite(d.variance)) continue;
      const found = fromMoments(d.mean, d.variance, parameters);
      if ('refused' in found) throw new Error(`${family.family}: ${String(found.refused)}`);
      const back = family.of(completed(family, { ...parameters, ...found }));
      expect(relativeError(back.mean, d.mean), family.family).toBeLessThan(1e-9);
      expect(relativeError(back.variance, d.variance), family.family).toBeLessThan(1e-9);
      tried++;
    }
    expect(tried).toBeGreaterThan(30);
  });
});

describe('skewness and kurtosis', () => {
  it.each(continuous.map((one) => [one.name, one] as const))('%s: are those of the density', (_, one) => {
    const d = one.distribution;
    // Families whose eighth moments are far away converge too slowly for this check.
    if (!Number.isFinite(d.kurtosis) || d.kurtosis > 12) return;
    const sd = Math.sqrt(d.variance);
    let total = 0;
    let third = 0;
    let fourth = 0;
    for (let u = -60; u <= 60; u += 0.1) {
      const p = 1 / (1 + Math.exp(-u));
      const q = 1 / (1 + Math.exp(u));
      const z = ((u < 0 ? d.quantile(p) : d.survivalQuantile(q)) - d.mean) / sd;
      total += p * q;
      third += z ** 3 * p * q;
      fourth += z ** 4 * p * q;
    }
    expect(Math.abs(third / total - d.skewness)).toBeLessThan(2e-3 * (1 + Math.abs(d.skewness)));
    expect(Math.abs(fourth / total - 3 - d.kurtosis)).toBeLessThan(2e-2 * (1 + Math.abs(d.kurtosis)));
  });

  it('keeps its digits where raw moments agree in almost all of theirs', () => {
    // A Weibull of large shape goes to the smallest extreme value, whose figures are known.
    const steep = distribution(familyByName('weibull'), { shape: 1e8, scale: 1 });
    expect(steep.skewness).toBeCloseTo(-1.1395470994, 6);
    expect(steep.kurtosis).toBeCloseTo(2.4, 6);
    expect(relativeError(steep.variance, Math.PI ** 2 / 6 / 1e16)).toBeLessThan(1e-6);
    const flat = distribution(familyByName('generalized-extreme-value'), { location: 0, scale: 1, shape: 1e-9 });
    expect(flat.kurtosis).toBeCloseTo(2.4, 7);
  });
});

describe('impossible parameters', () => {
  it.each([
    ['normal', { mean: 0, sd: 0 }, 'sd', 'The standard deviation is a number above 0, not 0.'],
    ['normal', { mean: 0, sd: -1 }, 'sd', 'not -1'],
    ['normal', { mean: NaN, sd: 1 }, 'mean', 'The mean is a number.'],
    ['normal', { mean: 0 }, 'sd', 'The standard deviation is a number above 0.'],
    ['normal', { mean: 0, sd: 1, scale: 2 }, 'scale', 'no parameter “scale”'],
    ['uniform', { lower: 5, upper: 5 }, 'upper', 'The upper limit must be above the lower limit, 5.'],
    ['triangular', { lower: 0, mode: 3, upper: 2 }, 'mode', 'The mode must lie between the limits, 0 and 2.'],
    [
      'beta',
      { shape1: 1, shape2: 1, lower: 2, upper: 1 },
      'upper',
      'The upper limit must be above the lower limit, 2.',
    ],
    ['binomial', { trials: 10, probability: 0 }, 'probability', 'between 0 and 1, exclusive, not 0'],
    ['binomial', { trials: 10, probability: 1 }, 'probability', 'not 1'],
    ['binomial', { trials: 10, probability: 1.2 }, 'probability', 'not 1.2'],
    ['geometric', { probability: -1 }, 'probability', 'not -1'],
    ['binomial', { trials: 2.5, probability: 0.5 }, 'trials', 'a whole number'],
    ['hypergeometric', { population: 10, successes: 12, draws: 3 }, 'successes', 'at most 10'],
    [
      'hypergeometric',
      { population: 10, successes: 5, draws: 11 },
      'draws',
      'Draws must be at most 10, the size of the population.',
    ],
    ['discrete-uniform', { lower: 6, upper: 1 }, 'upper', 'The maximum must not be below the minimum, 6.'],
  ] as [string, Parameters, string, string][])('%s %o is refused by name', (family, parameters, name, words) => {
    const [fault] = parameterFaults(familyByName(family), parameters);
    expect(fault?.name).toBe(name);
    expect(fault?.message).toContain(words);
    expect(() => distribution(familyByName(family), parameters)).toThrow(fault!.message);
  });

  it('names the families there are when one is not', () => {
    expect(() => familyByName('gauss')).toThrow(UnknownFamily);
    expect(() => familyByName('gauss')).toThrow('normal, lognormal');
    expect(rangeWords({ name: 'n', title: 'n', meaning: '', usual: 1, range: { from: 1, to: 9, whole: true } })).toBe(
      'a whole number from 1 to 9',
    );
  });
});

describe('extreme parameters', () => {
  it('shapes of 1e-8 and 1e8 give figures, not NaN', () => {
    const tiny = distribution(familyByName('gamma'), { shape: 1e-8, scale: 1 });
    expect(tiny.quantile(0.5)).toBe(0);
    expect(relativeError(tiny.survival(1), 1e-8 * 0.21938393439552027)).toBeLessThan(1e-6);
    const huge = distribution(familyByName('gamma'), { shape: 1e8, scale: 1 });
    expect(huge.cumulative(1e8)).toBeCloseTo(0.5 + 1 / (3 * Math.sqrt(2 * Math.PI * 1e8)), 12);
    expect(relativeError(huge.quantile(0.975), 1e8 + 1.959963984540054e4)).toBeLessThan(1e-7);
    const narrow = distribution(familyByName('beta'), { shape1: 1e8, shape2: 1e8 });
    expect(narrow.cumulative(0.5)).toBeCloseTo(0.5, 12);
    const wide = distribution(familyByName('beta'), { shape1: 1e-8, shape2: 1e-8 });
    expect(wide.cumulative(0.5)).toBeCloseTo(0.5, 12);
    const t = distribution(familyByName('student-t'), { df: 1e8 });
    // Beyond the normal’s 0.025 by z(z² + 1)φ(z)/4df (Abramowitz & Stegun 26.7.8).
    expect(t.survival(1.959963984540054) - 0.025).toBeCloseTo((1.96 * 4.8415 * 0.05844) / 4e8, 12);
  });

  it('counts of which only one is possible have quantiles too', () => {
    const one = distribution(familyByName('discrete-uniform'), { lower: 7, upper: 7 });
    expect([one.quantile(0.3), one.survivalQuantile(1e-9), one.cumulative(7)]).toEqual([7, 7, 1]);
    const all = distribution(familyByName('hypergeometric'), { population: 50, successes: 9, draws: 50 });
    expect([all.quantile(0.01), all.survivalQuantile(0.5), all.density(9)]).toEqual([9, 9, 1]);
  });

  it('counts too large to be counted in doubles are refused, not walked through', () => {
    for (const [family, parameters] of [
      ['poisson', { mean: 1e16 }],
      ['geometric', { probability: 1e-16 }],
      ['negative-binomial', { size: 1e84, probability: 0.5 }],
    ] as [string, Parameters][]) {
      expect(parameterFaults(familyByName(family), parameters)[0]?.message).toMatch(
        /^The mean of these counts is too large: .+\. It must be at most 1e15\.$/,
      );
    }
  });

  it('1e9 trials answer at once', () => {
    const many = distribution(familyByName('binomial'), { trials: 1e9, probability: 0.3 });
    const median = many.quantile(0.5);
    expect(Math.abs(median - 3e8)).toBeLessThan(2);
    expect(many.cumulative(median) + many.survival(median)).toBeCloseTo(1, 9);
    expect(many.density(3e8)).toBeCloseTo(1 / Math.sqrt(2 * Math.PI * 1e9 * 0.21), 9);
    const lot = distribution(familyByName('hypergeometric'), { population: 1e9, successes: 3e8, draws: 1000 });
    expect(lot.cumulative(300)).toBeCloseTo(
      distribution(familyByName('binomial'), { trials: 1000, probability: 0.3 }).cumulative(300),
      5,
    );
  });

  it('x beyond the support has no density and the whole probability on one side', () => {
    const life = distribution(familyByName('weibull'), { shape: 2, scale: 1, threshold: 5 });
    expect([life.density(4), life.cumulative(4), life.survival(4)]).toEqual([0, 0, 1]);
    expect(life.logDensity(4)).toBe(-Infinity);
    const dice = distribution(familyByName('discrete-uniform'), { lower: 1, upper: 6 });
    expect([dice.cumulative(0.99), dice.survival(6), dice.density(7)]).toEqual([0, 0, 0]);
  });

  it('moments that do not exist are not numbers, and infinite ones infinite', () => {
    expect(distribution(familyByName('cauchy'), { location: 0, scale: 1 }).mean).toBeNaN();
    expect(distribution(familyByName('student-t'), { df: 2 }).variance).toBe(Infinity);
    expect(distribution(familyByName('student-t'), { df: 1 }).mean).toBeNaN();
    expect(distribution(familyByName('f'), { df1: 3, df2: 4 }).variance).toBe(Infinity);
    expect(distribution(familyByName('log-logistic'), { logLocation: 0, logScale: 1 }).mean).toBe(Infinity);
  });
});

describe('the probability of an interval', () => {
  it('keeps its digits where the tails agree in theirs: a reading recorded to a millionth of the sd', () => {
    const d = distribution(familyByName('normal'), { mean: 0, sd: 1 });
    const half = 2 ** -21;
    const found = intervalProbability(d, 0.75 - half, 0.75 + half);
    expect(relativeError(found, 2 * half * d.density(0.75))).toBeLessThan(1e-12);
    expect(intervalProbability(d, -1, 1)).toBeCloseTo(0.682689492137086, 14);
    expect(relativeError(intervalProbability(d, 20, 21), d.survival(20) - d.survival(21))).toBeLessThan(1e-14);
    expect(intervalProbability(d, 2, 1)).toBe(0);
  });
});
