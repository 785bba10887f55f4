import { describe, expect, it } from 'vitest';
import {
  extremeness,
  LEAST_N,
  NORMALITY_TESTS,
  normalityStatistics,
  type NormalityTestName,
} from '../../src/goodness-of-fit/normality/battery.js';
import { simulateNormality, tallyNormality } from '../../src/goodness-of-fit/normality/simulation.js';
import { cramerVonMisesAsymptotic } from '../../src/goodness-of-fit/normality/cramer-von-mises.js';
import { simulateAndersonDarling } from '../../src/goodness-of-fit/normality/anderson-darling-simulation.js';
import { kurtosisTest } from '../../src/goodness-of-fit/normality/kurtosis.js';
import { chiSquareTwo } from '../../src/goodness-of-fit/normality/moments.js';
import {
  SHAPIRO_WILK_GREATEST_N,
  shapiroWilkAsymptotic,
  shapiroWilkWeights,
} from '../../src/goodness-of-fit/normality/shapiro-wilk.js';
import { skewnessTest } from '../../src/goodness-of-fit/normality/skewness.js';
import { simulatedP } from '../../src/goodness-of-fit/simulated-p.js';
import { centralMoments } from '../../src/numeric/sums.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { column, reference, relativeError } from '../reference.js';

type Expected = Record<string, { statistic: number; pAsymptotic?: number | null; tolerance?: number }>;
const expected = reference<Record<string, Expected>>('normality');

function statisticsOf(values: ArrayLike<number>): Float64Array {
  const sorted = Float64Array.from(values).sort();
  const { n, mean, s2 } = centralMoments(sorted);
  return normalityStatistics(sorted, mean, Math.sqrt(s2 / (n - 1)));
}
const at = (found: Float64Array, test: NormalityTestName) => found[NORMALITY_TESTS.indexOf(test)]!;

describe('the nine tests of normality', () => {
  it.each(Object.keys(expected))('agree with the reference on %s', (name) => {
    const found = statisticsOf(column(name));
    for (const [test, { statistic, tolerance = 1e-9 }] of Object.entries(expected[name]!)) {
      expect(relativeError(at(found, test as NormalityTestName), statistic), test).toBeLessThan(tolerance);
    }
  });

  it.each(Object.keys(expected))('have the p-values of their formulas on %s', (name) => {
    const values = column(name);
    const n = values.length;
    const found = statisticsOf(values);
    const formulas: Partial<Record<NormalityTestName, (x: number) => number | null>> = {
      'shapiro-wilk': (w) => shapiroWilkAsymptotic(w, n),
      omnibus: (k2) => (n < 20 ? null : chiSquareTwo(k2)),
      'jarque-bera': chiSquareTwo,
    };
    for (const [test, formula] of Object.entries(formulas)) {
      const wanted = expected[name]![test];
      if (!wanted?.pAsymptotic) continue;
      const p = formula(at(found, test as NormalityTestName))!;
      expect(relativeError(p, wanted.pAsymptotic), test).toBeLessThan(wanted.tolerance ?? 1e-8);
    }
  });

  it('have scores of skewness and kurtosis that are those of the tests of one moment', () => {
    const values = column('right-skew-50');
    const { n, m2, m3, m4 } = momentsOf(values);
    const found = statisticsOf(values);
    expect(at(found, 'skewness')).toBeCloseTo(skewnessTest(m3 / m2 ** 1.5, n)!.z, 10);
    expect(at(found, 'kurtosis')).toBeCloseTo(kurtosisTest(m4 / m2 ** 2 - 3, n)!.z, 10);
  });

  it('do not change with the unit, nor the scores but for their sign with the direction', () => {
    const values = column('right-skew-50');
    const found = statisticsOf(values);
    const scaled = statisticsOf(values.map((x) => 1e6 + 25.4 * x));
    const turned = statisticsOf(values.map((x) => -x));
    for (const [k, test] of NORMALITY_TESTS.entries()) {
      expect(relativeError(scaled[k]!, found[k]!), test).toBeLessThan(1e-8);
      expect(relativeError(extremeness(test, turned[k]!), extremeness(test, found[k]!)), test).toBeLessThan(1e-9);
    }
    expect(at(turned, 'skewness')).toBeCloseTo(-at(found, 'skewness'), 9);
  });

  it('say nothing below their least n', () => {
    for (const n of [3, 4, 5, 7, 8]) {
      const found = statisticsOf(Float64Array.from({ length: n }, (_, i) => i * i));
      for (const test of NORMALITY_TESTS)
        expect(Number.isNaN(at(found, test)), `${test} of ${n}`).toBe(n < LEAST_N[test]);
    }
  });
});

function momentsOf(values: Float64Array) {
  const n = values.length;
  const mean = values.reduce((sum, x) => sum + x, 0) / n;
  const moment = (k: number) => values.reduce((sum, x) => sum + (x - mean) ** k, 0) / n;
  return { n, m2: moment(2), m3: moment(3), m4: moment(4) };
}

describe('the weights of W', () => {
  // Shapiro & Wilk (1965), table 5: a(n) and a(n − 1); above n = 20 their table is itself an approximation.
  it.each([
    [3, 0.7071, 0],
    [5, 0.6646, 0.2413],
    [10, 0.5739, 0.3291],
    [20, 0.4734, 0.3211],
  ])('for n = %i are those of the published table', (n, last, next) => {
    const a = shapiroWilkWeights(n);
    expect(Math.abs(a[n - 1]! - last)).toBeLessThan(0.002);
    expect(Math.abs(a[n - 2]! - next)).toBeLessThan(0.002);
  });

  it.each([3, 4, 5, 6, 11, 50, SHAPIRO_WILK_GREATEST_N, SHAPIRO_WILK_GREATEST_N + 1])(
    'for n = %i are antisymmetric, and their squares sum to 1',
    (n) => {
      const a = shapiroWilkWeights(n);
      expect(a.reduce((sum, x) => sum + x * x, 0)).toBeCloseTo(1, 9);
      for (let i = 0; i < n; i++) expect(a[i]! + a[n - 1 - i]!).toBeCloseTo(0, 12);
    },
  );
});

describe('tallies of replicates', () => {
  const names = ['normal-40', 'right-skew-50', 'small-normal'];
  const replicates = 4_000;

  it.each(names)('give the p of A² that the replicates themselves give on %s', (name) => {
    const values = column(name);
    const n = values.length;
    const observed = statisticsOf(values);
    const tallies = tallyNormality({ n, rounding: null, observed: [...observed] }, createStream(7, 0), replicates);
    const raw = simulateAndersonDarling({ n, population: 'normal', rounding: null }, createStream(7, 0), replicates);
    expect(tallies[0]).toBe(simulatedP(observed[0]!, [raw], 7).atLeastAsExtreme);
  });

  it.each(names)('agree with the formulas where there are good ones, within four errors, on %s', (name) => {
    const values = column(name);
    const n = values.length;
    const observed = statisticsOf(values);
    const tallies = tallyNormality({ n, rounding: null, observed: [...observed] }, createStream(11, 0), replicates);
    const wanted: Partial<Record<NormalityTestName, number | null>> = {
      'shapiro-wilk': shapiroWilkAsymptotic(at(observed, 'shapiro-wilk'), n),
      'cramer-von-mises': cramerVonMisesAsymptotic(at(observed, 'cramer-von-mises'), n),
      skewness: n < 20 ? null : expected[name]!.skewness!.pAsymptotic!,
    };
    for (const [test, p] of Object.entries(wanted)) {
      if (p === null || p === undefined) continue;
      const share = at(tallies, test as NormalityTestName) / replicates;
      // The formulas are approximations: a twentieth of p is theirs.
      expect(Math.abs(share - p), test).toBeLessThan(4 * Math.sqrt((p * (1 - p)) / replicates) + 0.05 * p + 1e-3);
    }
  });

  it('reject 5 of 100 clean samples at 5 %, for every test', () => {
    const n = 20;
    const samples = 240;
    const within = 399;
    const state = createStream(2026, 1);
    const values = new Float64Array(n);
    const rejected = new Float64Array(NORMALITY_TESTS.length);
    for (let s = 0; s < samples; s++) {
      fillNormals(state, values);
      const observed = statisticsOf(values);
      const tallies = tallyNormality({ n, rounding: null, observed: [...observed] }, createStream(5, s), within);
      for (const k of NORMALITY_TESTS.keys()) if ((tallies[k]! + 1) / (within + 1) <= 0.05) rejected[k]! += 1;
    }
    for (const [k, test] of NORMALITY_TESTS.entries()) {
      expect(Math.abs(rejected[k]! / samples - 0.05), test).toBeLessThan(4 * Math.sqrt((0.05 * 0.95) / samples));
    }
  });

  it.each(NORMALITY_TESTS)('are those of the replicates of one test by itself: %s', (test) => {
    const values = column('normal-40');
    const observed = statisticsOf(values);
    const input = { n: values.length, rounding: null };
    const tallies = tallyNormality({ ...input, observed: [...observed] }, createStream(3, 0), 500);
    const far = simulateNormality({ ...input, test, population: 'normal' }, createStream(3, 0), 500);
    const limit = extremeness(test, at(observed, test));
    expect(at(tallies, test)).toBe(far.filter((x) => x >= limit - 1e-12).length);
  });

  it('leave a test without a statistic uncounted', () => {
    const observed = NORMALITY_TESTS.map((_, k) => (k === 0 ? 0.4 : null));
    const tallies = tallyNormality({ n: 12, rounding: null, observed }, createStream(1, 0), 200);
    expect([...tallies.subarray(1)]).toEqual(new Array(8).fill(0));
    expect(tallies[0]).toBeGreaterThan(0);
  });
});
