import { describe, expect, it } from 'vitest';
import { inThisThread } from '../../src/analyses/registry.js';
import type { TwoSamplesResult } from '../../src/analyses/fit/two-samples-result.js';
import { twoSamplesFigures, twoSamplesTable, twoSamplesTests } from '../../src/analyses/fit/two-samples-words.js';
import { twoSamplesAnalysis } from '../../src/analyses/fit/two-samples.js';
import { pooled, twoSampleStatistics } from '../../src/goodness-of-fit/two-samples.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import type { Sample } from '../../src/readings/sample.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { methodOf } from '../../src/road/method-sentence.js';
import { drive } from '../../src/road/runner.js';
import { samplesBeside } from '../../src/table/split.js';
import { sampleOf } from '../samples.js';

const named = (name: string, values: ArrayLike<number>): Sample => ({ ...sampleOf(Float64Array.from(values)), name });
const run = (parts: Sample[], settings: object = {}) =>
  drive(inThisThread, {
    id: 'two-samples',
    request: { column: parts[0]!.name, beside: parts.slice(1).map(({ name }) => name), replicates: 999, ...settings },
    sample: samplesBeside(parts),
  });
async function compared(a: ArrayLike<number>, b: ArrayLike<number>, settings: object = {}): Promise<TwoSamplesResult> {
  const result = await run([named('south', a), named('north', b)], settings);
  if (isUnavailable(result)) throw new Error(result.reason);
  return result as TwoSamplesResult;
}
const finding = (result: TwoSamplesResult) =>
  twoSamplesAnalysis
    .finding(result)
    .map(({ text }) => text)
    .join('');
function statistics(a: readonly number[], b: readonly number[]) {
  const sorted = (x: readonly number[]) => Float64Array.from(x).sort();
  const { ties, first, n } = pooled(sorted(a), sorted(b));
  const into = { andersonDarling: 0, kolmogorovSmirnov: 0 };
  twoSampleStatistics(ties, first, n, into);
  return into;
}
/** Anderson–Darling, two samples without ties by Pettitt’s (1976) formula. */
function pettitt(a: readonly number[], b: readonly number[]): number {
  const all = [...a, ...b].sort((x, y) => x - y);
  const [m, total] = [a.length, all.length];
  let sum = 0;
  for (let i = 1; i < total; i++) {
    const below = a.filter((x) => x <= all[i - 1]!).length;
    sum += (below * total - m * i) ** 2 / (i * (total - i));
  }
  return sum / (m * b.length);
}
function normals(n: number, seed: number, shift = 0, scale = 1): Float64Array {
  const values = new Float64Array(n);
  fillNormals(createStream(seed, 0), values);
  return values.map((z) => shift + scale * z);
}

describe('two samples', () => {
  it('have the D that is read off their steps', () => {
    // Steps of the first: 1/4 after 1, 2/4 after 2, …; of the second 1/3 after 3.
    expect(statistics([1, 2, 3, 4], [3, 5, 6]).kolmogorovSmirnov).toBeCloseTo(1 - 1 / 3, 14);
    expect(statistics([1, 2, 3], [1, 2, 3]).kolmogorovSmirnov).toBe(0);
  });

  it('have an A² near Pettitt’s where there are no ties, and the same whichever is called the first', () => {
    for (const seed of [1, 2, 3]) {
      const [a, b] = [Array.from(normals(40, seed)), Array.from(normals(25, seed + 10, 0.4))];
      const { andersonDarling } = statistics(a, b);
      // Midranks put each value half below itself: the two differ by the order of 1/N.
      expect(Math.abs(andersonDarling - pettitt(a, b))).toBeLessThan(0.15 * (1 + pettitt(a, b)));
      expect(statistics(b, a).andersonDarling).toBeCloseTo(andersonDarling, 12);
    }
  });

  it('have the A² with midranks of Scholz and Stephens’ equation, computed by plain counting', () => {
    const [a, b] = [
      [1, 2, 2, 3, 5],
      [2, 3, 3, 4],
    ];
    const all = [...a, ...b];
    const values = [...new Set(all)].sort((x, y) => x - y);
    const n = all.length;
    let total = 0;
    for (const sample of [a, b]) {
      let inner = 0;
      for (const z of values) {
        const h = all.filter((x) => x === z).length;
        const below = all.filter((x) => x < z).length + h / 2;
        const own = sample.filter((x) => x < z).length + sample.filter((x) => x === z).length / 2;
        inner += ((h / n) * (n * own - sample.length * below) ** 2) / (below * (n - below) - (n * h) / 4);
      }
      total += inner / sample.length;
    }
    expect(statistics(a, b).andersonDarling).toBeCloseTo(((n - 1) / n) * total, 12);
  });

  it('have the p of all ways to part them', async () => {
    const [a, b] = [
      [1.2, 3.4, 2.2, 5.1],
      [4.4, 6.1, 5.1, 7.3, 6.6],
    ];
    const all = [...a, ...b];
    const observed = statistics(a, b);
    let [ways, byA2, byD] = [0, 0, 0];
    for (let mask = 0; mask < 2 ** 9; mask++) {
      const own = all.filter((_, i) => mask & (1 << i));
      if (own.length !== 4) continue;
      const found = statistics(
        own,
        all.filter((_, i) => !(mask & (1 << i))),
      );
      ways++;
      if (found.andersonDarling >= observed.andersonDarling - 1e-9) byA2++;
      if (found.kolmogorovSmirnov >= observed.kolmogorovSmirnov - 1e-9) byD++;
    }
    const result = await compared(a, b, { replicates: 40_000 });
    const exact = [byA2 / ways, byD / ways];
    result.tests.forEach(({ pSimulated }, k) => {
      const error = Math.sqrt((exact[k]! * (1 - exact[k]!)) / 40_000);
      expect(Math.abs(pSimulated!.pValue - exact[k]!)).toBeLessThan(4 * error + 1 / 40_000);
    });
  });

  it.each([
    [8, 8],
    [8, 30],
    [30, 30],
  ])('of %d and %d of one distribution differ at 5 % in 5 of 100', async (n1, n2) => {
    const samples = 300;
    const rejected = [0, 0];
    for (let s = 0; s < samples; s++) {
      // Rounded, so that there are ties.
      const [a, b] = [normals(n1, 2 * s + 1), normals(n2, 2 * s + 2)].map((x) => x.map((z) => Math.round(4 * z) / 4));
      const { tests } = await compared(a!, b!, { replicates: 199, seed: s });
      tests.forEach(({ pSimulated }, k) => {
        if (pSimulated!.pValue <= 0.05) rejected[k]!++;
      });
    }
    const error = Math.sqrt((0.05 * 0.95) / samples);
    for (const count of rejected) expect(count / samples).toBeLessThan(0.05 + 4 * error);
    // D of few readings has few values, and stays below its level.
    expect(rejected[0]! / samples).toBeGreaterThan(0.05 - 4 * error);
  });

  it('that differ in spread only are distinguished, by the tails', async () => {
    const result = await compared(normals(60, 1), normals(60, 2, 0, 3));
    expect(finding(result)).toContain('The distributions of south and north differ (A² = 3.07, p = 0.038).');
    expect(result.notes.map(({ code }) => code)).toContain('what-differs');
  });

  it('are laid against each other at the positions of the smaller, any n against any n', async () => {
    const [a, b] = [normals(9, 3).sort(), normals(400, 4).sort()];
    const { quantiles, samples } = await compared(a, b);
    expect(quantiles.shares).toEqual(Array.from({ length: 9 }, (_, i) => (i + 0.5) / 9));
    quantiles.first.forEach((x, i) => expect(x).toBeCloseTo(a[i]!, 12));
    // Of 400 the share 0.5/9 falls at rank 22.7: between the 22nd and the 23rd.
    const rank = (400 * 0.5) / 9 + 0.5;
    expect(quantiles.second[0]).toBeCloseTo(b[21]! + (rank - 22) * (b[22]! - b[21]!), 12);
    expect(samples.map(({ n }) => n)).toEqual([9, 400]);
    const many = await compared(normals(3_000, 5), normals(2_500, 6), { replicates: 199 });
    expect(many.quantiles.shares).toHaveLength(1_000);
  });

  it('are chosen by name, or are the first two that have readings', async () => {
    const parts = [named('a', []), named('b', [1, 2, 3]), named('c', [2, 3, 4, 5]), named('d', [9, 8, 7])];
    const told = async (settings: object) => {
      const result = await run(parts, settings);
      return isUnavailable(result) ? result.reason : (result as TwoSamplesResult).samples.map(({ name }) => name);
    };
    expect(await told({})).toEqual(['b', 'c']);
    expect(await told({ first: 'd' })).toEqual(['d', 'b']);
    expect(await told({ first: 'd', second: 'c' })).toEqual(['d', 'c']);
    expect(await told({ second: 'b' })).toEqual(['c', 'b']);
    expect(await told({ first: 'a' })).toContain('There are no readings in “a”. The groups are: b, c, d.');
    await expect(run(parts, { first: 'd', second: 'd' })).rejects.toThrow(/two different samples/);
    expect(await run([named('a', []), named('b', [1, 2])])).toMatchObject({ available: false });
  });

  it('say their method and their figures', async () => {
    const result = await compared([1, 2, 3], [2, 4, 6, 8]);
    expect(result.notes.map(({ code }) => code)).toContain('small-n');
    const request = twoSamplesAnalysis.resolve(
      twoSamplesAnalysis.request.parse({ column: 'south', beside: ['north'] }),
      samplesBeside([named('south', [1, 2, 3]), named('north', [2, 4, 6])]),
    );
    expect(methodOf(twoSamplesAnalysis, request)).toContain(
      'Quantile–quantile plot of south and north, test of equal distributions by the',
    );
    expect(twoSamplesFigures(result).map(({ texts }) => texts.length)).toEqual([2, 2, 2, 2, 2, 2]);
    expect(twoSamplesTests(result)[0]!.texts[1]).not.toBe('…');
    expect(twoSamplesTable(result)).toHaveLength(4);
    await expect(run([named('south', [1, 2])], { beside: undefined })).rejects.toThrow(/label column to split by/);
  });
});
