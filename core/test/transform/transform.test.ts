import { describe, expect, it } from 'vitest';
import { inThisThread } from '../../src/analyses/registry.js';
import type { NormalityResult } from '../../src/analyses/fit/normality-result.js';
import type { TransformResult } from '../../src/analyses/fit/transform-result.js';
import {
  lambdaFigures,
  outsideFigures,
  transformFigures,
  transformTable,
} from '../../src/analyses/fit/transform-words.js';
import { transformAnalysis } from '../../src/analyses/fit/transform.js';
import { tallyTransformed } from '../../src/goodness-of-fit/transformed.js';
import { normalCumulative, normalQuantile } from '../../src/numeric/standard-normal.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import type { Sample } from '../../src/readings/sample.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { drive } from '../../src/road/runner.js';
import { bendable, foundLambda, profileOf } from '../../src/transform/lambda.js';
import { bend, curveOfBend, slopeOfBend } from '../../src/transform/bends.js';
import { normalScores } from '../../src/transform/ranks.js';
import {
  bent,
  transformed,
  transformedBounds,
  turnedBack,
  type PointwiseName,
} from '../../src/transform/transformation.js';
import { column, reference } from '../reference.js';
import { sampleOf } from '../samples.js';

const fits =
  reference<Record<string, Record<string, { parameters: Record<string, number>; tolerance: number }>>>('fits');

const run = (sample: Sample, settings: object = {}) =>
  drive(inThisThread, { id: 'transform', request: { column: sample.name, replicates: 999, ...settings }, sample });
async function done(values: ArrayLike<number>, settings: object = {}, facts: Partial<Sample> = {}) {
  const result = await run({ ...sampleOf(Float64Array.from(values)), ...facts }, settings);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as TransformResult;
}
const refused = async (values: ArrayLike<number>, settings: object = {}) => {
  const result = await run(sampleOf(Float64Array.from(values)), settings);
  if (!isUnavailable(result)) throw new Error('It was not refused.');
  return result.reason;
};
const finding = (result: TransformResult) =>
  transformAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('');
const codes = ({ notes }: TransformResult) => notes.map(({ code }) => code);
function normals(n: number, seed: number): Float64Array {
  const values = new Float64Array(n);
  fillNormals(createStream(seed, 0), values);
  return values;
}
const lognormals = (n: number, seed: number, logSd = 0.6) => normals(n, seed).map((z) => Math.exp(2 + logSd * z));

/** The profile log-likelihood as its definition has it: the normal likelihood of the transformed readings, with the Jacobian. */
function plainProfile(name: 'box-cox' | 'yeo-johnson', values: readonly number[], lambda: number): number {
  const power = (y: number, l: number) => (l === 0 ? Math.log(y) : (y ** l - 1) / l);
  const t = values.map((x) =>
    name === 'box-cox' ? power(x, lambda) : x >= 0 ? power(x + 1, lambda) : -power(1 - x, 2 - lambda),
  );
  const n = t.length;
  const mean = t.reduce((a, b) => a + b) / n;
  const variance = t.reduce((a, b) => a + (b - mean) ** 2, 0) / n;
  const jacobian = values.reduce(
    (sum, x) => sum + (name === 'box-cox' ? Math.log(x) : Math.sign(x) * Math.log(1 + Math.abs(x))),
    0,
  );
  return -(n / 2) * Math.log(variance) + (lambda - 1) * jacobian;
}

/** ∫₀¹ f by Simpson's rule, 2 000 panels: exact to 1e-13 for what is asked here. */
function integral(f: (t: number) => number): number {
  const panels = 2_000;
  let sum = 0;
  for (let k = 0; k <= panels; k++) sum += f(k / panels) * (k === 0 || k === panels ? 1 : k % 2 ? 4 : 2);
  return sum / (3 * panels);
}

describe('lambda', () => {
  it.each(['weibull-80', 'right-skew-50', 'normal-40', 'flat-100'] as const)(
    'of Box–Cox is that of the reference for %s',
    (name) => {
      const { parameters, tolerance } = fits[name]!['box-cox']!;
      const { likeliest } = foundLambda('box-cox', column(name), 0.95);
      expect(Math.abs(likeliest - parameters.lambda_!)).toBeLessThan(tolerance);
    },
  );

  it.each(['box-cox', 'yeo-johnson'] as const)('of %s lies at the greatest place of the plain profile', (name) => {
    const values = [0.3, 0.9, 1.4, 1.9, 2.2, 3.1, 4.7, 9.6].map((x) => (name === 'yeo-johnson' ? x - 1.7 : x));
    const profile = (lambda: number) => plainProfile(name, values, lambda);
    const { likeliest, interval } = foundLambda(name, Float64Array.from(values), 0.95);
    // A search over a fine grid, and the χ² of 1 df: 3.841 459.
    let best = -5;
    for (let l = -5; l <= 5; l += 1e-4) if (profile(l) > profile(best)) best = l;
    expect(likeliest).toBeCloseTo(best, 3);
    for (const end of interval) expect(profile(likeliest) - profile(end!)).toBeCloseTo(3.841459 / 2, 5);
    expect(interval[0]!).toBeLessThan(likeliest);
    expect(interval[1]!).toBeGreaterThan(likeliest);
  });

  it('has a profile whose slope is its derivative, also where readings are mirrored', () => {
    const values = Float64Array.of(-3.2, -0.4, 0, 0.2, 0.9, 5.1);
    const { at, slopes } = profileOf(bendable('yeo-johnson', values));
    const slope = (l: number) => slopes(l).slope;
    for (const l of [-1, 0, 1e-9, 0.3, 1, 2, 2.5]) {
      expect(slopes(l).curve).toBeCloseTo((slope(l + 1e-5) - slope(l - 1e-5)) / 2e-5, 5);
      expect(slope(l)).toBeCloseTo((at(l + 1e-5) - at(l - 1e-5)) / 2e-5, 5);
    }
  });

  it('sees bends, their slopes and their curves to twelve digits on both sides of where their series end', () => {
    for (const v of [-3, 0.7, 40])
      for (const u of [-0.6, -0.0501, -0.0499, 0, 1e-9, 0.0499, 0.0501, 3]) {
        const power = u / v;
        const [b, exact] = [bend(v, power), bent(v, power)];
        expect(Math.abs(b / exact - 1)).toBeLessThan(1e-13);
        const slope = slopeOfBend(v, power, b);
        const moment = (k: number) => integral((t) => t ** k * Math.exp(u * t));
        expect(Math.abs(slope / (v * v * moment(1)) - 1)).toBeLessThan(1e-12);
        expect(Math.abs(curveOfBend(v, power, b, slope) / (v ** 3 * moment(2)) - 1)).toBeLessThan(3e-11);
      }
  });

  it('has an interval with the stated coverage', () => {
    let held = 0;
    const samples = 600;
    for (let k = 0; k < samples; k++) {
      const { interval } = foundLambda('box-cox', lognormals(50, 900 + k), 0.95);
      if (interval[0]! <= 0 && 0 <= interval[1]!) held++;
    }
    // 4 errors, and what n = 50 lacks of the χ² law.
    expect(Math.abs(held / samples - 0.95)).toBeLessThan(4 * Math.sqrt((0.95 * 0.05) / samples) + 0.01);
  });

  it('is the convenient one within its interval: the logarithm of a lognormal', () => {
    const found = foundLambda('box-cox', lognormals(200, 3), 0.95);
    expect(found.convenient).toBe(0);
    expect(foundLambda('box-cox', lognormals(2_000, 3, 3).map(Math.sqrt), 0.95).convenient).toBe(0);
    // A cube root is none of them.
    const cubes = normals(3_000, 5).map((z) => (10 + z) ** 3);
    expect(foundLambda('box-cox', cubes, 0.95)).toMatchObject({ convenient: null });
    expect(foundLambda('box-cox', cubes, 0.95).likeliest).toBeCloseTo(1 / 3, 1);
  });

  it('is found for readings of any size, and is open where they hardly differ', () => {
    const values = lognormals(60, 8);
    const { likeliest } = foundLambda('box-cox', values, 0.95);
    for (const unit of [1e-140, 1e-9, 1e9, 1e140]) {
      const scaled = foundLambda(
        'box-cox',
        values.map((x) => x * unit),
        0.95,
      );
      expect(scaled.likeliest).toBeCloseTo(likeliest, 8);
    }
    // In Yeo–Johnson too, where the 1 it adds is nothing.
    const great = values.map((x) => x * 1e140);
    expect(foundLambda('yeo-johnson', great, 0.95).likeliest).toBeCloseTo(likeliest, 8);
    const tight = normals(40, 2).map((z) => 1e9 + z);
    expect(foundLambda('box-cox', tight, 0.95).interval).toEqual([null, null]);
  });
});

describe('a transformation', () => {
  const NAMES: PointwiseName[] = ['box-cox', 'yeo-johnson', 'logarithm', 'square-root', 'reciprocal'];
  it('is turned back to the reading', () => {
    for (const name of NAMES)
      for (const lambda of [-2, -0.5, 0, 1e-12, 0.5, 1, 2, 3])
        for (const x of [1e-6, 0.2, 1, 7, 1e4, ...(name === 'yeo-johnson' ? [-0.3, -5, -900] : [])]) {
          const t = transformed(name, lambda, x);
          // A power that runs into its end leaves few digits to turn back.
          const ends = Math.abs(lambda * Math.log(Math.abs(x) + 1)) > 8 || Math.abs(lambda * Math.log(Math.abs(x))) > 8;
          if (Number.isFinite(t) && !ends) expect(Math.abs(turnedBack(name, lambda, t) / x - 1)).toBeLessThan(1e-9);
        }
  });

  it('has the values of its definition', () => {
    expect(transformed('box-cox', 0.5, 9)).toBeCloseTo(4, 14);
    expect(transformed('box-cox', 0, Math.E)).toBeCloseTo(1, 15);
    expect(transformed('box-cox', -1, 4)).toBeCloseTo(0.75, 15);
    expect(transformed('yeo-johnson', 0, -2)).toBeCloseTo(-4, 14);
    expect(transformed('yeo-johnson', 2, -2)).toBeCloseTo(-Math.log(3), 14);
    expect(transformed('yeo-johnson', 1, -2.5)).toBeCloseTo(-2.5, 14);
    expect(transformed('box-cox', 0.5, 0)).toBe(-2);
    // The easily told powers have no dust in their last digits, and keep those of a reading near 1.
    expect(transformed('box-cox', 2, 1691)).toBe((1691 ** 2 - 1) / 2);
    expect(transformed('yeo-johnson', 2, 1691)).toBe((1692 ** 2 - 1) / 2);
    for (const lambda of [-1, -0.5, 0.5, 1, 2])
      for (const x of [1e-9, 1 + 2 ** -40, 3.7, 1e12])
        for (const name of ['box-cox', 'yeo-johnson'] as const) {
          // The same power by its logarithm, a hair beside.
          const beside = transformed(name, lambda + 1e-13, x);
          expect(Math.abs(transformed(name, lambda, x) / beside - 1)).toBeLessThan(1e-10);
        }
    for (const [name, x] of [
      ['box-cox', 0],
      ['logarithm', 0],
      ['square-root', -1],
      ['reciprocal', 0],
    ] as const)
      expect(transformed(name, -1, x)).toBeNaN();
  });

  it('takes limits and target along, the other way round where it turns them', () => {
    const bounds = { lower: 2, target: 4, upper: 8 };
    expect(transformedBounds('reciprocal', 0, bounds)).toEqual({ lower: 0.125, target: 0.25, upper: 0.5 });
    expect(transformedBounds('square-root', 0, bounds)).toMatchObject({ target: 2 });
    expect(transformedBounds('logarithm', 0, { lower: 0, target: null, upper: 1 })).toEqual({
      ...{ lower: null, target: null, upper: 0 },
    });
    expect(transformedBounds('normal-scores', 0, bounds)).toEqual({ lower: null, target: null, upper: null });
  });

  it('gives normal scores by Blom’s positions, ties sharing theirs, gaps staying gaps', () => {
    const scores = normalScores(Float64Array.of(5, NaN, 1, 3, 3));
    expect(scores[1]).toBeNaN();
    expect(scores[0]).toBeCloseTo(normalQuantile((4 - 0.375) / 4.25), 14);
    expect(scores[3]).toBe(scores[4]);
    expect(scores[3]).toBeCloseTo(normalQuantile((2.5 - 0.375) / 4.25), 14);
  });
});

describe('the analysis of a transformation', () => {
  it('shows before and after side by side', async () => {
    const result = await done(lognormals(80, 13));
    expect(result.lambda).toMatchObject({ used: 0, choice: 'convenient' });
    expect(finding(result)).toContain(
      'After transformation by Box–Cox with lambda 0 (the logarithm), there is no evidence',
    );
    expect(finding(result)).toContain(
      'After transformation by Box–Cox with lambda 0 (the logarithm), there is no evidence',
    );
    expect(result.before.skewness!).toBeGreaterThan(1);
    expect(Math.abs(result.after.skewness!)).toBeLessThan(0.6);
    expect(result.middle).toBeCloseTo(Math.exp(lognormals(80, 13).reduce((sum, x) => sum + Math.log(x), 0) / 80), 10);
    expect(transformFigures(result).map(({ key }) => key)).toContain('p');
    expect(lambdaFigures(result).map(({ key }) => key)).toEqual(['lambda', 'likeliest', 'middle']);
    expect(outsideFigures(result)).toEqual([]);
    expect(transformTable(result)).toHaveLength(81);
  });

  it('says of the readings as measured what the test of normality says: the same p', async () => {
    const sample = sampleOf(lognormals(40, 12, 0.25));
    const shared = { column: sample.name, replicates: 999, seed: 5 };
    const normality = (await drive(inThisThread, { id: 'normality', request: shared, sample })) as NormalityResult;
    const own = (await drive(inThisThread, { id: 'transform', request: shared, sample })) as TransformResult;
    const [a2] = normality.tests;
    expect(own.before.statistic).toBe(a2!.statistic);
    expect(own.before.pSimulated).toEqual(a2!.pSimulated);
  });

  it('estimates lambda in every sample: its p is that of a plain simulation', () => {
    const [n, lambda, mean, sd] = [20, 0.3, 5, 0.8] as const;
    const A2 = (t: number[]) => {
      const s = [...t].sort((a, b) => a - b);
      const m = s.reduce((a, b) => a + b) / n;
      const d = Math.sqrt(s.reduce((a, b) => a + (b - m) ** 2, 0) / (n - 1));
      const z = s.map((x) => normalCumulative((x - m) / d));
      return -n - z.reduce((sum, p, i) => sum + ((2 * i + 1) / n) * (Math.log(p) + Math.log(1 - z[n - 1 - i]!)), 0);
    };
    const limit = 0.45;
    const samples = 400;
    let far = 0;
    for (let k = 0; k < samples; k++) {
      const x = Array.from(normals(n, 40 + k), (z) => (1 + lambda * (mean + sd * z)) ** (1 / lambda));
      // Thirds of a bracket: the profile has one greatest place.
      let [low, high] = [-6, 6];
      while (high - low > 1e-4) {
        const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
        if (plainProfile('box-cox', x, a) < plainProfile('box-cox', x, b)) low = a;
        else high = b;
      }
      const best = low;
      if (A2(x.map((v) => (Math.abs(best) < 1e-9 ? Math.log(v) : (v ** best - 1) / best))) >= limit) far++;
    }
    const input = {
      power: 'box-cox',
      n,
      lambda,
      centre: 0,
      mirrored: false,
      mean,
      sd,
      choice: 'likeliest',
      confidence: 0.95,
    } as const;
    const replicates = 4_000;
    const [found] = tallyTransformed({ ...input, step: null, observed: limit }, createStream(1, 0), replicates);
    const [p, q] = [found! / replicates, far / samples];
    expect(p).toBeGreaterThan(0.01);
    expect(Math.abs(p - q)).toBeLessThan(4 * Math.sqrt((p * (1 - p)) / samples + (p * (1 - p)) / replicates));
    // A λ that is given leaves more to be seen.
    const [kept] = tallyTransformed(
      { ...input, choice: 'given', step: null, observed: limit },
      createStream(1, 0),
      replicates,
    );
    expect(kept!).toBeGreaterThan(found! * 1.5);
  });

  it('rejects at its level', async () => {
    let rejected = 0;
    const samples = 120;
    for (let k = 0; k < samples; k++) {
      const { after } = await done(lognormals(12, 5_000 + k), { replicates: 199, seed: k });
      if (after.pSimulated!.pValue < 0.05) rejected++;
    }
    expect(rejected / samples).toBeLessThan(0.05 + 4 * Math.sqrt((0.05 * 0.95) / samples));
    expect(rejected).toBeGreaterThan(0);
  });

  it('tells the shares outside the limits outside, transformed normal and by the best family', async () => {
    const values = lognormals(400, 21, 0.5);
    const result = await done(values, { by: 'logarithm', lowerLimit: 2, target: 7, upperLimit: 20 });
    const mean = values.reduce((sum, x) => sum + Math.log(x), 0) / 400;
    const sd = Math.sqrt(values.reduce((sum, x) => sum + (Math.log(x) - mean) ** 2, 0) / 399);
    const expected = normalCumulative((Math.log(2) - mean) / sd) + 1 - normalCumulative((Math.log(20) - mean) / sd);
    expect(result.outside!.transformed!.share).toBeCloseTo(expected, 12);
    expect(result.outside!.best!.share).toBeGreaterThan(expected / 3);
    expect(result.outside!.counted).toBe(values.filter((x) => x < 2 || x > 20).length);
    expect(result.after.bounds.target).toBeCloseTo(Math.log(7), 14);
    expect(outsideFigures(result).map(({ key }) => key)).toEqual(['counted', 'transformed', 'best']);
    // The reciprocal turns the limits round, and the share stays what it is on both sides.
    const turned = await done(values, { by: 'reciprocal', upperLimit: 20 });
    expect(turned.after.bounds).toEqual({ lower: 0.05, target: null, upper: null });
    expect(turned.outside!.transformed!.share).toBeGreaterThan(0);
    // And everything above an upper limit that no reading of the law can be below.
    const all = await done(values, { by: 'reciprocal', upperLimit: 0 });
    expect(all.outside!.transformed!.share).toBe(1);
    // Nothing lies below 0 once logarithms are taken.
    const none = await done(values, { by: 'logarithm', lowerLimit: 0 });
    expect(none.outside!.transformed).toEqual({ share: 0, interval: null });
    expect(codes(none)).toContain('limit-beyond');
  });

  it('does not blame the readings for their rounding', async () => {
    const values = normals(200, 31).map((z) => Math.max(1, Math.round(Math.exp(1.6 + 0.35 * z))));
    const result = await done(values, { by: 'logarithm' }, { resolution: 1 });
    expect(result.after.pSimulated!.pValue).toBeLessThan(0.05);
    expect(result.after.pResolution!.pValue).toBeGreaterThan(0.05);
    expect(finding(result)).toContain(
      'After transformation by the logarithm, rounding alone explains the departure from a',
    );
    expect(transformFigures(result).map(({ key }) => key)).toContain('pRounded');
  });

  it('rounds samples of Yeo–Johnson as those of Box–Cox of x + 1', async () => {
    const values = normals(200, 31).map((z) => Math.max(20, Math.round(Math.exp(4 + 0.02 * z))));
    const asked = { power: 'given', lambda: 2 };
    const own = await done(values, { ...asked, by: 'yeo-johnson' }, { resolution: 1 });
    const same = await done(
      values.map((x) => x + 1),
      { ...asked, by: 'box-cox' },
      { resolution: 1 },
    );
    expect(own.after.statistic).toBeCloseTo(same.after.statistic, 9);
    expect(own.after.pResolution).toEqual(same.after.pResolution);
    expect(own.after.pResolution).not.toBeNull();
  });

  it('says where nothing asks for it, and where it can do nothing', async () => {
    const plain = await done(
      normals(60, 41).map((z) => 100 + 3 * z),
      { power: 'likeliest' },
    );
    expect(codes(plain)).toEqual(expect.arrayContaining(['not-needed', 'short-range']));
    const groups = await done(normals(80, 42).map((z, i) => 50 + (i % 2) * 20 + z));
    expect(finding(groups)).toContain('still depart');
    expect(codes(await done(lognormals(30, 43), { by: 'yeo-johnson' }))).toContain('unit-matters');
    const scores = await done(lognormals(30, 43), { by: 'normal-scores', upperLimit: 9 });
    expect(finding(scores)).toContain('by construction');
    expect(scores.after.pSimulated).toBeNull();
    expect(scores.outside!.transformed).toBeNull();
    expect(scores.outside!.best).not.toBeNull();
  });

  it('refuses what it cannot bend, says where, and what else there is', async () => {
    const mixed = [3, 0, 2, -1, 5, 7, 9];
    for (const by of ['box-cox', 'logarithm', 'reciprocal'])
      expect(await refused(mixed, { by })).toMatch(/above 0.*row 2: 0, row 4: −1.*Yeo–Johnson/);
    expect(await refused(mixed, { by: 'square-root' })).toContain(
      'The square root needs readings of at least 0; thickness has others (row 4: −1).',
    );
    expect(await refused(mixed, { power: 'given', lambda: 0.5 })).toContain(
      'Box–Cox needs readings of at least 0; thickness has others (row 4: −1).',
    );
    expect((await done([3, 0, 2, 1, 5], { power: 'given', lambda: 0.5 })).lambda!.used).toBe(0.5);
    expect((await done([3, 0, 2, 1, 5, 8], { by: 'square-root' })).n).toBe(6);
    expect((await done(mixed, { by: 'yeo-johnson' })).lambda).not.toBeNull();
    expect((await done(mixed, { by: 'yeo-johnson' })).offers.filter(({ reason }) => reason !== null)).toHaveLength(4);
    expect(await refused([4, 4, 4, 4, 4, 4])).toContain('a transformation needs readings that vary');
    expect(await refused([1, 2, 3])).toContain('at least 5');
    // 1e15 ± 10: a logarithm has no digits left for that.
    const tight = Array.from(normals(30, 8), (z) => 1e15 + Math.round(10 * z));
    for (const by of ['box-cox', 'yeo-johnson', 'logarithm', 'square-root', 'reciprocal'])
      expect(await refused(tight, { by })).toContain('Subtract a constant first.');
    expect(await refused([1e40, 2e40, 3e40, 5e40, 9e40], { power: 'given', lambda: 10 })).toContain('Choose another');
  });
});
