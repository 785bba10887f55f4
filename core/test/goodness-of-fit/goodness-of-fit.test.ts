import { describe, expect, it } from 'vitest';
import { goodnessOfFitAnalysis } from '../../src/analyses/fit/goodness-of-fit.js';
import {
  fittedTestDetails,
  fittedTestFigures,
  fittedTestTable,
} from '../../src/analyses/fit/goodness-of-fit-figures.js';
import type { GoodnessOfFitResult } from '../../src/analyses/fit/goodness-of-fit-result.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { distribution, familyByName } from '../../src/distributions/registry.js';
import { tallyFitted } from '../../src/goodness-of-fit/fitted/battery.js';
import { andersonDarlingKnown, kolmogorovSmirnovKnown } from '../../src/goodness-of-fit/fitted/known-parameters.js';
import { simulatedP } from '../../src/goodness-of-fit/simulated-p.js';
import { createStream } from '../../src/random/stream.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { drive } from '../../src/road/runner.js';
import { column } from '../reference.js';
import { sampleOf } from '../samples.js';

const run = (values: Float64Array, settings: object = {}, resolution: number | null = null) =>
  drive(inThisThread, {
    id: 'goodness-of-fit',
    request: { column: 'force', ...settings },
    sample: { ...sampleOf(values), resolution },
  });
const test = async (values: Float64Array, settings: object = {}, resolution: number | null = null) => {
  const result = await run(values, settings, resolution);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as GoodnessOfFitResult;
};
const words = (result: GoodnessOfFitResult) =>
  goodnessOfFitAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('')
    .replaceAll('\u00a0', ' ');
const drawn = (family: string, parameters: Record<string, number>, n: number, seed = 1) => {
  const values = new Float64Array(n);
  distribution(familyByName(family), parameters).sample(createStream(seed, 0), values);
  return values;
};

/** The share of samples of a family, fitted anew, whose A² reaches a value. */
function shareBeyond(
  family: string,
  parameters: Record<string, number>,
  n: number,
  statistic: number,
  replicates = 3_000,
) {
  const fitting = { family, given: {}, estimateThreshold: false };
  const observed = [statistic, null, null, null];
  const input = { n, fitting, parameters, cells: 0, step: null, observed };
  return tallyFitted(input, createStream(21, 0), replicates)[0]! / replicates;
}
const FOUR_ERRORS = (p: number, n: number) => 4 * Math.sqrt((p * (1 - p)) / n);

describe('A² with estimated parameters', () => {
  // Upper points of the modified A² in D'Agostino & Stephens (1986), tables 4.11, 4.17 and 4.22, given to three figures.
  it.each([
    [
      'exponential',
      { scale: 3 },
      (a: number, n: number) => a / (1 + 0.6 / n),
      { 0.1: 1.062, 0.05: 1.321, 0.01: 1.959 },
    ],
    [
      'smallest-extreme-value',
      { location: 0, scale: 2 },
      (a: number, n: number) => a / (1 + 0.2 / Math.sqrt(n)),
      { 0.1: 0.637, 0.05: 0.757, 0.01: 1.038 },
    ],
    [
      'weibull',
      { shape: 3, scale: 2 },
      (a: number, n: number) => a / (1 + 0.2 / Math.sqrt(n)),
      { 0.1: 0.637, 0.05: 0.757, 0.01: 1.038 },
    ],
    [
      'logistic',
      { location: 0, scale: 1 },
      (a: number, n: number) => a / (1 + 0.25 / n),
      { 0.1: 0.563, 0.05: 0.66, 0.01: 0.906 },
    ],
  ] as const)(
    'reaches the published points of %s as often as the table says',
    (family, parameters, unmodified, points) => {
      for (const [p, point] of Object.entries(points)) {
        const share = shareBeyond(family, parameters, 40, unmodified(point, 40));
        // The points are approximations for finite n: half a percent of p besides the simulation.
        expect(Math.abs(share - Number(p)), p).toBeLessThan(FOUR_ERRORS(Number(p), 3_000) + 0.005);
      }
    },
  );

  it('of a normal is that of the tests of normality', async () => {
    const values = column('normal-40');
    const { tests } = await test(values, { family: 'normal', parameters: { mean: 102.318 }, replicates: 199 });
    // Plainly, with the claimed mean and the sd about it.
    const sd = Math.sqrt(values.reduce((sum, x) => sum + (x - 102.318) ** 2, 0) / 40) * Math.sqrt(40 / 39);
    const law = distribution(familyByName('normal'), { mean: 102.318, sd });
    const u = [...values].sort((a, b) => a - b).map((x) => law.cumulative(x));
    const sum = u.reduce((s, p, i) => s + (2 * i + 1) * (Math.log(p) + Math.log(1 - u[39 - i]!)), 0);
    expect(tests[0]!.statistic).toBeCloseTo(-40 - sum / 40, 9);
    const w2 = u.reduce((s, p, i) => s + (p - (2 * i + 1) / 80) ** 2, 1 / 480);
    expect(tests[1]!.statistic).toBeCloseTo(w2, 9);
    expect(tests[2]!.statistic).toBeCloseTo(Math.max(...u.map((p, i) => Math.max((i + 1) / 40 - p, p - i / 40))), 9);
    const counts = new Array(tests[3]!.df! + 2).fill(0);
    for (const p of u) counts[Math.floor(p * counts.length)]++;
    const expected = 40 / counts.length;
    expect(tests[3]!.statistic).toBeCloseTo(
      counts.reduce((s, c) => s + (c - expected) ** 2 / expected, 0),
      9,
    );
  });

  it.each([
    ['gamma', { shape: 2, scale: 1 }],
    ['weibull', { shape: 0.8, scale: 5 }],
    ['exponential', { scale: 1 }],
  ] as const)('is below 0.05 in about 5 of 100 samples of %s', (family, parameters) => {
    let below = 0;
    // A slice; `npm run calibrate` does it in full.
    const [samples, replicates] = [80, 299];
    for (let seed = 0; seed < samples; seed++) {
      const values = drawn(family, parameters, 30, 1_000 + seed);
      if ((tallyOf(values, family, replicates, seed) + 1) / (replicates + 1) <= 0.05) below++;
    }
    expect(Math.abs(below / samples - 0.05)).toBeLessThan(FOUR_ERRORS(0.05, samples));
  });
});

/** The replicates of A² at least as far off as these readings, by the order that the analysis places. */
function tallyOf(values: Float64Array, family: string, replicates: number, seed: number): number {
  const { request } = goodnessOfFitAnalysis;
  const step = goodnessOfFitAnalysis.run(request.parse({ column: 'x', family }), sampleOf(values)).next([]);
  if (step.done) throw new Error('no orders');
  const input = step.value.orders[0]!.input as Parameters<typeof tallyFitted>[0];
  return tallyFitted(input, createStream(seed, 5), replicates)[0]!;
}

describe('distributions for known parameters', () => {
  it('of D are those of Marsaglia, Tsang & Wang (2003) and of the tables', () => {
    expect(1 - kolmogorovSmirnovKnown(0.274, 10)!).toBeCloseTo(0.6284796154565, 12);
    // Upper 5 and 1 % points (Miller 1956).
    for (const [n, d5, d1] of [
      [5, 0.56328, 0.66853],
      [10, 0.40925, 0.48893],
      [20, 0.29408, 0.35241],
      [100, 0.13403, 0.16081],
    ] as const) {
      expect(kolmogorovSmirnovKnown(d5, n)).toBeCloseTo(0.05, 4);
      expect(kolmogorovSmirnovKnown(d1, n)).toBeCloseTo(0.01, 4);
    }
    // n = 1: P(D ≥ d) = 2(1 − d) from a half on.
    expect(kolmogorovSmirnovKnown(0.7, 1)).toBeCloseTo(0.6, 12);
    // Either side of where the two roads meet.
    expect(kolmogorovSmirnovKnown(0.29999, 100)! / kolmogorovSmirnovKnown(0.30001, 100)!).toBeCloseTo(1, 2);
    expect(kolmogorovSmirnovKnown(0.1, 5_000)).toBeNull();
  });

  it('of A² have the points of Lewis (1961)', () => {
    for (const [z, p] of [
      [1.933, 0.1],
      [2.492, 0.05],
      [3.8781, 0.01],
    ] as const)
      expect(andersonDarlingKnown(z, 1e6)).toBeCloseTo(p, 4);
    expect(andersonDarlingKnown(50, 20)).toBeNull();
  });

  it.each([3, 8, 40])('are those of simulated samples of %s readings', async (n) => {
    const claim = { family: 'normal', parameters: { mean: 0, sd: 1 } };
    const values = drawn('normal', { mean: 0.2, sd: 1 }, n, 3);
    const { tests } = await test(values, { ...claim, replicates: 8_000 });
    for (const one of [tests[0]!, tests[2]!]) {
      expect(one.pMethod).toBe('exact');
      const p = one.pSimulated!.pValue;
      expect(Math.abs(one.pExact! - p)).toBeLessThan(FOUR_ERRORS(p, 8_000) + 1e-4);
    }
    expect(tests[1]!.pMethod).toBe('simulated');
  });
});

describe('analysis goodness-of-fit', () => {
  it('finds nothing against Weibull forces and something against a normal of lifetimes', async () => {
    const force = await test(column('weibull-80'), { family: 'weibull', replicates: 1_999 });
    expect(force.outcome).toBe('no-evidence');
    expect(words(force)).toBe(
      'No evidence against a Weibull distribution (A² = 0.218, p = 0.85). Estimated: shape 6.63 and scale 1428 mm.',
    );
    const skew = await test(column('right-skew-50'), { family: 'uniform', replicates: 999 });
    expect(skew.outcome).toBe('evidence');
    expect(words(skew)).toContain('The readings depart from a uniform distribution');
    expect(skew.notes.map(({ code }) => code)).toContain('p-at-floor');
  });

  it('says in what readings differ from a claim', async () => {
    const higher = await test(drawn('normal', { mean: 9, sd: 1 }, 60), { parameters: [8, 1], replicates: 999 });
    expect(words(higher)).toContain(
      'The readings depart from the claimed normal distribution (A² = 35.0, p = 0.0010). The',
    );
    expect(words(higher)).not.toContain('spread');
    const wider = await test(drawn('normal', { mean: 8, sd: 2 }, 60), { parameters: [8, 1], replicates: 999 });
    expect(words(wider)).toContain(
      'The readings depart from the claimed normal distribution (A² = 24.3, p = 0.0010). The',
    );
    const other = await test(drawn('exponential', { scale: 1 }, 80), { parameters: [1, 1], replicates: 999 });
    expect(words(other)).toContain(
      'The readings depart from the claimed normal distribution (A² = 2.83, p = 0.033). The',
    );
    expect(other.notes.map(({ code }) => code)).toContain('claim');
  });

  it('asks a claim for no more than its own family estimated can be waited for', () => {
    const { request } = goodnessOfFitAnalysis;
    const values = drawn('generalized-extreme-value', { location: 0, scale: 1, shape: 0.1 }, 50);
    const asked = request.parse({ column: 'x', family: 'generalized-extreme-value', parameters: [0, 1, 0.1] });
    const sample = sampleOf(values);
    expect(goodnessOfFitAnalysis.resolve(asked, sample).replicates).toBe(2_000);
    const step = goodnessOfFitAnalysis.run(asked, sample).next([]);
    if (step.done) throw new Error('no orders');
    // The estimated family takes some milliseconds a sample: a chunk must not hold the worker for seconds.
    expect(Math.max(...step.value.orders.map(({ chunkSize }) => chunkSize))).toBeLessThan(10);
  });

  it('allows for coarse rounding', async () => {
    const rounded = drawn('gamma', { shape: 9, scale: 1 }, 150, 4).map(Math.round);
    const result = await test(rounded, { family: 'gamma', replicates: 1_999 }, 1);
    const [a2] = result.tests;
    expect(a2!.pResolution!.pValue).toBeGreaterThan(a2!.pSimulated!.pValue);
    expect(
      (await test(column('weibull-80'), { family: 'weibull', replicates: 199 }, 0.1)).tests[0]!.pResolution,
    ).toBeNull();
  });

  it('is shown as figures, with the explanation of each test', async () => {
    const result = await test(column('weibull-80'), { family: 'gamma', replicates: 999 });
    expect(fittedTestFigures(result).map(({ name }) => name)).toEqual(['Anderson–Darling A²', 'p, simulated']);
    expect(fittedTestTable(result).map(({ note }) => note)).toEqual(['chosen', '', '', '']);
    expect(fittedTestDetails(result, 'chi-square').map(({ name }) => name)).toContain('p, asymptotic');
    const claim = await test(column('weibull-80'), { parameters: [1330, 240], replicates: 999 });
    expect(fittedTestFigures(claim).map(({ key }) => key)).toEqual([
      'statistic',
      'pExact',
      'pSimulated',
      'centre',
      'spread',
      'shape',
    ]);
  });

  it('answers in words where there is nothing to test', async () => {
    const why = async (values: number[], settings: object = {}) => {
      const result = await run(Float64Array.from(values), settings);
      return isUnavailable(result) ? result.reason : null;
    };
    expect(await why([1, 2], { family: 'gamma' })).toContain('needs at least 3');
    expect(await why([4, 4, 4, 4], { family: 'weibull' })).toContain('All 4 readings');
    expect(await why([-1, 2, 3, 4], { family: 'lognormal' })).toContain('−1');
    expect(await why([1, 2, 3], { family: 'generalized-extreme-value' })).toContain(
      'The likelihood has no maximum: it increases without limit as the upper end approaches the',
    );
    expect(await why([1, 2, 3, 4, 5, 6], { family: 'normal', test: 'chi-square', parameters: { mean: 3 } })).toContain(
      'too few for χ²',
    );
    // Equal readings cannot be estimated from, but a claim can be held against them.
    expect(await why([8, 8, 8, 8], { parameters: [8, 1] })).toBeNull();
  });

  it('is a p that ties count in', () => {
    expect(simulatedP(1, [Float64Array.of(1, 1, 0.5)], 1).atLeastAsExtreme).toBe(2);
  });
});
