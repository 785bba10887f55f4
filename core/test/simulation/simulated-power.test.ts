import { describe, expect, it } from 'vitest';
import { inThisThread } from '../../src/analyses/registry.js';
import type { ClaimResult } from '../../src/analyses/claims/claim-result.js';
import { exactPowerOfTwoShares } from '../../src/claims/power-of-two-shares.js';
import { readingsFromWhichOn } from '../../src/claims/noticing.js';
import { tableIndependence } from '../../src/claims/counts.js';
import { tallyTables } from '../../src/claims/simulated-counts.js';
import { powerOfTable } from '../../src/claims/power-of-tables.js';
import { powerOfShare, powerOfTwoShares } from '../../src/claims/power-of-shares.js';
import { powerOfRankSum, powerOfSignedRanks } from '../../src/claims/power-of-shifts.js';
import { powerOfSeveralMedians, tallyWelch, welchContrast } from '../../src/claims/several-means.js';
import { fisherP } from '../../src/claims/shares.js';
import {
  countsModel,
  powerBySimulation,
  rankSumModel,
  severalMediansModel,
  signedRankModel,
} from '../../src/claims/simulated-power.js';
import { binomial } from '../../src/distributions/families/binomial.js';
import { hasNoSpread } from '../../src/numeric/no-spread.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream, nextOpenUnit } from '../../src/random/stream.js';
import type { Sample } from '../../src/readings/sample.js';
import { isUnavailable } from '../../src/road/analysis.js';
import { drive } from '../../src/road/runner.js';
import { sampleOf } from '../samples.js';

const grouped = (groups: readonly (readonly number[])[]): Sample => {
  const whole = sampleOf(Float64Array.from(groups.flat()));
  let at = 0;
  const samples = groups.map((values, i) => {
    const part = {
      ...sampleOf(Float64Array.from(values)),
      name: `g${i + 1}`,
      rows: whole.rows.slice(at, at + values.length),
    };
    at += values.length;
    return part;
  });
  return { ...whole, groups: { by: 'kiln', samples, without: 0 } };
};
const claimOf = (id: string, sample: Sample, settings: object = {}) =>
  drive(inThisThread, { id, request: { column: sample.name, split: 'kiln', ...settings }, sample });

describe('the power of rank tests', () => {
  it('is none where not even the most extreme order rejects: five signed ranks, three against three', () => {
    expect(powerBySimulation(signedRankModel(0.05, 'two-sided'), 0.05)(5, 9)).toBe(0);
    expect(powerBySimulation(rankSumModel(0.5, 0.05, 'two-sided'), 0.05)(6, 9)).toBe(0);
    expect(powerBySimulation(severalMediansModel([2, 2]), 0.05)(4, 99)).toBe(0);
  });

  it('of Kruskal and Wallis in three groups of three is that of the test, and not that of its limit', () => {
    const power = powerBySimulation(severalMediansModel([3, 3, 3]), 0.05)(9, 3);
    // An independent simulation of the test gave 0.63; the noncentral χ² says 0.906.
    expect(Math.abs(power - 0.63)).toBeLessThan(0.03);
    expect(powerOfSeveralMedians([3, 3, 3], 3, 0.05)).toBeGreaterThan(0.9);
  });

  it('is within 0.03 of the approximation that takes over beyond 60 and 120 readings', () => {
    const [signed, sums] = [
      powerBySimulation(signedRankModel(0.05, 'two-sided'), 0.05),
      powerBySimulation(rankSumModel(0.5, 0.05, 'two-sided'), 0.05),
    ];
    for (const d of [0.2, 0.35, 0.5, 0.8]) {
      expect(Math.abs(signed(60, d) - powerOfSignedRanks(60, d, 0.05, 'two-sided'))).toBeLessThan(0.03);
      expect(Math.abs(sums(60, d) - powerOfRankSum([30, 30], d, 0.05, 'two-sided'))).toBeLessThan(0.03);
    }
    const several = powerBySimulation(severalMediansModel([40, 40, 40]), 0.05);
    expect(Math.abs(several(120, 0.7) - powerOfSeveralMedians([40, 40, 40], 0.7, 0.05))).toBeLessThan(0.03);
  });
});

describe('the power of tests of counts', () => {
  it('of two proportions is the sum over the tables that Fisher’s test rejects', () => {
    const [n, m] = [9, 7];
    for (const alternative of ['two-sided', 'less', 'greater'] as const) {
      const power = exactPowerOfTwoShares(0.05, alternative)([n, m], [0.85, 0.3]);
      let sum = 0;
      for (let x = 0; x <= n; x++)
        for (let y = 0; y <= m; y++)
          if (
            fisherP(
              [
                [x, n - x],
                [y, m - y],
              ],
              alternative,
            ) < 0.05
          )
            sum +=
              binomial.of({ trials: n, probability: 0.85 }).density(x) *
              binomial.of({ trials: m, probability: 0.3 }).density(y);
      expect(power).toBeCloseTo(sum, 10);
    }
  });

  it('of two proportions is within 0.03 of the approximation that takes over beyond 500', () => {
    const exact = exactPowerOfTwoShares(0.05, 'two-sided');
    for (const d of [0.03, 0.06, 0.1, 0.15])
      expect(
        Math.abs(exact([500, 500], [0.3 + d, 0.3]) - powerOfTwoShares([500, 500], [0.3 + d, 0.3], 0.05, 'two-sided')),
      ).toBeLessThan(0.03);
  });

  it('goes up and down with n: the number from which it stays above the target is told apart from the first', () => {
    const power = (n: number) => powerOfShare(n, 0.1, 0.2, 0.05, 'greater');
    const { always, first } = readingsFromWhichOn(power, 400, 1)!;
    expect(first).toBeLessThan(always);
    expect(power(first)).toBeGreaterThanOrEqual(0.8);
    expect(power(always - 1)).toBeLessThan(0.8);
    for (let n = always; n < always + 300; n++) expect(power(n)).toBeGreaterThanOrEqual(0.8);
  });

  it('of χ² over few counts is simulated: 20 counts over three categories', () => {
    const power = powerBySimulation(countsModel([0.2, 0.3, 0.5]), 0.05);
    expect(power(20, 0)).toBeLessThan(0.06);
    expect(power(200, 0.2)).toBeGreaterThan(0.99);
  });
});

describe('the power of the test of a table', () => {
  /** How often a test rejects tables of rows with these totals, half independence and half one column for each row. */
  const rejected = (sizes: readonly number[], part: number, pOf: (table: number[][]) => number) => {
    const stream = createStream(5, 1);
    const tables = 1_000;
    let found = 0;
    for (let r = 0; r < tables; r++) {
      const table = sizes.map((size, i) => {
        const row = sizes.map(() => 0);
        for (let k = 0; k < size; k++)
          row[nextOpenUnit(stream) < part ? i : Math.floor(nextOpenUnit(stream) * sizes.length)]!++;
        return row;
      });
      if (pOf(table) < 0.05) found++;
    }
    return found / tables;
  };
  const permuted = (table: number[][]) => {
    const sums = (rows: number[][]) => rows.map((row) => row.reduce((a, b) => a + b, 0));
    const columns = sums(table[0]!.map((_, j) => table.map((row) => row[j]!)));
    const kept = columns.map((_, j) => j).filter((j) => columns[j]! > 0);
    const { statistic } = tableIndependence(table.map((row) => kept.map((j) => row[j]!)));
    const input = { rows: sums(table), columns: kept.map((j) => columns[j]!), observed: statistic };
    return (tallyTables(input, createStream(9, 1), 199)[0]! + 1) / 200;
  };

  it('is that of the very test: permuted p of small tables, Fisher’s, and the curve', () => {
    const margins = (size: number, k: number) => ({ rows: Array(k).fill(size), columns: Array(k).fill(size) });
    const [few, square, many] = [
      powerOfTable(margins(6, 3), 'permuted', 0.05),
      powerOfTable(margins(12, 2), 'exact', 0.05),
      powerOfTable(margins(30, 3), 'curve', 0.05),
    ];
    expect(few.most).toBeCloseTo(1, 12);
    const edgeOfPermuted = powerOfTable(margins(16, 4), 'permuted', 0.05);
    const ways = [
      [few.chanceAt(18, 0.5), rejected([6, 6, 6], 0.5, permuted)],
      [edgeOfPermuted.chanceAt(64, 0.3), rejected([16, 16, 16, 16], 0.3, permuted)],
      [square.chanceAt(24, 0.5), rejected([12, 12], 0.5, (table) => fisherP(table as never, 'two-sided'))],
      [many.chanceAt(90, 0.3), rejected([30, 30, 30], 0.3, (table) => tableIndependence(table).pAsymptotic)],
    ] as const;
    // Standard errors: 0.011 of the power, 0.016 of the tables.
    for (const [told, found] of ways) expect(Math.abs(told - found), `${told} for ${found}`).toBeLessThan(0.06);
    // Simulation and the noncentral χ² that takes over meet.
    const edge = powerOfTable(margins(250, 4), 'curve', 0.05);
    for (const v of [0.04, 0.06, 0.08])
      expect(Math.abs(edge.chanceAt(1_000, v) - edge.chanceAt(1_001, v)), `V = ${v}`).toBeLessThan(0.03);
  });
});

describe('Welch’s F in small groups', () => {
  it('keeps its level by the parametric bootstrap: at most 6 % in eight designs', () => {
    const designs = [
      [5, 2],
      [10, 2],
      [20, 2],
      [10, 3],
      [10, 4],
      [10, 5],
      [20, 5],
      [10, 10],
    ] as const;
    for (const [k, n] of designs) {
      const samples = 150;
      let rejected = 0;
      for (let seed = 1; seed <= samples; seed++) {
        const stream = createStream(seed, 3);
        const figures = Array.from({ length: k }, () => {
          const values = new Float64Array(n);
          fillNormals(stream, values);
          const mean = values.reduce((a, b) => a + b) / n;
          return { n, mean, sd: Math.sqrt(values.reduce((a, x) => a + (x - mean) ** 2, 0) / (n - 1)) };
        });
        const input = { sizes: figures.map((one) => one.n), sds: figures.map(({ sd }) => sd) };
        const [far] = tallyWelch({ ...input, observed: welchContrast(figures) }, createStream(1, 0), 399);
        if ((far! + 1) / 400 < 0.05) rejected++;
      }
      // 6 %, and two standard deviations of 150 samples.
      expect(rejected / samples, `${k} groups of ${n}`).toBeLessThan(0.06 + 2 * Math.sqrt((0.06 * 0.94) / samples));
    }
  });

  it('is used where a group has fewer than ten, with the p of the F curve beside it', async () => {
    const few = grouped([
      [1, 2, 4],
      [2, 3, 7],
      [5, 6, 9],
    ]);
    const result = (await claimOf('several-means', few, { replicates: 999 })) as ClaimResult;
    expect(result).toMatchObject({ pMethod: 'simulated' });
    expect(result.pValue).toBe(result.pSimulated!.pValue);
    expect(result.extras.map(({ key }) => key)).toContain('p-curve');
    const many = grouped([0, 1, 2].map((k) => Array.from({ length: 10 }, (_, i) => k + Math.sin(7 * i + k))));
    expect(await claimOf('several-means', many)).toMatchObject({ pMethod: 'asymptotic', pSimulated: null });
  });
});

describe('no spread but for rounding', () => {
  it('is told of values, and of differences beside the readings they were taken from', () => {
    expect(hasNoSpread([0.3, 0.3, 0.3])).toBe(true);
    expect(hasNoSpread([0.3 - 0.2, 0.4 - 0.3, 0.5 - 0.4], 0.5)).toBe(true);
    expect(hasNoSpread([1e9 + 0.1, 1e9])).toBe(false);
    expect(hasNoSpread([1e-300, 2e-300])).toBe(false);
  });

  it('leaves Brown–Forsythe without an answer: two readings in each group', async () => {
    const pairs = grouped([
      [0.1, 0.4],
      [0.2, 0.9],
      [0.3, 0.35],
    ]);
    const result = await claimOf('several-spreads', pairs);
    expect(isUnavailable(result) && result.reason).toContain(
      'All readings lie at the same distance from the median of their group, so the',
    );
  });

  it('leaves the paired t without an answer: all differences equal as written', async () => {
    const sample = grouped([
      [0.3, 0.4, 0.5, 1.1],
      [0.2, 0.3, 0.4, 1.0],
    ]);
    const aligned = sample.groups!.samples.map((part) => ({ ...part, rows: Int32Array.of(1, 2, 3, 4) }));
    const paired = { ...sample, groups: { ...sample.groups!, by: null, samples: aligned } };
    const request = { column: 'g1', beside: ['g2'], method: 'paired' };
    const result = await drive(inThisThread, { id: 'two-means', request, sample: paired });
    expect(isUnavailable(result) && result.reason).toContain('differences of the pairs are equal');
  });
});
