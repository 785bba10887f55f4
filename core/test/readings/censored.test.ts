import { describe, expect, it } from 'vitest';
import { isRefusal } from '../../src/distributions/family.js';
import type { CensoredReadings } from '../../src/distributions/fit/censored-readings.js';
import { fit, type Fit } from '../../src/distributions/fit/fit.js';
import { logLikelihoodOf } from '../../src/distributions/fit/likelihood.js';
import { distribution, FAMILIES, familyByName } from '../../src/distributions/registry.js';
import { censoredRanks } from '../../src/probability-plot/censored-ranks.js';
import { plottingPositions, positionsOfRanks } from '../../src/probability-plot/positions.js';
import { createStream } from '../../src/random/stream.js';
import { reference, relativeError } from '../reference.js';

const CONTINUOUS = FAMILIES.filter(({ discrete }) => !discrete);
const FOUND = { method: 'maximum-likelihood' } as const;
const fitted = (family: string, values: ArrayLike<number>, censored?: CensoredReadings, more = {}): Fit => {
  const found = fit(familyByName(family), values, { ...FOUND, censored, ...more });
  if (isRefusal(found)) throw new Error(`${family}: ${found.refused}`);
  return found;
};
const bounds = (pairs: readonly (readonly [number | null, number | null])[]): CensoredReadings => ({
  lower: Float64Array.from(pairs, ([from]) => from ?? -Infinity),
  upper: Float64Array.from(pairs, ([, to]) => to ?? Infinity),
});
const below = (limit: number, count: number) => bounds(new Array<[null, number]>(count).fill([null, limit]));
const above = (limit: number, count: number) => bounds(new Array<[number, null]>(count).fill([limit, null]));

interface Slow {
  readings: number[];
  bounds: Record<string, [number | null, number | null][]>;
  fits: Record<string, Record<string, [number, number, number]>>;
}

describe('fits of censored readings', () => {
  const slow = reference<Slow>('censored');
  for (const [sides, families] of Object.entries(slow.fits)) {
    it(`are those of a slow plain program (${sides})`, () => {
      for (const [family, [first, second, logLikelihood]] of Object.entries(families)) {
        const found = fitted(family, slow.readings, bounds(slow.bounds[sides]!));
        const [a, b] = familyByName(family).parameters.map(({ name }) => found.parameters[name]!);
        expect(relativeError(found.logLikelihood, logLikelihood), `${family} likelihood`).toBeLessThan(1e-9);
        expect(Math.max(relativeError(a!, first), relativeError(b!, second)), family).toBeLessThan(1e-6);
        expect(found.n).toBe(slow.readings.length + slow.bounds[sides]!.length);
      }
    });
  }

  it('are those of the known readings alone where the others say nothing: every family, by the other road', () => {
    const values = new Float64Array(41);
    distribution(familyByName('beta'), { shape1: 2, shape2: 3 }).sample(createStream(4, 0), values);
    for (const { family } of CONTINUOUS) {
      const plain = fit(familyByName(family), values, FOUND);
      if (isRefusal(plain)) continue;
      const found = fitted(family, values, bounds([[null, null]]));
      expect(relativeError(found.logLikelihood, plain.logLikelihood), family).toBeLessThan(1e-8);
      for (const name of plain.estimated) {
        const error = plain.standardErrors[name] ?? Math.abs(plain.parameters[name]!);
        expect(Math.abs(found.parameters[name]! - plain.parameters[name]!) / error, `${family} ${name}`).toBeLessThan(
          1e-3,
        );
      }
    }
  });

  it('of an exponential above limits divide the sum of all by the number that is known', () => {
    const found = fitted('exponential', [1, 2, 5], above(6, 2));
    expect(found.parameters.scale).toBeCloseTo((1 + 2 + 5 + 6 + 6) / 3, 6);
    // Its error is the scale over the root of that number.
    expect(found.standardErrors.scale).toBeCloseTo(20 / 3 / Math.sqrt(3), 4);
  });

  it('of a uniform below a limit end where a grid finds the likelihood greatest', () => {
    const values = [0.3, 0.5, 0.6, 0.9];
    const found = fitted('uniform', values, below(0.2, 3));
    const likelihood = logLikelihoodOf(familyByName('uniform'), Float64Array.from(values), null, below(0.2, 3));
    let best = { lower: 0, value: -Infinity };
    for (let k = 1; k < 4_000; k++) {
      const lower = 0.2 - k / 1_000;
      const value = likelihood({ lower, upper: 0.9 });
      if (value > best.value) best = { lower, value };
    }
    expect(found.parameters.upper).toBe(0.9);
    expect(found.parameters.lower).toBeCloseTo(best.lower, 2);
    expect(found.logLikelihood).toBeGreaterThanOrEqual(best.value - 1e-9);
  });

  it('are at a maximum, in every family, on both sides', () => {
    const values = Float64Array.from([1.2, 1.5, 1.9, 2, 2.3, 2.4, 2.8, 3.3, 4.1, 5.6]);
    for (const { family } of CONTINUOUS) {
      if (family === 'beta' || family === 'chi-square' || family === 'f') continue;
      for (const censored of [below(1.4, 2), above(5, 2)]) {
        const found = fit(familyByName(family), values, { ...FOUND, censored });
        if (isRefusal(found)) throw new Error(`${family}: ${found.refused}`);
        const likelihood = logLikelihoodOf(familyByName(family), values, null, censored);
        for (const name of found.estimated) {
          for (const factor of [0.97, 1.03]) {
            const beside = { ...found.parameters, [name]: found.parameters[name]! * factor };
            expect(likelihood(beside), `${family} ${name}`).toBeLessThanOrEqual(found.logLikelihood + 1e-9);
          }
        }
      }
    }
  });

  it('with a threshold find it below the limits too', () => {
    const values = new Float64Array(200);
    distribution(familyByName('weibull'), { shape: 2, scale: 3, threshold: 10 }).sample(createStream(2, 0), values);
    const known = values.filter((x) => x > 11);
    const found = fitted('weibull', known, below(11, 200 - known.length), { estimateThreshold: true });
    expect(found.parameters.threshold).toBeLessThan(11);
    expect(Math.abs(found.parameters.threshold! - 10)).toBeLessThan(1);
  });

  it('estimate a normal distribution with its lower third censored better than the uncensored readings alone', () => {
    const values = new Float64Array(2_000);
    distribution(familyByName('normal'), { mean: 8, sd: 0.1 }).sample(createStream(3, 0), values);
    const known = values.filter((x) => x >= 7.957);
    const found = fitted('normal', known, below(7.957, values.length - known.length));
    expect(Math.abs(found.parameters.mean! - 8)).toBeLessThan(3 * found.standardErrors.mean!);
    expect(Math.abs(found.parameters.sd! - 0.1)).toBeLessThan(3 * found.standardErrors.sd!);
  });

  it('are refused in words where too little is known', () => {
    const refusal = (family: string, values: number[], censored: CensoredReadings) => {
      const found = fit(familyByName(family), values, { ...FOUND, censored });
      return isRefusal(found) ? found.refused : null;
    };
    expect(refusal('normal', [], below(1, 5))).toContain('All readings are censored, so nothing can be fitted.');
    expect(refusal('normal', [2], below(1, 5))).toMatch(/1 known reading is too few/);
    expect(refusal('normal', [2, 2], below(1, 5))).toMatch(/All readings are 2/);
    expect(refusal('lognormal', [2, 3], below(-1, 5))).not.toBeNull();
  });
});

describe('the likelihood of many readings', () => {
  it('is the plain sum, though each value is gone through once', () => {
    const values = new Float64Array(6_000);
    distribution(familyByName('gamma'), { shape: 4, scale: 2 }).sample(createStream(8, 0), values);
    const rounded = values.map((x) => Math.max(0.1, Math.round(x * 10) / 10)).sort();
    for (const [family, parameters] of [
      ['gamma', { shape: 3.7, scale: 2.2, threshold: 0 }],
      ['normal', { mean: 8, sd: 4 }],
    ] as const) {
      const law = distribution(familyByName(family), parameters);
      const plain = rounded.reduce((sum, x) => sum + law.logDensity(x), 0);
      const found = logLikelihoodOf(familyByName(family), rounded, null)(parameters);
      expect(relativeError(found, plain), family).toBeLessThan(1e-12);
    }
    expect(logLikelihoodOf(familyByName('gamma'), rounded, null)({ shape: -1, scale: 1 })).toBe(-Infinity);
  });
});

describe('ranks among censored readings', () => {
  const none = new Float64Array(0);
  const ranks = (sorted: number[], limits: { below?: number[]; above?: number[] }) => {
    const found = censoredRanks(Float64Array.from(sorted), {
      below: Float64Array.from(limits.below ?? []),
      above: Float64Array.from(limits.above ?? []),
    });
    if (isRefusal(found)) throw new Error(found.refused);
    return Array.from(found, (rank) => Number(rank.toFixed(10)));
  };

  it('count 1 … n where nothing is censored, whichever end is begun from, ties one by one', () => {
    expect(ranks([3, 4, 4, 9], {})).toEqual([1, 2, 3, 4]);
    const ordinary = plottingPositions(4, 'blom');
    expect(Array.from(positionsOfRanks(Float64Array.from([1, 2, 3, 4]), 4, 'blom'))).toEqual(Array.from(ordinary));
    const medians = positionsOfRanks(Float64Array.from([1, 2, 3, 4]), 4, 'median-rank');
    medians.forEach((p, i) => expect(p).toBeCloseTo(plottingPositions(4, 'median-rank')[i]!, 12));
  });

  it('begin after those below one limit and end before those above one', () => {
    expect(ranks([0.06, 0.1], { below: [0.05, 0.05, 0.05] })).toEqual([4, 5]);
    expect(ranks([1, 2], { above: [7, 7, 7] })).toEqual([1, 2]);
    expect(ranks([0.06, 0.1], { below: [0.05], above: [7] })).toEqual([2, 3]);
  });

  it('are those of Kaplan & Meier by hand', () => {
    // Known 6 6 6 7 10 13, above 6 9 10 11: S falls to 9/10 · 8/9 · 7/8 (the reading above 6 stands after those at 6), then 5/6, then 3/4, then 0 at 1.
    const n = 10;
    const expected = [1, 2, 3, n * (1 - (7 / 10) * (5 / 6)), n * (1 - (7 / 10) * (5 / 6) * (3 / 4)), 10];
    expect(ranks([6, 6, 6, 7, 10, 13], { above: [6, 9, 10, 11] })).toEqual(expected.map((x) => Number(x.toFixed(10))));
  });

  it('mirror one another', () => {
    const sorted = [1, 2.5, 4, 7, 8];
    const limits = [2, 3, 3, 7.5];
    const n = sorted.length + limits.length;
    const up = ranks(sorted, { above: limits });
    const down = ranks(sorted.map((x) => -x).reverse(), { below: limits.map((x) => -x) });
    // The rank from the other end counts the reading itself from there.
    const shareAbove = up.map((rank, i) => n - rank + (i === 0 ? rank : rank - up[i - 1]!));
    expect(down.toReversed().map((x) => x.toFixed(8))).toEqual(shareAbove.map((x) => x.toFixed(8)));
  });

  it('are refused where limits cross', () => {
    const crossed = censoredRanks(Float64Array.from([1, 2]), {
      below: Float64Array.from([5]),
      above: Float64Array.from([3]),
    });
    expect(isRefusal(crossed) && crossed.refused).toMatch(/below 5 and others above 3/);
    expect(isRefusal(censoredRanks(none, { below: none, above: none }))).toBe(false);
  });
});
