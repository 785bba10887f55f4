import { describe, expect, it } from 'vitest';
import { quartilesOfSorted } from '../../src/describe/quantiles.js';
import { dixon, dixonAt, dixonRatioFor } from '../../src/outliers/dixon.js';
import { endsOf, esdCritical, generalizedEsd, mostSteps } from '../../src/outliers/generalized-esd.js';
import { greatestScore, grubbs, grubbsCritical, grubbsP } from '../../src/outliers/grubbs.js';
import { pairOnSide, pairRatio, rangeOverSd } from '../../src/outliers/pairs.js';
import {
  createDistances,
  needsOrder,
  OUTLIER_STATISTICS,
  type OutlierStatistic,
} from '../../src/outliers/distances.js';
import { namedBy } from '../../src/outliers/named.js';
import { simulateOutliers, type OutlierReplicates } from '../../src/outliers/replicates.js';
import {
  FAR_FENCE,
  FENCE,
  fencePlace,
  modifiedZ,
  MODIFIED_Z_LIMIT,
  robustScale,
  Z_LIMIT,
} from '../../src/outliers/screens.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { column, reference, relativeError } from '../reference.js';

interface Reference {
  columns: Record<
    string,
    {
      grubbs: OneSide & { value: number; upper: OneSide; lower: OneSide };
      generalizedEsd: {
        most: number;
        alpha: number;
        steps: { statistic: number; critical: number; value: number }[];
        count: number;
      } | null;
      pairs: { upperPair: number; lowerPair: number; rangeOverSd: number } | null;
      dixon: { ratio: string; upper: number; lower: number } | null;
      modifiedZ: { madIsZero: boolean; largest: number; above: number };
    }
  >;
  grubbsCritical: { n: number; alpha: number; twoSided: number; oneSided: number }[];
  dixonCritical: { n: number; alpha: number; ratio: string; value: number; interval: [number, number] }[];
  pairCritical: { n: number; alpha: number; upperPair: Found; rangeOverSd: Found }[];
  falseAlarms: Record<string, { fences: number; modifiedZ: number; zScore: number; replicates: number }>;
}
interface Found {
  value: number;
  interval: [number, number];
}
interface OneSide {
  statistic: number;
  pFormula: number;
}
const { columns, grubbsCritical: critical, ...simulated } = reference<Reference>('outliers');
const sortedColumn = (name: string) => column(name).slice().sort();
const NAMES = Object.keys(columns);

function normals(n: number, seed: number): Float64Array {
  const values = new Float64Array(n);
  fillNormals(createStream(seed, 0), values);
  return values.sort();
}

describe('Grubbs', () => {
  it.each(NAMES)('has the statistic and the p of the reference for %s, on both sides and on each', (name) => {
    const sorted = sortedColumn(name);
    const n = sorted.length;
    const { grubbs: found } = columns[name]!;
    for (const [side, expected] of [
      ['either', found],
      ['upper', found.upper],
      ['lower', found.lower],
    ] as const) {
      const { statistic, at } = grubbs(sorted, side);
      expect(relativeError(statistic, expected.statistic)).toBeLessThan(1e-12);
      expect(relativeError(grubbsP(statistic, n, side).pValue, expected.pFormula)).toBeLessThan(1e-9);
      if (side === 'either') expect(sorted[at]).toBe(found.value);
    }
  });

  it('has the critical values of the reference to n = 10 000, and its p is the level there', () => {
    for (const { n, alpha, twoSided, oneSided } of critical) {
      expect(relativeError(grubbsCritical(n, alpha, 'either'), twoSided)).toBeLessThan(1e-9);
      expect(relativeError(grubbsCritical(n, alpha, 'upper'), oneSided)).toBeLessThan(1e-9);
      expect(relativeError(grubbsP(twoSided, n, 'either').pValue, alpha)).toBeLessThan(1e-6);
    }
    // No table ends here.
    for (const n of [3, 10_000, 100_000]) {
      const g = grubbsCritical(n, 0.05, 'either');
      expect(g).toBeLessThan(greatestScore(n));
      expect(relativeError(grubbsP(g, n, 'either').pValue, 0.05)).toBeLessThan(1e-6);
    }
  });

  it('says when its p is exact: then no two readings can be so extreme', () => {
    // Two on opposite sides, all others at the mean: G² = (n − 1)/2.
    const n = 10;
    const apart = Float64Array.from([-1, ...new Array<number>(8).fill(0), 1]);
    const { statistic } = grubbs(apart, 'either');
    expect(statistic ** 2).toBeCloseTo((n - 1) / 2, 12);
    expect(grubbsP(statistic * 1.0001, n, 'either').exact).toBe(true);
    expect(grubbsP(statistic * 0.9999, n, 'either').exact).toBe(false);
    // Two on one side, the others sharing the counterweight.
    const together = Float64Array.from([...new Array<number>(8).fill(-0.25), 1, 1]);
    const { statistic: g } = grubbs(together, 'upper');
    expect(g ** 2).toBeCloseTo(((n - 1) * (n - 2)) / (2 * n), 12);
    expect(grubbsP(g * 1.0001, n, 'upper').exact).toBe(true);
    expect(grubbsP(g * 0.9999, n, 'upper').exact).toBe(false);
  });

  it('is exact where it says so, and an upper bound elsewhere: by simulation', () => {
    for (const n of [10, 40]) {
      const samples = 20_000;
      const limit = grubbsCritical(n, 0.05, 'either');
      let far = 0;
      for (let k = 0; k < samples; k++) if (grubbs(normals(n, 7_000 + k), 'either').statistic >= limit) far++;
      expect(grubbsP(limit, n, 'either').exact).toBe(n === 10);
      expect(Math.abs(far / samples - 0.05)).toBeLessThan(4 * Math.sqrt((0.05 * 0.95) / samples));
    }
  });

  it('answers for the greatest G there can be, for two equally far, and for all but one alike', () => {
    const one = Float64Array.from([1, 1, 1, 1, 5]);
    const { statistic, at } = grubbs(one, 'either');
    expect([statistic, at]).toEqual([expect.closeTo(greatestScore(5), 12), 4]);
    expect(grubbsP(greatestScore(5), 5, 'either').pValue).toBeLessThan(1e-6);
    expect(grubbs(Float64Array.from([-3, -1, 0, 1, 3]), 'either').at).toBe(4);
    expect(grubbs(Float64Array.from([-3, -1, 0, 1, 3]), 'lower').at).toBe(0);
  });
});

describe('pairs, Dixon and the generalised ESD', () => {
  it.each(NAMES)('are those of the reference for %s', (name) => {
    const sorted = sortedColumn(name);
    const { pairs, dixon: ratio, generalizedEsd: esd } = columns[name]!;
    if (pairs) {
      expect(relativeError(pairRatio(sorted, 'upper'), pairs.upperPair)).toBeLessThan(1e-11);
      expect(relativeError(pairRatio(sorted, 'lower'), pairs.lowerPair)).toBeLessThan(1e-11);
      expect(relativeError(rangeOverSd(sorted), pairs.rangeOverSd)).toBeLessThan(1e-12);
    }
    expect(dixonRatioFor(sorted.length)).toBe(ratio?.ratio ?? null);
    if (ratio) {
      const of = dixonRatioFor(sorted.length)!;
      expect(relativeError(dixonAt(sorted, of, 'upper'), ratio.upper)).toBeLessThan(1e-12);
      expect(relativeError(dixonAt(sorted, of, 'lower'), ratio.lower)).toBeLessThan(1e-12);
      expect(dixon(sorted, of, 'either').statistic).toBe(
        Math.max(...(['upper', 'lower'] as const).map((end) => dixonAt(sorted, of, end))),
      );
    }
    if (!esd) return;
    const found = generalizedEsd(sorted, esd.most, esd.alpha, 'either');
    expect(found.count).toBe(esd.count);
    expect(found.steps).toHaveLength(esd.steps.length);
    found.steps.forEach(({ statistic, critical: limit, at }, i) => {
      const expected = esd.steps[i]!;
      expect(relativeError(statistic, expected.statistic)).toBeLessThan(1e-10);
      expect(relativeError(limit, expected.critical)).toBeLessThan(1e-9);
      expect(sorted[at]).toBe(expected.value);
    });
  });

  it('find Rosner’s (1983) three among 54, where two stay below their values and the third is above', () => {
    const rosner = [
      -0.25, 0.68, 0.94, 1.15, 1.2, 1.26, 1.26, 1.34, 1.38, 1.43, 1.49, 1.49, 1.55, 1.56, 1.58, 1.65, 1.69, 1.7, 1.76,
      1.77, 1.81, 1.91, 1.94, 1.96, 1.99, 2.06, 2.09, 2.1, 2.14, 2.15, 2.23, 2.24, 2.26, 2.35, 2.37, 2.4, 2.47, 2.54,
      2.62, 2.64, 2.9, 2.92, 2.92, 2.93, 3.21, 3.26, 3.3, 3.59, 3.68, 4.3, 4.64, 5.34, 5.42, 6.01,
    ];
    const { steps, count } = generalizedEsd(Float64Array.from(rosner), 10, 0.05, 'either');
    expect(count).toBe(3);
    // As printed, the last digit cut off.
    const printed = [3.118, 2.942, 3.179, 2.81];
    const limits = [3.159, 3.151, 3.144, 3.136];
    steps.slice(0, 4).forEach(({ statistic, critical: limit }, i) => {
      expect(Math.abs(statistic - printed[i]!)).toBeLessThan(1.5e-3);
      expect(Math.abs(limit - limits[i]!)).toBeLessThan(1.5e-3);
    });
  });

  it('have Grubbs as their first step, on both sides', () => {
    for (const side of ['either', 'upper', 'lower'] as const)
      for (const n of [4, 12, 300])
        expect(relativeError(esdCritical(n, 1, 0.05, side), grubbsCritical(n, 0.05, side))).toBeLessThan(1e-12);
  });

  it('end where what is left has no spread, and leave at least three readings', () => {
    expect(mostSteps(5)).toBe(2);
    const { steps, count } = generalizedEsd(Float64Array.from([1, 1, 1, 1, 1, 9, 9.5]), 4, 0.05, 'either');
    expect(steps.map(({ at }) => at)).toEqual([6, 5]);
    expect(count).toBeLessThanOrEqual(2);
    expect(dixonAt(Float64Array.from([1, 1, 1, 1]), 'r10', 'upper')).toBe(0);
    expect(dixonRatioFor(31)).toBeNull();
    // Whichever end, and crossing the middle: the ends are counted as the steps go.
    const lopsided = generalizedEsd(Float64Array.from([1, 1.1, 1.2, 5, 6, 7, 8, 9]), 5, 0.99, 'upper');
    expect(endsOf({ steps: lopsided.steps, count: 5 })).toEqual({ low: 0, high: 5 });
  });
});

describe('rules of thumb', () => {
  it.each(NAMES)('have the modified z of the reference for %s', (name) => {
    const sorted = sortedColumn(name);
    const { madIsZero, largest, above } = columns[name]!.modifiedZ;
    const scale = robustScale(sorted);
    expect(scale.madIsZero).toBe(madIsZero);
    const scores = Array.from(sorted, (x) => Math.abs(modifiedZ(x, scale)));
    expect(relativeError(Math.max(...scores), largest)).toBeLessThan(1e-12);
    expect(scores.filter((z) => z > MODIFIED_Z_LIMIT)).toHaveLength(above);
  });

  it('fall back on the mean deviation where half of the readings are alike', () => {
    const sorted = Float64Array.from([5, 5, 5, 5, 5, 6, 8]);
    const scale = robustScale(sorted);
    expect(scale.madIsZero).toBe(true);
    expect(modifiedZ(8, scale)).toBeCloseTo(3 / (1.253314 * (4 / 7)), 12);
  });

  it('distinguish inside, outside and beyond the outer fence for every definition of quartiles', () => {
    const sorted = Float64Array.from([1, 2, 3, 4, 5, 6, 7]);
    const quartiles = quartilesOfSorted(sorted, 7);
    expect(quartiles).toEqual([2.5, 5.5]);
    expect([10, 10.01, 14.5, 14.6, -2, -2.1].map((x) => fencePlace(x, quartiles))).toEqual([
      ...['inside', 'outside', 'outside', 'far', 'inside', 'outside'],
    ]);
    expect(FAR_FENCE).toBe(3);
    // Without a quartile range every other reading is far.
    expect([5, 5.1].map((x) => fencePlace(x, [5, 5]))).toEqual(['inside', 'far']);
  });
});

const PLAIN: Omit<OutlierReplicates, 'n' | 'which'> = {
  ...{ side: 'either', extremes: 0, law: null, rounding: null, most: 1, alpha: 0.05, quartiles: 7 },
};
/** The statistics of so many clean samples, each in rising order. */
function simulatedColumns(
  n: number,
  which: readonly OutlierStatistic[],
  replicates: number,
  more: object = {},
): Float64Array[] {
  const found = simulateOutliers({ ...PLAIN, ...more, n, which }, createStream(n, 3), replicates);
  return which.map((_, k) =>
    Float64Array.from({ length: replicates }, (_unused, r) => found[r * which.length + k]!).sort(),
  );
}
const shareAbove = (sorted: Float64Array, limit: number) => sorted.filter((x) => x > limit).length / sorted.length;

describe('the fast way', () => {
  const plain: Record<OutlierStatistic, (sorted: Float64Array, side: 'either' | 'upper' | 'lower') => number> = {
    grubbs: (sorted, side) => grubbs(sorted, side).statistic,
    'pair-same-end': (sorted, side) => 1 - pairOnSide(sorted, side).statistic,
    'pair-both-ends': (sorted) => rangeOverSd(sorted),
    dixon: (sorted, side) => dixon(sorted, dixonRatioFor(sorted.length)!, side).statistic,
    'generalized-esd': (sorted, side) =>
      Math.max(
        ...generalizedEsd(sorted, 4, 0.05, side).steps.map(({ statistic, critical: limit }) => statistic / limit),
      ),
    'modified-z': (sorted, side) => {
      const scale = robustScale(sorted);
      const [low, high] = [-modifiedZ(sorted[0]!, scale), modifiedZ(sorted.at(-1)!, scale)];
      return side === 'either' ? Math.max(low, high) : side === 'upper' ? high : low;
    },
    fences: (sorted, side) => {
      const [q1, q3] = quartilesOfSorted(sorted, 7);
      const [low, high] = [(q1 - sorted[0]!) / (q3 - q1), (sorted.at(-1)! - q3) / (q3 - q1)];
      return Math.max(0, side === 'either' ? Math.max(low, high) : side === 'upper' ? high : low);
    },
  };
  it.each(['either', 'upper', 'lower'] as const)('gives what the rules give as they are written, side %s', (side) => {
    for (const n of [4, 7, 12, 30])
      for (let seed = 1; seed <= 20; seed++) {
        const sorted = normals(n, 900 * n + seed);
        const out = new Float64Array(OUTLIER_STATISTICS.length);
        createDistances(n, OUTLIER_STATISTICS, { side, most: 4, alpha: 0.05, quartiles: 7 })(sorted, out, 0);
        OUTLIER_STATISTICS.forEach((one, k) => {
          expect(Math.abs(out[k]! - plain[one](sorted, side)), `${one}, n = ${n}`).toBeLessThan(1e-9);
        });
      }
  });

  it('asks for order only where a rule looks beyond the two ends', () => {
    expect([needsOrder(['grubbs', 'pair-both-ends']), needsOrder(['grubbs', 'dixon'])]).toEqual([false, true]);
  });
});

describe('what a rule names', () => {
  const sorted = Float64Array.from([1, 9.8, 9.9, 10, 10, 10.1, 10.2, 14, 15]);
  const judging = { side: 'either', quartiles: 7 } as const;
  it('comes from the ends inwards', () => {
    expect(namedBy('grubbs', sorted, 2, judging)).toEqual({ low: 1, high: 0 });
    expect(namedBy('grubbs', sorted, 2, { ...judging, side: 'upper' })).toEqual({ low: 0, high: 0 });
    expect(namedBy('pair-same-end', sorted, 1, judging)).toEqual({ low: 2, high: 0 });
    expect(namedBy('pair-both-ends', sorted, 3, judging)).toEqual({ low: 1, high: 1 });
    expect(namedBy('dixon', sorted, 0.5, judging)).toEqual({ low: 1, high: 0 });
    expect(namedBy('modified-z', sorted, 0, judging)).toEqual({ low: 1, high: 2 });
    expect(namedBy('fences', sorted, 0, { ...judging, side: 'upper' })).toEqual({ low: 0, high: 2 });
    expect(namedBy('z-score', sorted, 0, judging)).toEqual({ low: 0, high: 0 });
  });

  it('by the generalised ESD goes as far as the last step above its value', () => {
    const limits = [9, 9, 2, 9];
    expect(namedBy('generalized-esd', sorted, limits, judging)).toEqual({ low: 1, high: 2 });
    expect(namedBy('generalized-esd', sorted, [9, 9], judging)).toEqual({ low: 0, high: 0 });
  });

  it('is nothing of readings that are all alike', () => {
    expect(namedBy('fences', Float64Array.from([2, 2, 2]), 0, judging)).toEqual({ low: 0, high: 0 });
  });
});

describe('clean samples', () => {
  it('exceed the critical values of the reference at the level', () => {
    const replicates = 20_000;
    const close = (share: number, level: number) =>
      expect(Math.abs(share - level)).toBeLessThan(5 * Math.sqrt((level * (1 - level)) / replicates));
    for (const { n, alpha, value } of simulated.dixonCritical) {
      // The critical values of the reference are one-sided.
      const [ratios] = simulatedColumns(n, ['dixon'], replicates, { side: 'upper' });
      close(shareAbove(ratios!, value), alpha);
    }
    for (const { n, alpha, upperPair, rangeOverSd: range } of simulated.pairCritical) {
      const [upper] = simulatedColumns(n, ['pair-same-end'], replicates, { side: 'upper' });
      const [both] = simulatedColumns(n, ['pair-both-ends'], replicates);
      close(shareAbove(upper!, 1 - upperPair.value), alpha);
      close(shareAbove(both!, range.value), alpha);
    }
  });

  it('trigger the rules of thumb at the rates of the reference', () => {
    for (const [size, { fences, modifiedZ: robust, zScore, replicates: theirs }] of Object.entries(
      simulated.falseAlarms,
    )) {
      const replicates = 8_000;
      const [far, mad, z] = simulatedColumns(Number(size), ['fences', 'modified-z', 'grubbs'], replicates);
      const shares = [
        [shareAbove(far!, FENCE), fences],
        [shareAbove(mad!, MODIFIED_Z_LIMIT), robust],
        [shareAbove(z!, Z_LIMIT), zScore],
      ];
      for (const [found, expected] of shares)
        expect(Math.abs(found! - expected!)).toBeLessThan(
          4 * Math.sqrt(expected! * (1 - expected!) * (1 / replicates + 1 / theirs)) + 1e-9,
        );
    }
  });

  it('have anything named by the generalised ESD at its level, whatever the maximum number of outliers', () => {
    const replicates = 6_000;
    for (const n of [25, 50])
      for (const most of [1, 3, 5]) {
        const [steps] = simulatedColumns(n, ['generalized-esd'], replicates, { most });
        const found = shareAbove(steps!, 1);
        const error = 4 * Math.sqrt((0.05 * 0.95) / replicates);
        // Rosner's approximation is a little generous to several of few; the analysis allows for that.
        if (n > 25 || most === 1) expect(Math.abs(found - 0.05)).toBeLessThan(error);
        else expect(found).toBeLessThan(0.065);
      }
  });

  it('of a gamma are judged by normal scores', () => {
    const fitting = { family: 'gamma', given: {}, estimateThreshold: false };
    const law = { fitting, parameters: { shape: 2, scale: 1 }, step: null };
    const [scores] = simulatedColumns(30, ['grubbs'], 1_000, { law });
    const [plain] = simulatedColumns(30, ['grubbs'], 4_000);
    // Fitted anew each time, both hold their farthest reading about 2.6 sd out.
    expect(Math.abs(scores![500]! - plain![2_000]!)).toBeLessThan(0.15);
  });

  it('that rounding has left without spread have no outlier', () => {
    const fitting = { family: 'gamma', given: {}, estimateThreshold: false };
    const law = { fitting, parameters: { shape: 2, scale: 1 }, step: 1_000 };
    const [g, pair] = simulatedColumns(5, ['grubbs', 'pair-same-end'], 200, { law });
    expect([g![0], pair![199]]).toEqual([0, 0]);
  });
});
