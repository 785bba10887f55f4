import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Distribution, Parameters } from '../../src/distributions/family.js';
import { fit } from '../../src/distributions/fit/fit.js';
import { isIn, regionProbability, type Ends, type Region } from '../../src/distributions/region.js';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { createStream } from '../../src/random/stream.js';
import { relativeError } from '../reference.js';

const of = (family: string, parameters: Parameters): Distribution => distribution(familyByName(family), parameters);

/** Two ways to one distribution: they agree in both tails and in their moments. */
function expectSame(a: Distribution, b: Distribution, shift = 0): void {
  for (const p of [1e-12, 1e-4, 0.03, 0.4, 0.5, 0.8, 0.999]) {
    const x = a.quantile(p);
    expect(relativeError(b.cumulative(x + shift), a.cumulative(x))).toBeLessThan(3e-12);
    expect(relativeError(b.survival(x + shift), a.survival(x))).toBeLessThan(3e-12);
    expect(relativeError(b.density(x + shift), a.density(x))).toBeLessThan(3e-11);
  }
  for (const moment of ['variance', 'skewness', 'kurtosis'] as const) {
    expect(Math.abs(a[moment] - b[moment]), moment).toBeLessThan(1e-9 * (1 + Math.abs(a[moment])));
  }
}

describe('families that are special cases of one another', () => {
  it.each([
    ['exponential is Weibull of shape 1', ['exponential', { scale: 3 }], ['weibull', { shape: 1, scale: 3 }]],
    ['exponential is gamma of shape 1', ['exponential', { scale: 3 }], ['gamma', { shape: 1, scale: 3 }]],
    ['Rayleigh is Weibull of shape 2', ['rayleigh', { scale: 2 }], ['weibull', { shape: 2, scale: 2 * Math.SQRT2 }]],
    ['chi-square is gamma of scale 2', ['chi-square', { df: 7 }], ['gamma', { shape: 3.5, scale: 2 }]],
    [
      'uniform is beta of shapes 1',
      ['uniform', { lower: 2, upper: 5 }],
      ['beta', { shape1: 1, shape2: 1, lower: 2, upper: 5 }],
    ],
    ['Student t of many df is normal', ['student-t', { df: 1e16 }], ['normal', { mean: 0, sd: 1 }]],
    [
      'Gumbel is the extreme value of shape 0',
      ['largest-extreme-value', { location: 1, scale: 2 }],
      ['generalized-extreme-value', { location: 1, scale: 2, shape: 0 }],
    ],
    [
      'F of many second df is chi-square over its df',
      ['f', { df1: 6, df2: 1e15 }],
      ['gamma', { shape: 3, scale: 1 / 3 }],
    ],
    [
      'a triangle with its mode at an end is a beta',
      ['triangular', { lower: 0, mode: 0, upper: 1 }],
      ['beta', { shape1: 1, shape2: 2 }],
    ],
  ] as [string, [string, Parameters], [string, Parameters]][])('%s', (_, [a, pa], [b, pb]) => {
    expectSame(of(a, pa), of(b, pb));
  });

  it('a squared t is an F, and a geometric a negative binomial of size 1', () => {
    const t = of('student-t', { df: 9 });
    const f = of('f', { df1: 1, df2: 9 });
    for (const x of [0.1, 1, 3, 12]) expect(relativeError(f.survival(x * x), 2 * t.survival(x))).toBeLessThan(1e-12);
    const geometric = of('geometric', { probability: 0.2 });
    const binomial = of('negative-binomial', { size: 1, probability: 0.2 });
    for (const k of [0, 3, 40, 400]) {
      expect(relativeError(binomial.survival(k), geometric.survival(k))).toBeLessThan(1e-12);
      expect(relativeError(binomial.density(k), geometric.density(k))).toBeLessThan(1e-12);
    }
  });

  it('the logarithm of a Weibull is the smallest extreme value', () => {
    const weibull = of('weibull', { shape: 2.5, scale: 7 });
    const extreme = of('smallest-extreme-value', { location: Math.log(7), scale: 1 / 2.5 });
    for (const x of [0.01, 1, 5, 12]) {
      expect(relativeError(extreme.cumulative(Math.log(x)), weibull.cumulative(x))).toBeLessThan(1e-12);
    }
  });

  it('waiting times and counts say the same: Poisson below k is gamma above its mean', () => {
    for (const [mean, k] of [
      [0.3, 2],
      [8, 3],
      [50, 90],
    ] as const) {
      const below = of('poisson', { mean }).cumulative(k - 1);
      expect(relativeError(of('gamma', { shape: k, scale: 1 }).survival(mean), below)).toBeLessThan(1e-12);
    }
  });
});

describe('counts against the obvious sums', () => {
  const brute = (d: Distribution, from: number, to: number) => {
    let sum = 0;
    for (let k = from; k <= to; k++) sum += d.density(k);
    return sum;
  };

  it('tails of random binomials, negative binomials and lots are the sums of their probabilities', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 120 }),
        fc.double({ min: 0.01, max: 0.99, noNaN: true }),
        fc.integer({ min: 0, max: 130 }),
        (n, p, k) => {
          const binomial = of('binomial', { trials: n, probability: p });
          expect(Math.abs(binomial.cumulative(k) - Math.min(1, brute(binomial, 0, Math.min(k, n))))).toBeLessThan(
            1e-12,
          );
          const negative = of('negative-binomial', { size: n / 7, probability: p });
          expect(Math.abs(negative.cumulative(k) - brute(negative, 0, k))).toBeLessThan(1e-12);
          const lot = of('hypergeometric', { population: 130, successes: n, draws: Math.ceil(130 * p) });
          expect(Math.abs(lot.cumulative(k) - brute(lot, 0, Math.min(k, n)))).toBeLessThan(1e-11);
        },
      ),
    );
  });

  it('every region of counts is the sum of what is in it, and a region and the rest make one', () => {
    const family = familyByName('poisson');
    const d = of('poisson', { mean: 5 });
    const ends = fc.constantFrom<Ends>('included', 'excluded', 'lower-only');
    const half = fc.integer({ min: -4, max: 40 }).map((x) => x / 2);
    fc.assert(
      fc.property(half, half, fc.boolean(), ends, (a, b, outside, which) => {
        const region: Region = { lower: Math.min(a, b), upper: Math.max(a, b) + 0.5, outside, ends: which };
        const { inside, rest } = regionProbability(family, d, region);
        let sum = 0;
        for (let k = 0; k < 80; k++) if (isIn(region, k)) sum += d.density(k);
        expect(inside).toBeCloseTo(sum, 11);
        expect(inside + rest).toBeCloseTo(1, 12);
      }),
      { numRuns: 400 },
    );
  });
});

describe('fits follow the readings', () => {
  const draws = (family: string, parameters: Parameters) => {
    const x = new Float64Array(120);
    of(family, parameters).sample(createStream(31, 0), x);
    return x;
  };
  const fitted = (family: string, x: Float64Array) => {
    const found = fit(familyByName(family), x, { method: 'maximum-likelihood' });
    if ('refused' in found) throw new Error(found.refused);
    return found;
  };

  it.each([
    ['normal', 'mean', 'sd', { mean: 3, sd: 2 }],
    ['logistic', 'location', 'scale', { location: 3, scale: 2 }],
    ['laplace', 'location', 'scale', { location: 3, scale: 2 }],
    ['cauchy', 'location', 'scale', { location: 3, scale: 2 }],
    ['largest-extreme-value', 'location', 'scale', { location: 3, scale: 2 }],
    ['smallest-extreme-value', 'location', 'scale', { location: 3, scale: 2 }],
    ['generalized-extreme-value', 'location', 'scale', { location: 3, scale: 2, shape: 0.1 }],
    ['student-t', 'location', 'scale', { df: 4, location: 3, scale: 2 }],
  ] as [string, string, string, Parameters][])(
    '%s: shifted and stretched readings shift and stretch the fit',
    (family, place, width, parameters) => {
      const x = draws(family, parameters);
      const plain = fitted(family, x);
      const moved = fitted(
        family,
        x.map((v) => 10 + 4 * v),
      );
      expect(moved.parameters[place]!).toBeCloseTo(10 + 4 * plain.parameters[place]!, 4);
      expect(moved.parameters[width]!).toBeCloseTo(4 * plain.parameters[width]!, 4);
      expect(moved.logLikelihood).toBeCloseTo(plain.logLikelihood - x.length * Math.log(4), 6);
      expect(relativeError(moved.standardErrors[place]!, 4 * plain.standardErrors[place]!)).toBeLessThan(1e-3);
    },
  );

  it.each([
    ['gamma', 'scale', { shape: 2, scale: 3 }],
    ['weibull', 'scale', { shape: 2, scale: 3 }],
    ['inverse-gaussian', 'mean', { mean: 3, shape: 6 }],
    ['birnbaum-saunders', 'scale', { shape: 0.7, scale: 3 }],
    ['rayleigh', 'scale', { scale: 3 }],
    ['half-normal', 'scale', { scale: 3 }],
  ] as [string, string, Parameters][])(
    '%s: readings in another unit have the same fit in that unit',
    (family, width, parameters) => {
      const x = draws(family, parameters);
      const plain = fitted(family, x);
      const inches = fitted(
        family,
        x.map((v) => v / 25.4),
      );
      expect(relativeError(inches.parameters[width]! * 25.4, plain.parameters[width]!)).toBeLessThan(1e-6);
      expect(inches.logLikelihood).toBeCloseTo(plain.logLikelihood + x.length * Math.log(25.4), 6);
    },
  );

  it('of the logarithms is the fit of the log family', () => {
    const x = draws('lognormal', { logMean: 1, logSd: 0.5 });
    const logs = fitted('normal', x.map(Math.log));
    const log = fitted('lognormal', x);
    expect(log.parameters.logMean).toBeCloseTo(logs.parameters.mean!, 12);
    expect(log.parameters.logSd).toBeCloseTo(logs.parameters.sd!, 12);
    const y = draws('log-logistic', { logLocation: 1, logScale: 0.3 });
    expect(fitted('log-logistic', y).parameters.logScale).toBeCloseTo(
      fitted('logistic', y.map(Math.log)).parameters.scale!,
      10,
    );
  });
});
