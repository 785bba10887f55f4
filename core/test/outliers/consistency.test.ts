import { describe, expect, it } from 'vitest';
import {
  cochran,
  cochranCritical,
  cochranP,
  hCritical,
  kCritical,
  simulateCochran,
} from '../../src/outliers/consistency.js';
import { influenceOf } from '../../src/outliers/influence.js';
import { typingSlips } from '../../src/outliers/typing-slips.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { relativeError } from '../reference.js';

describe('how groups agree', () => {
  it('has the critical values of Cochran’s C that tables print', () => {
    // Eisenhart, Hastay & Wallis (1947), 5 %: groups, readings in each, C.
    for (const [groups, n, printed] of [
      [2, 2, 0.9985],
      [3, 3, 0.8709],
      [5, 4, 0.5981],
      [10, 3, 0.445],
      [20, 2, 0.3894],
    ] as const)
      expect(Math.abs(cochranCritical(n, groups, 0.05) - printed), `${groups} groups of ${n}`).toBeLessThan(6e-4);
    for (const n of [2, 5, 40]) {
      const c = cochranCritical(n, 6, 0.05);
      expect(relativeError(cochranP(c, n, 6).pValue, 0.05)).toBeLessThan(1e-8);
    }
    expect(cochranP(1, 3, 4).pValue).toBe(0);
    expect([cochranP(0.6, 3, 4).exact, cochranP(0.4, 3, 4).exact]).toEqual([true, false]);
  });

  it('has the critical h that ISO 5725-2 prints', () => {
    // ISO 5725-2, critical h at 1 % and 5 %, by the number of laboratories.
    for (const [groups, one, five] of [
      [3, 1.15, 1.15],
      [5, 1.72, 1.57],
      [10, 2.18, 1.8],
    ] as const) {
      expect(Math.abs(hCritical(groups, 0.01) - one), `h of ${groups}`).toBeLessThan(0.0051);
      expect(Math.abs(hCritical(groups, 0.05) - five), `h of ${groups}`).toBeLessThan(0.0051);
    }
  });

  it('has one clean group beyond the critical h and k at their level', () => {
    const [samples, groups, n] = [20_000, 6, 3];
    const total = groups * (n - 1);
    const levels = [0.05, 0.01];
    const far = levels.map(() => [0, 0]);
    const limits = levels.map((level) => [hCritical(groups, level), kCritical(n - 1, total, level)]);
    const draws = new Float64Array(groups * n);
    const stream = createStream(77, 0);
    for (let r = 0; r < samples; r++) {
      fillNormals(stream, draws);
      const parts = Array.from({ length: groups }, (_, i) => Array.from(draws.subarray(i * n, i * n + n)));
      const means = parts.map((part) => part.reduce((a, b) => a + b) / n);
      const variances = parts.map((part, i) => part.reduce((sum, x) => sum + (x - means[i]!) ** 2, 0) / (n - 1));
      const mean = means.reduce((a, b) => a + b) / groups;
      const sd = Math.sqrt(means.reduce((sum, x) => sum + (x - mean) ** 2, 0) / (groups - 1));
      const h = Math.abs(means[0]! - mean) / sd;
      const k = Math.sqrt((variances[0]! * groups) / variances.reduce((a, b) => a + b));
      limits.forEach(([ofMean, ofSpread], i) => {
        if (h > ofMean!) far[i]![0]!++;
        if (k > ofSpread!) far[i]![1]!++;
      });
    }
    levels.forEach((level, i) => {
      for (const found of far[i]!)
        expect(Math.abs(found / samples - level)).toBeLessThan(4 * Math.sqrt((level * (1 - level)) / samples));
    });
  });

  it('rejects clean groups at the level, of equal or different sizes', () => {
    const replicates = 20_000;
    const level = (found: number) =>
      expect(Math.abs(found / replicates - 0.05)).toBeLessThan(4 * Math.sqrt((0.05 * 0.95) / replicates));
    const alike = simulateCochran({ sizes: [4, 4, 4, 4, 4] }, createStream(5, 0), replicates);
    const limit = cochranCritical(4, 5, 0.05);
    level(alike.filter((c) => c > limit).length);
    // Drawn as gammas, C has the law of the variances of normal readings.
    const sizes = [2, 5, 9];
    const drawn = simulateCochran({ sizes }, createStream(6, 0), replicates).sort();
    const stream = createStream(7, 0);
    const own = Float64Array.from({ length: 4_000 }, () => {
      const variances = sizes.map((n) => {
        const values = new Float64Array(n);
        fillNormals(stream, values);
        const mean = values.reduce((a, b) => a + b) / n;
        return values.reduce((sum, x) => sum + (x - mean) ** 2, 0) / (n - 1);
      });
      return cochran(variances).statistic;
    });
    const upper = drawn[Math.floor(0.9 * replicates)]!;
    const share = own.filter((c) => c > upper).length / own.length;
    expect(Math.abs(share - 0.1)).toBeLessThan(5 * Math.sqrt(0.1 * 0.9 * (1 / 4_000 + 1 / replicates)));
  });

  it('names the group with the greatest variance, and none where none has any', () => {
    expect(cochran([1, 4, 2])).toEqual({ statistic: 4 / 7, at: 1 });
    expect(cochran([0, 0]).statistic).toBe(0);
  });
});

describe('a reading left out', () => {
  it('moves mean and sd as leaving it out does', () => {
    const values = Float64Array.from([10_000_000.2, 10_000_000.1, 10_000_000.4, 10_000_000.3, 10_000_001.9]);
    const { mean, sd } = influenceOf(values);
    values.forEach((_, i) => {
      const rest = Array.from(values).filter((_unused, k) => k !== i);
      const own = rest.reduce((sum, x) => sum + (x - 1e7), 0) / rest.length;
      const spread = Math.sqrt(rest.reduce((sum, x) => sum + (x - 1e7 - own) ** 2, 0) / (rest.length - 1));
      expect(Math.abs(mean[i]! - 1e7 - own)).toBeLessThan(3e-9);
      expect(relativeError(sd[i]!, spread)).toBeLessThan(1e-8);
    });
  });

  it('that holds all the spread leaves none, to the last digit', () => {
    const { sd } = influenceOf(Float64Array.from([5, 5, 5, 9]));
    expect(sd[3]).toBe(0);
  });
});

describe('a slip of the hand', () => {
  const near = (middle: number, reach: number) => (x: number) => Math.abs(x - middle) <= reach;
  const kinds = (value: number, decimals: number, fits: (x: number) => boolean) =>
    typingSlips(value, decimals, fits).map(({ kind, value: mended }) => [kind, mended]);

  it.each<[number, number, number, number, string, number]>([
    [17.84, 3, 1.78, 0.15, 'decimal-point', 1.784],
    [0.802, 3, 8, 0.1, 'decimal-point', 8.02],
    [8.21, 2, 8.1, 0.05, 'digits-swapped', 8.12],
    [80.3, 1, 8, 0.1, 'decimal-point', 8.03],
    [8.02 / 25.4, 9, 8, 0.1, 'inch', 8.02],
    [203.708, 3, 8, 0.1, 'inch', 8.02],
    [8020, 0, 8, 0.1, 'thousand', 8.02],
    [115.2, 1, 15, 0.5, 'digit-twice', 15.2],
    [-8.02, 2, 8, 0.1, 'sign', 8.02],
  ])('%f beside readings near %f', (value, decimals, middle, reach, kind, mended) => {
    const found = kinds(value, decimals, near(middle, reach));
    expect(
      found.some(([k, x]) => k === kind && Math.abs((x as number) - mended) < 1e-9),
      JSON.stringify(found),
    ).toBe(true);
  });

  it('is not seen where no mended reading would be ordinary, nor twice', () => {
    expect(typingSlips(9.3, 2, near(8, 0.1))).toEqual([]);
    const found = typingSlips(80, 0, near(8, 0.1));
    expect(new Set(found.map(({ value }) => value)).size).toBe(found.length);
  });
});
