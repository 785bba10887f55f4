import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clopperPearson } from '../../src/numeric/clopper-pearson.js';
import { exp, log, log1p } from '../../src/numeric/elementary.js';
import { erfc } from '../../src/numeric/error-function.js';
import { logGamma } from '../../src/numeric/log-gamma.js';
import { normalCumulative, normalLogCumulative, normalQuantile } from '../../src/numeric/standard-normal.js';
import { createSorter } from '../../src/numeric/sort.js';
import { centralMoments, compensatedSum } from '../../src/numeric/sums.js';
import { normal } from '../../src/distributions/families/normal.js';
import { reference, relativeError } from '../reference.js';

interface FamilyPoints {
  family: string;
  parameters: { mean: number; sd: number; shape1: number; shape2: number; lower: number; upper: number };
  points: { x: number; density: number; cumulative: number; survival: number }[];
}
const families = reference<FamilyPoints[]>('distributions');

describe('normal distribution', () => {
  const normals = families.filter(({ family }) => family === 'normal');

  it('has twelve digits of density, cumulative and survival in both far tails', () => {
    for (const { parameters, points } of normals) {
      for (const { x, density, cumulative, survival } of points) {
        // The standard score cannot be known better than x itself: one half unit of x, times the slope of the logarithm.
        const z = (x - parameters.mean) / parameters.sd;
        const slack = 1e-12 + (Math.abs(z) + 1) * 2.3e-16 * Math.abs(x / parameters.sd);
        expect(relativeError(normal.of(parameters).density(x), density)).toBeLessThan(slack);
        expect(relativeError(normal.of(parameters).cumulative(x), cumulative)).toBeLessThan(slack);
        expect(relativeError(normal.of(parameters).survival(x), survival)).toBeLessThan(slack);
      }
    }
    expect(normals.length).toBeGreaterThan(0);
  });

  it('has quantiles to 1e-14 from p = 1e-300 to 1 − 2^−50', () => {
    for (const { p, quantile } of reference<{ p: number; quantile: number }[]>('normalQuantiles')) {
      // The reference takes p as written; the double nearest to it is off by up to half a unit, which the slope 1/φ(z) carries to z.
      const density = normal.of({ mean: 0, sd: 1 }).density(quantile);
      const conditioning = (p * 1.2e-16) / density;
      expect(Math.abs(normalQuantile(p) - quantile)).toBeLessThan(1e-15 * Math.abs(quantile) + conditioning + 1e-300);
    }
  });

  it('keeps the logarithm of a tail that itself underflows', () => {
    expect(normalLogCumulative(-10)).toBeCloseTo(Math.log(normalCumulative(-10)), 12);
    expect(normalLogCumulative(2)).toBeCloseTo(Math.log(normalCumulative(2)), 14);
    // Mills's ratio: Φ(−z) ≈ φ(z)/z·(1 − 1/z² + 3/z⁴), at z = 300 exact to 1e-13.
    const z = 300;
    const mills = -(z * z) / 2 - Math.log(z * Math.sqrt(2 * Math.PI)) + Math.log1p(-1 / z ** 2 + 3 / z ** 4);
    expect(relativeError(normalLogCumulative(-z), mills)).toBeLessThan(1e-13);
  });

  it('has an error function that is symmetric: erfc(−x) = 2 − erfc(x)', () => {
    for (const x of [0.1, 0.5, 0.84375, 1.1, 2, 5, 7, 30]) expect(erfc(-x)).toBeCloseTo(2 - erfc(x), 15);
  });
});

describe('log-gamma', () => {
  it('is log (n − 1)! at whole numbers and log √π at ½', () => {
    let factorial = 1;
    for (let n = 2; n < 20; n++) {
      factorial *= n - 1;
      expect(logGamma(n)).toBeCloseTo(Math.log(factorial), 12);
    }
    expect(logGamma(0.5)).toBeCloseTo(Math.log(Math.PI) / 2, 13);
  });
});

describe('Clopper–Pearson interval', () => {
  it('has its closed forms at no and at all successes', () => {
    expect(clopperPearson(0, 100)[0]).toBe(0);
    expect(clopperPearson(0, 100)[1]).toBeCloseTo(1 - 0.025 ** (1 / 100), 12);
    expect(clopperPearson(100, 100)[0]).toBeCloseTo(0.025 ** (1 / 100), 12);
    expect(clopperPearson(100, 100)[1]).toBe(1);
  });

  it('leaves 2.5 % of the exact binomial beyond each end', () => {
    const binomialUpTo = (b: number, n: number, p: number) => {
      let term = (1 - p) ** n;
      let sum = term;
      for (let k = 1; k <= b; k++) sum += term *= ((n - k + 1) / k) * (p / (1 - p));
      return sum;
    };
    const [low, high] = clopperPearson(7, 60);
    expect(binomialUpTo(7, 60, high)).toBeCloseTo(0.025, 12);
    expect(1 - binomialUpTo(6, 60, low)).toBeCloseTo(0.025, 12);
  });
});

describe('sums', () => {
  it('keeps what a plain sum loses', () => {
    expect(compensatedSum([1, 1e100, 1, -1e100])).toBe(2);
  });

  it('finds the spread of 10 000 000.2 ± 0.1 to twelve digits', () => {
    const offset = 10_000_000;
    const base = [0.125, 0.25, 0.375, 0.1875];
    const near = centralMoments(base);
    const far = centralMoments(base.map((x) => x + offset));
    expect(far.mean).toBe(offset + near.mean);
    expect(relativeError(far.s2, near.s2)).toBeLessThan(1e-12);
  });
});

describe('exponential and logarithm', () => {
  it('stay within two units in the last place of the engine’s own over the whole range', () => {
    const worst = { exp: 0, farExp: 0, log: 0, near: 0, log1p: 0, tiny: 0 };
    const note = (of: keyof typeof worst, error: number) => (worst[of] = Math.max(worst[of], error));
    for (let i = 1; i < 20_000; i++) {
      const x = (i / 20_000 - 0.5) * 1400;
      note(Math.abs(x) > 708 ? 'farExp' : 'exp', relativeError(exp(x), Math.exp(x)));
      const y = Math.exp(x);
      if (y > 0 && y < Infinity && y !== 1) note('log', relativeError(log(y), Math.log(y)));
      const near = i / 20_000;
      note('near', relativeError(log(near), Math.log(near)));
      note('log1p', relativeError(log1p(-near), Math.log1p(-near)));
      note('tiny', relativeError(log1p(near * 1e-8), Math.log1p(near * 1e-8)));
    }
    for (const of of ['exp', 'log', 'near'] as const) expect(worst[of], of).toBeLessThanOrEqual(4.5e-16);
    for (const of of ['log1p', 'tiny'] as const) expect(worst[of], of).toBeLessThan(6e-16);
    // Subnormal results have fewer digits.
    expect(worst.farExp).toBeLessThan(1e-13);
  });

  it('keep their ends', () => {
    expect([exp(0), exp(-Infinity), exp(Infinity), exp(-746), exp(710)]).toEqual([1, 0, Infinity, 0, Infinity]);
    expect([log(1), log(0), log(Infinity), log1p(0)]).toEqual([0, -Infinity, Infinity, 0]);
    expect(log(-1)).toBeNaN();
    expect(relativeError(log(5e-324), -744.4400719213812)).toBeLessThan(1e-15);
  });

  it('have the same bits in every engine: a checksum of 20 000 values of each', () => {
    const bits = new Float64Array(1);
    const words = new Int32Array(bits.buffer);
    let sum = 0;
    for (let i = 1; i <= 20_000; i++) {
      for (const value of [exp((i / 20_000) * -40), log(i / 20_000)]) {
        bits[0] = value;
        sum = (Math.imul(sum, 31) + words[0]!) | 0;
        sum = (Math.imul(sum, 31) + words[1]!) | 0;
      }
    }
    expect(sum).toBe(-655605977);
  });
});

describe('the sorter of replicates', () => {
  it('orders any values as the engine does: ties, far outliers, huge and tiny spreads', () => {
    const any = fc.oneof(
      fc.double({ noNaN: true, min: -1e300, max: 1e300 }),
      fc.integer({ min: -3, max: 3 }),
      fc.constantFrom(0, 5e-324, 1e-300),
    );
    fc.assert(
      fc.property(fc.array(any, { minLength: 1, maxLength: 200 }), (numbers) => {
        const values = Float64Array.from(numbers, (x) => x + 0);
        const expected = Float64Array.from(values).sort();
        createSorter(values.length)(values);
        expect(values).toEqual(expected);
      }),
    );
  });

  it('hands a crowded bucket to the engine', () => {
    const values = Float64Array.from({ length: 500 }, (_, i) => (i === 7 ? 1e9 : Math.sin(i)));
    const expected = Float64Array.from(values).sort();
    createSorter(500)(values);
    expect(values).toEqual(expected);
  });
});
