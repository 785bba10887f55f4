import { beforeAll, describe, expect, it } from 'vitest';
import type { FamiliesPower, NormalPower, PowerResult } from '../../src/analyses/fit/power-result.js';
import { DEPARTURES, lognormalSkewness } from '../../src/analyses/fit/power-departures.js';
import { powerFigures, powerTable, simulatedPowerWords, sizeWords } from '../../src/analyses/fit/power-words.js';
import { powerAnalysis } from '../../src/analyses/fit/power.js';
import { inThisThread } from '../../src/analyses/registry.js';
import { sizeNeeded } from '../../src/goodness-of-fit/power.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { drive } from '../../src/road/runner.js';
import { column } from '../reference.js';
import { sampleOf } from '../samples.js';

const run = (values: Float64Array, settings: object = {}) =>
  drive(inThisThread, { id: 'power', request: { column: 'thickness', ...settings }, sample: sampleOf(values) });
async function power<R extends PowerResult>(values: Float64Array, settings: object = {}): Promise<R> {
  const result = await run(values, settings);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as R;
}
const words = (result: PowerResult) =>
  powerAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('');

/** Random numbers and normal scores that are none of ours: a linear congruential generator (Park & Miller 1988), polar method. */
function plainNormals(seed: number): () => number {
  let state = seed;
  const unit = () => (state = (state * 48271) % 2147483647) / 2147483647;
  return () => {
    for (;;) {
      const [u, v] = [2 * unit() - 1, 2 * unit() - 1];
      const s = u * u + v * v;
      if (s > 0 && s < 1) return u * Math.sqrt((-2 * Math.log(s)) / s);
    }
  };
}
/** Φ by its series and continued fraction, to a double's precision near the middle (Abramowitz & Stegun 26.2.10, 26.2.14). */
function phi(x: number): number {
  const size = Math.abs(x);
  const density = Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI);
  if (size > 4) {
    let fraction = 0;
    for (let k = 60; k > 0; k--) fraction = k / (size + fraction);
    const tail = density / (size + fraction);
    return x < 0 ? tail : 1 - tail;
  }
  let [term, sum] = [x, x];
  for (let k = 1; k < 200; k++) sum += term *= (x * x) / (2 * k + 1);
  return 0.5 + density * sum;
}
function plainStatistic(sample: number[]): number {
  const n = sample.length;
  const mean = sample.reduce((a, b) => a + b, 0) / n;
  const sd = Math.sqrt(sample.reduce((a, x) => a + (x - mean) ** 2, 0) / (n - 1));
  const z = sample.map((x) => (x - mean) / sd).sort((a, b) => a - b);
  let sum = 0;
  for (let i = 0; i < n; i++) sum += (2 * i + 1) * (Math.log(phi(z[i]!)) + Math.log(phi(-z[n - 1 - i]!)));
  return -n - sum / n;
}

const N = 20;
const twenty = Float64Array.from({ length: N }, (_, i) => i + 0.3 * ((i * 7) % 5));

describe('what n can detect', () => {
  let result: NormalPower;
  beforeAll(async () => {
    result = await power<NormalPower>(twenty);
  });

  it('is what a plain simulation finds, within 4 errors', () => {
    const next = plainNormals(20261126);
    const draw = (of: (z: number, i: number) => number) => Array.from({ length: N }, (_, i) => of(next(), i));
    const [nulls, samples] = [6_000, 3_000];
    const none = Array.from({ length: nulls }, () => plainStatistic(draw((z) => z))).sort((a, b) => a - b);
    const critical = none[Math.floor(nulls * 0.95)]!;
    const cases = [
      { kind: 'lognormal', value: 0.5, of: (z: number) => Math.exp(0.5 * z) },
      { kind: 'two-groups', value: 4, of: (z: number, i: number) => z + (i % 2 === 0 ? 4 : 0) },
      { kind: 'one-far', value: 5, of: (z: number, i: number) => z + (i === 7 ? 5 : 0) },
    ];
    for (const { kind, value, of } of cases) {
      let beyond = 0;
      for (let r = 0; r < samples; r++) if (plainStatistic(draw(of)) >= critical) beyond++;
      const [plain, ours] = [beyond / samples, shareOf(result, kind, value)];
      const variance = (p: number, count: number) => (p * (1 - p)) / count;
      // The level itself is known to sqrt(0.05 · 0.95 / 6 000), and power moves a few times as fast.
      const error = Math.sqrt(variance(plain, samples) + variance(ours, 1_000) + 9 * variance(0.05, nulls));
      expect(Math.abs(ours - plain), kind).toBeLessThan(4 * error);
    }
  });

  it('rises with the departure and with n, and the interval holds the share', () => {
    for (const { kind, points } of result.curves) {
      if (kind === 'symmetric-beta') continue;
      expect(points.at(-1)!.noticed, kind).toBeGreaterThan(points[0]!.noticed + 0.2);
    }
    for (const { noticed, interval } of result.curves.flatMap(({ points }) => points)) {
      expect(interval[0]).toBeLessThanOrEqual(noticed);
      expect(interval[1]).toBeGreaterThanOrEqual(noticed);
    }
    const sizes = result.asked.over;
    expect(sizes.at(-1)!.noticed).toBeGreaterThan(0.8);
    expect(sizes[0]!.noticed).toBeLessThan(0.5);
  });

  it('says it in cases, with the n that would notice', () => {
    expect(words(result)).toContain(
      'With 20 readings and significance level 0.05, a lognormal distribution with log SD 0.5',
    );
    expect(powerFigures(result)).toHaveLength(5);
    expect(powerTable(result)[0]).toEqual(['departure', 'size', 'n', 'power', 'lower', 'upper', 'samples']);
  });

  it('takes any departure of the scale and puts it in its place', async () => {
    const found = await power<NormalPower>(twenty, { against: 'student-t', df: 4, replicates: 199 });
    expect(found.curves.find(({ kind }) => kind === 'student-t')!.points.map(({ value }) => value)).toEqual([
      30, 15, 10, 7, 5, 4, 3, 2,
    ]);
    expect(found.asked.at!.replicates).toBe(199);
    await expect(run(twenty, { against: 'lognormal', logSd: 9 })).rejects.toThrow(/from 0.01 to 3/);
  });

  it('says that more than 2 000 would be needed where they would, and nothing of it before they are tried', () => {
    const over = (n: number): NormalPower => {
      const point = { n, noticed: 0.3, replicates: 2_000, interval: [0.2, 0.4] as [number, number] };
      return { ...result, asked: { ...result.asked, over: [point], needed: null } };
    };
    expect(words(over(2_000))).toContain(
      'With 20 readings and significance level 0.05, a lognormal distribution with log SD 0.5',
    );
    expect(words(over(300))).not.toContain('needed');
  });

  it('asks nothing of the readings but their number', async () => {
    const same = await power<NormalPower>(new Float64Array(N).fill(5), { replicates: 199 });
    const other = await power<NormalPower>(twenty, { replicates: 199 });
    expect(same.curves).toEqual(other.curves);
    expect(isUnavailable(await run(Float64Array.of(1, 2)))).toBe(true);
  });
});

const shareOf = (result: NormalPower, kind: string, value: number): number =>
  result.curves.find((curve) => curve.kind === kind)!.points.find((point) => point.value === value)!.noticed;

describe('what another family would have shown', () => {
  it('is asked of the nearest others, by n', async () => {
    const result = await power<FamiliesPower>(column('weibull-80'), { family: 'exponential', replicates: 199 });
    expect(result.of).toBe('families');
    expect(result.curves).toHaveLength(4);
    expect(result.curves.map(({ family }) => family)).not.toContain('exponential');
    for (const { points } of result.curves) expect(points.map(({ n }) => n)).toEqual([40, 80, 160, 320]);
    expect(words(result)).toContain(
      'With 80 readings and significance level 0.05, a Weibull distribution, the nearest',
    );
    expect(powerTable(result)).toHaveLength(17);
  });

  it('equals the level if the alternative is the family itself', async () => {
    // A Weibull of shape 1 is exponential.
    const result = await power<FamiliesPower>(column('weibull-80'), { family: 'weibull', replicates: 199 });
    const shares = result.curves.flatMap(({ points }) => points.map(({ noticed }) => noticed));
    expect(Math.min(...shares)).toBeGreaterThan(0.02);
  });

  it('of a claim is asked with nothing estimated, also of a claimed normal', async () => {
    const settings = { family: 'normal', parameters: { mean: 10, sd: 6 }, replicates: 199 };
    const result = await power<FamiliesPower>(twenty, settings);
    expect(result.law.estimated).toEqual([]);
    const request = powerAnalysis.resolve(
      powerAnalysis.request.parse({ column: 'thickness', ...settings }),
      sampleOf(twenty),
    );
    expect(methodOf(powerAnalysis, request)).toBe(
      'Power for samples of the size of thickness, test of the normal distribution with parameters mean 10, standard deviation 6 by Anderson–Darling against the nearest other distributions, from 199 simulated samples each, seed 4711.',
    );
  });
});

describe('the n that is needed', () => {
  const at = (n: number, noticed: number) => ({ n, noticed, replicates: 1000, interval: [0, 1] as [number, number] });

  it('is interpolated linearly in log n on the score of power', () => {
    // Φ⁻¹: 0.5 → 0, 0.8 → 0.8416, 0.95 → 1.6449.
    const found = sizeNeeded([at(10, 0.5), at(40, 0.95)], 0.8)!;
    expect(Math.log(found / 10) / Math.log(4)).toBeCloseTo(0.841621 / 1.644854, 5);
    expect(sizeNeeded([at(10, 0.9)], 0.8)).toBe(10);
    expect(sizeNeeded([at(10, 0.1), at(20, 0.2)], 0.8)).toBeNull();
    expect(sizeNeeded([at(10, 0), at(20, 1)], 0.8)).toBeLessThan(20);
  });

  it('is given with two digits, a power as a percentage', () => {
    expect(sizeWords(39.2)).toBe('40');
    expect(sizeWords(1234)).toBe('1\u202f200');
    expect([0.001, 0.02, 0.42, 0.999].map(simulatedPowerWords)).toEqual([
      ...['less than 1\u00a0% power', 'about 2\u00a0% power', 'about 42\u00a0% power', 'more than 99\u00a0% power'],
    ]);
  });

  it('of every scale is asked from hardly departing to far, within its range', () => {
    for (const { values, usual, range, words: said } of DEPARTURES) {
      expect(values).toContain(usual);
      expect(values.every((value) => value >= range.from && value <= range.to)).toBe(true);
      expect(said(usual)).not.toContain('undefined');
    }
    expect(lognormalSkewness(0.31426398897259394)).toBeCloseTo(1, 12);
  });
});
