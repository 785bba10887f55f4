import { beforeAll, describe, expect, it } from 'vitest';
import { inThisThread } from '../../src/analyses/registry.js';
import type { ScreenResult } from '../../src/analyses/fit/screen-result.js';
import { screenRows, screenTable } from '../../src/analyses/fit/screen-words.js';
import { screenAnalysis } from '../../src/analyses/fit/screen.js';
import { rankedFamilies } from '../../src/analyses/fit/ranked-families.js';
import { familyCriteria } from '../../src/distributions/fit/criteria.js';
import { holm, holmAdjusted } from '../../src/numeric/holm.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import type { Sample } from '../../src/readings/sample.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { drive } from '../../src/road/runner.js';
import { samplesBeside } from '../../src/table/split.js';
import { column } from '../reference.js';
import { sampleOf } from '../samples.js';

const named = (name: string, values: ArrayLike<number>, resolution: number | null = null): Sample => ({
  ...sampleOf(Float64Array.from(values)),
  name,
  resolution,
});
function normals(n: number, seed: number): Float64Array {
  const values = new Float64Array(n);
  fillNormals(createStream(seed, 0), values);
  return values;
}
const run = (parts: Sample[], settings: object = {}) =>
  drive(inThisThread, {
    id: 'screen',
    request: { column: parts[0]!.name, beside: parts.slice(1).map(({ name }) => name), replicates: 999, ...settings },
    sample: samplesBeside(parts),
  });
async function screened(parts: Sample[], settings: object = {}): Promise<ScreenResult> {
  const result = await run(parts, settings);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as ScreenResult;
}
const finding = (result: ScreenResult) =>
  screenAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('');

describe('Holm’s steps', () => {
  it('adjust p-values as by hand, ties and order kept', () => {
    // 0.01·4, 0.02·3, 0.03·2 = 0.06 as the one before, 0.5.
    expect(holmAdjusted([0.03, 0.01, 0.5, 0.02])).toEqual([0.06, 0.04, 0.5, 0.06].map((p) => expect.closeTo(p, 12)));
    expect(holmAdjusted([])).toEqual([]);
    expect(holmAdjusted([0.9, 0.8])).toEqual([1, 1]);
  });

  it('say the same as the steps at every level', () => {
    for (let seed = 0; seed < 50; seed++) {
      const ps = Array.from(normals(7, seed), (z) => 1 / (1 + Math.exp(3 + 2 * z)));
      const adjusted = holmAdjusted(ps);
      for (const level of [0.01, 0.05, 0.2]) expect(adjusted.map((p) => p < level)).toEqual(holm(ps, level));
    }
  });
});

describe('many columns', () => {
  const parts = [
    named('normal', normals(50, 1)),
    named(
      'lopsided',
      normals(50, 2).map((z) => Math.exp(z)),
    ),
    named('empty', []),
    named('one value', [5, 5, 5, 5, 5]),
    named('two', [1, 2]),
    named(
      'coarse',
      normals(50, 3).map((z) => Math.round(1.2 * z)),
      1,
    ),
    named('weibull', column('weibull-80')),
  ];
  let result: ScreenResult;
  beforeAll(async () => {
    result = await screened(parts);
  });
  const rowOf = (name: string) => result.parts.find((part) => part.name === name)!;

  it('are tested each, the level shared, and those that cannot be say why', () => {
    expect(rowOf('lopsided')).toMatchObject({ ruling: 'departs', n: 50 });
    expect(rowOf('normal')).toMatchObject({ ruling: 'no-evidence' });
    for (const name of ['empty', 'one value', 'two']) {
      expect(rowOf(name)).toMatchObject({ p: null, pHolm: null, ruling: null, statistic: null });
      expect(rowOf(name).reason).not.toBeNull();
    }
    const known = result.parts.filter(({ p }) => p !== null);
    expect(known.map(({ pHolm }) => pHolm)).toEqual(holmAdjusted(known.map(({ p }) => p!)));
    expect(finding(result)).toBe(
      '1 of 4 columns departs from a normal distribution: lopsided (significance level 0.05, Holm-adjusted for 4 tests).',
    );
    expect(result.notes.map(({ code }) => code)).toContain('left-out');
  });

  it('have the statistic and p that each has by itself', async () => {
    const alone = (await drive(inThisThread, {
      id: 'normality',
      request: { column: 'lopsided', replicates: 999 },
      sample: parts[1]!,
    })) as { tests: { statistic: number; pSimulated: unknown }[] };
    expect(rowOf('lopsided').statistic).toBe(alone.tests[0]!.statistic);
    expect(rowOf('lopsided').pSimulated).toEqual(alone.tests[0]!.pSimulated);
  });

  it('that only step coarsely are not ruled to depart', () => {
    const coarse = rowOf('coarse');
    expect(coarse.pSimulated!.pValue).toBeLessThan(0.05);
    expect(coarse.pResolution!.pValue).toBeGreaterThan(0.05);
    expect(coarse).toMatchObject({ ruling: 'rounding', p: coarse.pResolution!.pValue });
  });

  it('are each described by the family that ranks first for it alone', () => {
    for (const name of ['normal', 'lopsided', 'weibull']) {
      const ranked = rankedFamilies(parts.find((part) => part.name === name)!);
      if (typeof ranked === 'string') throw new Error(ranked);
      expect(rowOf(name).best).toBe(ranked.families[0]!.family);
      const together = ranked.families.filter(({ plausible }) => plausible).map(({ family }) => family);
      expect([rowOf(name).best, ...rowOf(name).together].sort()).toEqual(together.sort());
    }
  });

  it('are rows by p, those without a test last', () => {
    const rows = screenRows(result);
    expect(rows[0]).toMatchObject({ name: 'lopsided', ruling: 'departs', departs: true });
    expect(rows.slice(-3).every(({ reason }) => reason !== null)).toBe(true);
    expect(screenTable(result)).toHaveLength(8);
    expect(rows[0]!.part.small!.observed).toHaveLength(40);
  });

  it('say when so few samples can never fall below the shared level', async () => {
    const many = Array.from({ length: 20 }, (_, i) => named(`c${i}`, normals(10, i)));
    const coarse = await screened(many, { replicates: 199 });
    const note = coarse.notes.find(({ code }) => code === 'too-few-replicates')!;
    expect(note.text).toContain(
      'The adjusted p cannot fall below the significance level: with 199 simulated samples, p is',
    );
    expect((await screened(many, { replicates: 999 })).notes.map(({ code }) => code)).not.toContain(
      'too-few-replicates',
    );
  });

  it('find anything in at most 5 of 100 sets with nothing to find', async () => {
    let found = 0;
    const sets = 80;
    for (let s = 0; s < sets; s++) {
      const set = Array.from({ length: 4 }, (_, i) => named(`c${i}`, normals(10, 100 * s + i)));
      const { parts: rows } = await screened(set, { replicates: 199, seed: s });
      if (rows.some(({ ruling }) => ruling === 'departs')) found++;
    }
    expect(found / sets).toBeLessThan(0.05 + 4 * Math.sqrt((0.05 * 0.95) / sets));
  });

  it('may be one column alone, or 200, and no more', async () => {
    const one = await drive(inThisThread, {
      id: 'screen',
      request: { column: 'a', replicates: 199 },
      sample: parts[0]!,
    });
    expect((one as ScreenResult).parts).toHaveLength(1);
    const beside = Array.from({ length: 200 }, (_, i) => `c${i}`);
    expect(() => screenAnalysis.request.parse({ column: 'a', beside })).toThrow(/At most 200 columns/);
    expect(() => screenAnalysis.request.parse({ column: 'a', beside: ['b'], split: 'kiln' })).toThrow(/not both/);
    const request = screenAnalysis.resolve(screenAnalysis.request.parse({ column: 'a', split: 'kiln' }), parts[0]!);
    expect(methodOf(screenAnalysis, request)).toMatch(/^Test each of a by kiln for normality by Anderson–Darling/);
  });
});

describe('criteria of the families, found quickly', () => {
  it.each(['weibull-80', 'right-skew-50', 'normal-40', 'flat-100'])('are those of the careful fits for %s', (name) => {
    const values = column(name);
    const ranked = rankedFamilies(sampleOf(values));
    if (typeof ranked === 'string') throw new Error(ranked);
    const families = ranked.families.map(({ family }) => family);
    const quick = familyCriteria({ values: Array.from(values.slice().sort()), resolution: null, families });
    ranked.families.forEach(({ family, aicc }, i) => {
      // A likelihood that ends at the readings, or runs away, is left out by the quick way.
      if (Number.isFinite(quick[i]!)) expect(Math.abs(quick[i]! - aicc), family).toBeLessThan(1e-3);
    });
    expect(Array.from(quick).filter(Number.isFinite).length).toBeGreaterThan(families.length - 3);
  });
});
