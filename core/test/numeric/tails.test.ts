import { describe, expect, it } from 'vitest';
import { intervalProbability } from '../../src/distributions/interval-probability.js';
import { regionProbability } from '../../src/distributions/region.js';
import { distribution, familyByName, FAMILIES } from '../../src/distributions/registry.js';
import type { Parameters } from '../../src/distributions/family.js';
import { gammaLower, gammaUpper } from '../../src/numeric/gamma-tails.js';
import { CASES } from '../distributions/families.js';
import { reference, relativeError } from '../reference.js';

interface Row {
  family: string;
  parameters: Parameters;
  x: number;
  values: [density: number, cumulative: number, survival: number];
}
const rows = reference<Row[]>('tails');
const named = (family: string, parameters: Parameters) => distribution(familyByName(family), parameters);

/** Values of the independent check that found these places wrong, 50-digit arithmetic. */
const FAR: [string, Parameters, 'cumulative' | 'survival' | 'density', number, number][] = [
  ['gamma', { shape: 600, scale: 1 }, 'survival', 2000, 3.61682498089262e-297],
  ['chi-square', { df: 1400 }, 'survival', 3900, 3.26177641316424e-234],
  ['poisson', { mean: 2100 }, 'cumulative', 700, 2.1225087819652986e-276],
  ['student-t', { df: 0.5 }, 'cumulative', 1e12, 0.99999967929902459],
  ['triangular', { lower: 0, mode: 0, upper: 1 }, 'cumulative', 1e-10, 1.9999999999e-10],
  ['weibull', { shape: 200, scale: 1 }, 'density', 40, 0],
];

describe('both tails and the density, wherever they are asked', () => {
  it.each([...new Set(rows.map((row) => row.family))])(
    '%s is exact to 1e-12 at places drawn far and near',
    (family) => {
      for (const { parameters, x, values } of rows.filter((row) => row.family === family)) {
        const d = named(family, parameters);
        const found = [d.density(x), d.cumulative(x), d.survival(x)];
        values.forEach((wanted, i) => {
          expect(relativeError(found[i]!, wanted), `${JSON.stringify(parameters)} at ${x}, number ${i}`).toBeLessThan(
            1e-12,
          );
        });
      }
    },
  );

  it.each(FAR)('%s %j: %s at %d is %d', (family, parameters, of, x, wanted) => {
    expect(relativeError(named(family, parameters)[of](x), wanted)).toBeLessThan(1e-13);
  });

  it('gammas of every shape agree with the sums of their Poisson terms', () => {
    // Terms beside the greatest one, each from its neighbour: no logarithm, no power, no exponential.
    for (let shape = 1; shape <= 5000; shape = Math.ceil(shape * 1.07)) {
      const sd = Math.sqrt(shape);
      for (const z of [-30, -20, -9, -3, -0.4, 0, 0.7, 4, 11, 22, 33, 60, 120]) {
        const x = shape + z * sd;
        if (x <= 0) continue;
        const peak = Math.floor(x);
        let below = 0;
        let above = 0;
        const count = (k: number, term: number) => {
          if (k < shape) below += term;
          else above += term;
        };
        count(peak, 1);
        for (let k = peak, term = 1; k > 0 && term > 0; k--) count(k - 1, (term *= k / x));
        for (let k = peak + 1, term = x / k; term > 0; k++, term *= x / k) count(k, term);
        const total = below + above;
        for (const [found, wanted] of [
          [gammaUpper(shape, x), below / total],
          [gammaLower(shape, x), above / total],
        ] as const) {
          expect(Number.isFinite(found)).toBe(true);
          if (wanted > 1e-300) expect(relativeError(found, wanted), `shape ${shape} at ${x}`).toBeLessThan(1e-11);
        }
      }
    }
  });

  it('an inverse Gaussian with next to no shape has quantiles: those of a passage without drift', () => {
    expect(
      relativeError(named('inverse-gaussian', { mean: 1000, shape: 1 }).quantile(0.01), 0.15067779633468),
    ).toBeLessThan(1e-13);
    expect(
      relativeError(named('inverse-gaussian', { mean: 1000, shape: 0.1 }).quantile(0.5), 0.219759669335438),
    ).toBeLessThan(1e-13);
    for (const shape of [1e-9, 1e-6, 1e-4, 1e-3, 0.01, 0.1, 1, 30, 1e4]) {
      const d = named('inverse-gaussian', { mean: 1, shape });
      for (const p of [1e-250, 1e-100, 1e-20, 1e-6, 0.01, 0.2, 0.5, 0.8, 0.99]) {
        expect(relativeError(d.cumulative(d.quantile(p)), p), `below ${p} for ${shape}`).toBeLessThan(1e-12);
        expect(relativeError(d.survival(d.survivalQuantile(p)), p), `above ${p} for ${shape}`).toBeLessThan(1e-12);
      }
    }
  });

  it('millions of trials, 50 sd out, have chances and no NaN', () => {
    for (const trials of [1e6, 3e6, 1e9, 1e12]) {
      const sd = Math.sqrt(0.21 * trials);
      const d = named('binomial', { trials, probability: 0.3 });
      for (const z of [-50, -39, -38, -20, -1, 0, 1, 20, 38, 39, 50]) {
        const x = Math.round(0.3 * trials + z * sd);
        for (const chance of [d.density(x), d.cumulative(x), d.survival(x)]) {
          expect(chance >= 0 && chance <= 1, `${trials}, ${z} sd`).toBe(true);
        }
      }
    }
  });

  it('no quantile lies outside the support', () => {
    const cases = [
      ...CASES,
      { family: familyByName('lognormal'), parameters: { logMean: -3, logSd: 4, threshold: 1.5 } },
      { family: familyByName('gamma'), parameters: { shape: 0.01, scale: 1, threshold: 1000 } },
    ];
    for (const { family, parameters } of cases) {
      const d = distribution(family, parameters);
      for (const p of [1e-300, 1e-100, 1e-12, 1e-3, 0.5, 0.999, 1 - 1e-12]) {
        for (const x of [d.quantile(p), d.survivalQuantile(p)]) {
          expect(x >= d.support.lower && x <= d.support.upper, `${family.family} ${p}: ${x}`).toBe(true);
        }
      }
    }
    expect(cases.length).toBeGreaterThan(FAMILIES.length);
  });

  it.each(CASES.map((one) => [`${one.family.family} ${JSON.stringify(one.parameters)}`, one] as const))(
    'open ends of %s are 0 and 1, and what lies beyond one is a tail',
    (_, { family, parameters }) => {
      const d = distribution(family, parameters);
      expect([d.cumulative(-Infinity), d.survival(-Infinity), d.density(-Infinity)]).toEqual([0, 1, 0]);
      expect([d.cumulative(Infinity), d.survival(Infinity), d.density(Infinity)]).toEqual([1, 0, 0]);
      const b = d.quantile(0.3);
      expect(intervalProbability(d, -Infinity, b)).toBe(d.cumulative(b));
      expect(intervalProbability(d, b, Infinity)).toBe(d.survival(b));
      expect(intervalProbability(d, -Infinity, Infinity)).toBe(1);
      for (const outside of [false, true]) {
        for (const [lower, upper] of [
          [-Infinity, b],
          [b, Infinity],
          [-Infinity, Infinity],
        ] as const) {
          const { inside, rest } = regionProbability(family, d, { lower, upper, outside, ends: 'included' });
          expect(Number.isFinite(inside) && Number.isFinite(rest)).toBe(true);
          expect(inside + rest).toBeCloseTo(1, 12);
        }
      }
    },
  );
});
