import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pOfTails, type Alternative } from '../../src/claims/alternative.js';
import { countsAgainst, exactCountsP, tableIndependence, tablesOf } from '../../src/claims/counts.js';
import { equivalenceP, meanByT, meanByZ, meanInterval, pOfMean, pooled, welch } from '../../src/claims/means.js';
import { noncentralT } from '../../src/claims/noncentral-t.js';
import { designOfOne, designOfTwo, powerOfT, readingsNeeded, smallestNoticeable } from '../../src/claims/power-of-t.js';
import { tukeyKramer } from '../../src/claims/pairs-of-means.js';
import {
  doubledRanks,
  kruskalWallis,
  signedRank,
  signedRankByNormal,
  signTest,
  walshCentre,
} from '../../src/claims/ranks.js';
import { hodgesLehmann, mannWhitneyByNormal, mannWhitneyExact, mannWhitneyU } from '../../src/claims/rank-sum.js';
import { fisherP, newcombe, rateInterval, rateP, shareP, wilson } from '../../src/claims/shares.js';
import { brownForsythe, oneWay, spreadByChiSquare, spreadsByF } from '../../src/claims/spreads.js';
import { studentisedRange } from '../../src/claims/studentised-range.js';
import { confidenceOfExtremes, oneSidedFactor, twoSidedFactor } from '../../src/claims/tolerance.js';
import { chiSquare } from '../../src/distributions/families/chi-square.js';
import { studentT } from '../../src/distributions/families/student-t.js';
import { clopperPearson } from '../../src/numeric/clopper-pearson.js';
import { integrate, worthwhile } from '../../src/numeric/integrate.js';
import { centralMoments } from '../../src/numeric/sums.js';
import { normalCumulative } from '../../src/numeric/standard-normal.js';
import { column, reference, relativeError } from '../reference.js';

type P = Record<Alternative, number>;
interface OneColumn {
  mean: { null: number; statistic: number; df: number; pValue: P; interval95: [number, number] };
  spread: { nullSd: number; statistic: number; df: number; pValue: P };
  median: {
    null: number;
    sign: { above: number; below: number; pValue: P };
    signedRank: { statistic: number; n: number; pExact: P };
  };
}
interface TwoGroups {
  a: number[];
  b: number[];
  welch: { statistic: number; df: number; pValue: P; interval95: [number, number] };
  pooled: { statistic: number; df: number; pValue: number };
  f: { statistic: number; pValue: P };
  brownForsythe: { statistic: number; pValue: number };
  mannWhitney: { u: number; pNormalWithCorrections: P };
}
interface Share {
  count: number;
  n: number;
  null: number;
  pValue: P;
  clopperPearson95: [number, number];
  wilson95: [number, number];
}
interface Counts {
  observed: number[];
  shares: number[];
  expected: number[];
  contributions: number[];
  standardised: number[];
  statistic: number;
  df: number;
  pAsymptotic: number;
  pExact?: number;
}
interface Claims {
  twoGroups: TwoGroups[];
  paired: { a: number[]; b: number[]; statistic: number; pValue: number }[];
  share: Share[];
  rate: { count: number; exposure: number; null: number; pValue: P; interval95: [number, number] }[];
  counts: Counts[];
  table: {
    table: number[][];
    statistic: number;
    df: number;
    pAsymptotic: number;
    cramersV: number;
    fisher?: P;
  }[];
  several: {
    groups: number[][];
    oneWay: { statistic: number; pValue: number };
    kruskalWallis: { statistic: number; pAsymptotic: number };
    tukeyKramer: { i: number; j: number; pValue: number }[];
    brownForsythe: number;
  };
  tolerance: { n: number; share: number; confidence: number; oneSided: number; twoSided: number }[];
  noncentralT: { df: number; delta: number; x: number; cumulative: number }[];
  studentisedRange: { k: number; df: number; q: number; survival: number }[];
}
const known = reference<Claims & Record<string, OneColumn>>('claims');
const COLUMNS = ['small-normal', 'normal-40', 'right-skew-50', 'one-far-25', 'coarse-60'] as const;
const ALTERNATIVES = ['two-sided', 'less', 'greater'] as const;
const figures = (values: ArrayLike<number>) => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
};
const close = (found: number, expected: number, tolerance = 1e-9) =>
  expect(relativeError(found, expected), `${found} for ${expected}`).toBeLessThan(tolerance);
const closeP = (p: (alternative: Alternative) => number, expected: P) => {
  for (const alternative of ALTERNATIVES) close(p(alternative), expected[alternative]);
};

describe('the interval of the centre by signed ranks', () => {
  it('beyond the exact sample size contains the centres that the test does not reject', () => {
    const values = Float64Array.from({ length: 240 }, (_, i) => Math.sin(i * 12.9898) + ((i * 0.618034) % 1));
    const { lower, upper } = walshCentre(values, 0.95, 'two-sided').interval;
    const p = (centre: number) => {
      const { tails } = signedRankByNormal(values, centre);
      return 2 * Math.min(tails.lower, tails.upper);
    };
    for (const [end, outwards] of [
      [lower!, -1],
      [upper!, 1],
    ] as const) {
      expect(p(end + outwards * 0.002)).toBeLessThan(0.05);
      expect(p(end - outwards * 0.002)).toBeGreaterThan(0.05);
    }
  });
});

describe('a claim about one column', () => {
  it.each(COLUMNS)('has mean, spread and medians of the reference for %s', (name) => {
    const values = column(name);
    const { mean, spread, median } = known[name]!;
    const own = figures(values);
    const byT = meanByT(own, mean.null);
    close(byT.statistic, mean.statistic);
    expect(byT.df).toBe(mean.df);
    closeP((alternative) => pOfMean(byT, alternative), mean.pValue);
    const { lower, upper } = meanInterval(own.mean, byT, 0.95, 'two-sided');
    close(lower!, mean.interval95[0]);
    close(upper!, mean.interval95[1]);

    const byChi = spreadByChiSquare(own.n, own.sd, spread.nullSd);
    close(byChi.statistic, spread.statistic);
    closeP((alternative) => pOfTails(byChi.tails, alternative), spread.pValue);

    const sign = signTest(values, median.null);
    expect([sign.above, sign.below]).toEqual([median.sign.above, median.sign.below]);
    closeP((alternative) => pOfTails(sign.tails, alternative), median.sign.pValue);
    const rank = signedRank(values, median.null);
    expect(rank.n).toBe(median.signedRank.n);
    // There 8.11 and 7.89 are not equally far from 8, by rounding in the seventeenth digit: here they are (below).
    if (name === 'small-normal') return;
    expect(rank.statistic).toBe(median.signedRank.statistic);
    closeP((alternative) => pOfTails(rank.tails, alternative), median.signedRank.pExact);
  });

  it('by signed ranks takes readings as they are written: 8.11 and 7.89 are equally far from 8; all 2^n signs gone through', () => {
    const values = column('small-normal');
    const written = Array.from(values, (x) => Math.round(100 * x) - 800).filter((d) => d !== 0);
    const ranks = doubledRanks(written.map(Math.abs));
    const own = written.reduce((sum, d, i) => sum + (d > 0 ? ranks[i]! : 0), 0);
    let [lower, upper] = [0, 0];
    for (let signs = 0; signs < 2 ** written.length; signs++) {
      const sum = ranks.reduce((so, rank, i) => so + ((signs >> i) & 1) * rank, 0);
      if (sum <= own) lower++;
      if (sum >= own) upper++;
    }
    const found = signedRank(values, 8);
    expect([found.statistic, found.n]).toEqual([48, 11]);
    close(found.tails.lower, lower / 2 ** 11);
    close(found.tails.upper, upper / 2 ** 11);
  });

  it('by z is t with endless degrees of freedom; one-sided intervals are open; equivalence is the worse of two tails', () => {
    const own = { n: 25, mean: 8.06, sd: 0.1 };
    const z = meanByZ(own, 8, 0.1);
    expect(z.df).toBeNull();
    expect(z.statistic).toBeCloseTo(3, 12);
    expect(pOfMean(z, 'greater')).toBeCloseTo(1 - normalCumulative(3), 12);
    expect(meanInterval(8.06, z, 0.95, 'greater').upper).toBeNull();
    expect(meanInterval(8.06, z, 0.95, 'less').lower).toBeNull();
    expect(equivalenceP(0.06, z, 0.1)).toBeCloseTo(1 - normalCumulative(2), 12);
  });
});

describe('a claim about two groups', () => {
  it('has Welch, pooled, F, Brown–Forsythe and Mann–Whitney of the reference', () => {
    for (const { a, b, ...own } of known.twoGroups) {
      const [x, y] = [figures(a), figures(b)];
      const byWelch = welch(x, y);
      close(byWelch.statistic, own.welch.statistic);
      close(byWelch.df!, own.welch.df);
      closeP((alternative) => pOfMean(byWelch, alternative), own.welch.pValue);
      const { lower, upper } = meanInterval(x.mean - y.mean, byWelch, 0.95, 'two-sided');
      close(lower!, own.welch.interval95[0]);
      close(upper!, own.welch.interval95[1]);
      const together = pooled(x, y);
      close(together.statistic, own.pooled.statistic);
      close(pOfMean(together, 'two-sided'), own.pooled.pValue);
      const ratio = spreadsByF(x, y);
      close(ratio.statistic, own.f.statistic);
      closeP((alternative) => pOfTails(ratio.tails, alternative), own.f.pValue);
      const forsythe = brownForsythe([a, b]);
      close(forsythe.statistic, own.brownForsythe.statistic);
      close(forsythe.pValue, own.brownForsythe.pValue);
      const rank = mannWhitneyByNormal(a, b);
      expect(rank.statistic).toBe(own.mannWhitney.u);
      closeP((alternative) => pOfTails(rank.tails, alternative), own.mannWhitney.pNormalWithCorrections);
    }
    for (const { a, b, statistic, pValue } of known.paired) {
      const test = meanByT(figures(a.map((x, i) => x - b[i]!)), 0);
      close(test.statistic, statistic);
      close(pOfMean(test, 'two-sided'), pValue);
    }
  });

  it('of U counts pairs, ties half', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 1, maxLength: 9 }),
        fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 1, maxLength: 9 }),
        (a, b) => {
          const pairs = a.reduce((sum, x) => sum + b.reduce((own, y) => own + (x > y ? 1 : x === y ? 0.5 : 0), 0), 0);
          expect(mannWhitneyU(a, b)).toBe(pairs);
        },
      ),
    );
    expect([...doubledRanks([3, 1, 3])]).toEqual([5, 2, 5]);
  });
});

describe('Mann–Whitney by counting out', () => {
  /** All ways to choose which readings are of the first group. */
  function plain(a: readonly number[], b: readonly number[]) {
    const all = [...a, ...b];
    const own = mannWhitneyU(a, b);
    let [lower, upper, ways] = [0, 0, 0];
    for (let set = 0; set < 2 ** all.length; set++) {
      const first = all.filter((_, i) => (set >> i) & 1);
      if (first.length !== a.length) continue;
      const u = mannWhitneyU(
        first,
        all.filter((_, i) => !((set >> i) & 1)),
      );
      ways++;
      if (u <= own) lower++;
      if (u >= own) upper++;
    }
    return { lower: lower / ways, upper: upper / ways };
  }
  const some = fc.array(fc.integer({ min: 0, max: 6 }), { minLength: 1, maxLength: 5 });

  it('is what going through all ways gives, with ties and without', () => {
    fc.assert(
      fc.property(some, some, (a, b) => {
        const { tails } = mannWhitneyExact(a, b);
        const { lower, upper } = plain(a, b);
        expect(tails.lower).toBeCloseTo(lower, 12);
        expect(tails.upper).toBeCloseTo(upper, 12);
      }),
      { numRuns: 60 },
    );
    const [a, b] = [
      [1, 4, 6, 9],
      [2, 3, 5, 7, 8],
    ];
    expect(mannWhitneyExact(a, b).tails.lower).toBeCloseTo(plain(a, b).lower, 13);
  });

  it('has the point of the tables, and comes near the normal for 100 against 100', () => {
    // Of 8 against 8 a U of 13 is the last one below 0.025 on one side.
    const eight = Array.from({ length: 8 }, (_, i) => 100 + i);
    const below = (between: number) => mannWhitneyExact([0, 1, 2, 3, 4, 5, between, 200], eight);
    expect([below(104.5).statistic, below(105.5).statistic]).toEqual([13, 14]);
    expect(below(104.5).tails.lower).toBeLessThan(0.025);
    expect(below(105.5).tails.lower).toBeGreaterThan(0.025);
    const x = Array.from({ length: 100 }, (_, i) => i * 1.7);
    const y = Array.from({ length: 100 }, (_, i) => i * 1.9 + 0.05);
    const [exact, normal] = [mannWhitneyExact(x, y), mannWhitneyByNormal(x, y)];
    expect(Math.abs(exact.tails.lower - normal.tails.lower)).toBeLessThan(1e-3);
    expect(exact.statistic).toBe(normal.statistic);
  });

  it('has the shift that brings the groups together', () => {
    expect(hodgesLehmann([1, 2, 3], [1, 2, 3])).toBe(0);
    expect(hodgesLehmann([5, 6, 9], [1, 2])).toBe(4.5);
  });
});

describe('shares, rates and tables', () => {
  it('have the exact p and the intervals of the reference', () => {
    for (const { count, n, null: claimed, pValue, clopperPearson95, wilson95 } of known.share) {
      closeP((alternative) => shareP(count, n, claimed, alternative), pValue);
      clopperPearson(count, n).forEach((end, i) => close(end, clopperPearson95[i]!));
      wilson(count, n, 0.95).forEach((end, i) => close(end, wilson95[i]!));
    }
    for (const { count, exposure, null: claimed, pValue, interval95 } of known.rate) {
      closeP((alternative) => rateP(count, exposure, claimed, alternative), pValue);
      rateInterval(count, exposure, 0.95).forEach((end, i) => close(end, interval95[i]!));
    }
    for (const { table, statistic, df, pAsymptotic, cramersV, fisher } of known.table) {
      const found = tableIndependence(table);
      close(found.statistic, statistic);
      expect(found.df).toBe(df);
      close(found.pAsymptotic, pAsymptotic);
      close(found.cramersV, cramersV);
      if (fisher) closeP((alternative) => fisherP(table as never, alternative), fisher);
    }
  });

  it('count on the other side what is no likelier, as a plain sum does, and answer for a billion', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 40 }),
        fc.double({ min: 0.02, max: 0.98, noNaN: true }),
        (n, x, share) => {
          const count = Math.min(x, n);
          const chances = Array.from({ length: n + 1 }, (_, k) => choose(n, k) * share ** k * (1 - share) ** (n - k));
          const plain = chances.reduce((sum, chance) => sum + (chance <= chances[count]! * (1 + 1e-7) ? chance : 0), 0);
          expect(Math.abs(shareP(count, n, share, 'two-sided') - plain)).toBeLessThan(1e-10);
        },
      ),
    );
    expect(shareP(500_100_000, 1e9, 0.5, 'two-sided')).toBeCloseTo(2 * (1 - normalCumulative(6.3245)), 9);
    expect([shareP(0, 10, 0, 'greater'), shareP(1, 10, 0, 'greater'), shareP(10, 10, 1, 'less')]).toEqual([1, 0, 1]);
  });

  it('of Newcombe have the interval of his example: 56 of 70 and 48 of 80', () => {
    // Newcombe (1998), table II, (a), method 10.
    const [low, high] = newcombe({ count: 56, n: 70 }, { count: 48, n: 80 }, 0.95);
    expect([low.toFixed(4), high.toFixed(4)]).toEqual(['0.0524', '0.3339']);
  });

  it('have counts with contributions, and the exact multinomial p', () => {
    for (const { observed, shares, ...own } of known.counts) {
      const found = countsAgainst(observed, shares);
      close(found.statistic, own.statistic);
      expect(found.df).toBe(own.df);
      close(found.pAsymptotic, own.pAsymptotic);
      found.cells.forEach((cell, i) => {
        close(cell.expected, own.expected[i]!);
        expect(Math.abs(cell.contribution - own.contributions[i]!)).toBeLessThan(1e-12);
        expect(Math.abs(cell.standardised - own.standardised[i]!)).toBeLessThan(1e-11);
      });
      if (own.pExact !== undefined) close(exactCountsP(observed, shares), own.pExact);
    }
    expect(tablesOf(10, 3)).toBe(66);
    expect(countsAgainst([5, 0, 5], [0.5, 0, 0.5])).toMatchObject({ statistic: 0, df: 1 });
  });
});
const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n, k - 1) * (n - k + 1)) / k);

describe('several groups', () => {
  it('have one-way, Kruskal–Wallis, Tukey–Kramer and Brown–Forsythe of the reference', () => {
    const { groups, ...own } = known.several;
    const anova = oneWay(groups);
    close(anova.statistic, own.oneWay.statistic);
    close(anova.pValue, own.oneWay.pValue);
    const h = kruskalWallis(groups);
    close(h, own.kruskalWallis.statistic);
    close(chiSquare.of({ df: groups.length - 1 }).survival(h), own.kruskalWallis.pAsymptotic);
    const pairs = tukeyKramer(groups, 0.95);
    own.tukeyKramer.forEach(({ i, j, pValue }, k) => {
      expect([pairs[k]!.i, pairs[k]!.j]).toEqual([i, j]);
      close(pairs[k]!.pValue, pValue, 1e-8);
      // The interval holds 0 just where the p is at the level or above.
      expect(pairs[k]!.interval[0] > 0 || pairs[k]!.interval[1] < 0).toBe(pairs[k]!.pValue < 0.05);
    });
    close(brownForsythe(groups).pValue, own.brownForsythe);
  });
});

describe('the noncentral t', () => {
  it('has the values of the reference', () => {
    for (const { df, delta, x, cumulative } of known.noncentralT)
      close(noncentralT(df, delta).cumulative(x), cumulative, 1e-10);
  });

  it('without a shift is Student’s, in both tails; its tails add to 1, it rises, and quantiles turn it round', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 200 }),
        fc.double({ min: -8, max: 8, noNaN: true }),
        fc.double({ min: -30, max: 30, noNaN: true }),
        (df, delta, t) => {
          const law = noncentralT(df, delta);
          expect(Math.abs(law.cumulative(t) + law.survival(t) - 1)).toBeLessThan(1e-10);
          expect(law.cumulative(t + 0.5)).toBeGreaterThanOrEqual(law.cumulative(t) - 1e-14);
          const student = studentT.of({ df, location: 0, scale: 1 });
          close(noncentralT(df, 0).survival(t), student.survival(t), 1e-10);
        },
      ),
      { numRuns: 60 },
    );
    for (const p of [0.001, 0.3, 0.95])
      expect(noncentralT(9, 2).cumulative(noncentralT(9, 2).quantile(p))).toBeCloseTo(p, 11);
  });
});

describe('the power of t', () => {
  it('has the values of the reference, and the n that it needs', () => {
    // The cases of reference/simulation.json, integrated with 30 digits: there they stand to 1e-9. The n are its own.
    for (const [n, shift, alpha, two, one] of [
      [10, 0.5, 0.05, 0.29317560651407661, 0.42728982677117844],
      [10, 1, 0.05, 0.80309685663272163, 0.89751699433968267],
      [25, 0.4, 0.01, 0.23822979392927513, 0.33057762873407195],
      [48, 0.3, 0.05, 0.53029485054031649, 0.65672490204773011],
      [5, 1.5, 0.05, 0.71070267392567515, 0.86194662129227043],
    ] as const) {
      close(powerOfT(designOfOne(n), shift, alpha, 'two-sided'), two, 1e-11);
      close(powerOfT(designOfOne(n), shift, alpha, 'greater'), one, 1e-11);
      close(powerOfT(designOfOne(n), -shift, alpha, 'less'), one, 1e-11);
    }
    for (const [shift, n] of [
      [1, 10],
      [0.5, 34],
      [0.3, 90],
      [0.1, 787],
    ] as const)
      expect(readingsNeeded(designOfOne, shift, 0.05, 'two-sided')).toBe(n);
    expect(readingsNeeded(designOfOne, 1e-4, 0.05, 'two-sided')).toBeNull();
  });

  it('without a difference is the level; the smallest detectable difference has power 0.8, on its side', () => {
    for (const alternative of ALTERNATIVES) {
      expect(powerOfT(designOfTwo(7, 12), 0, 0.03, alternative)).toBeCloseTo(0.03, 10);
      const least = smallestNoticeable(designOfTwo(7, 12), 0.05, alternative)!;
      expect(least < 0).toBe(alternative === 'less');
      expect(powerOfT(designOfTwo(7, 12), least, 0.05, alternative)).toBeCloseTo(0.8, 9);
    }
  });
});

describe('the studentised range', () => {
  it('has the values of the reference', () => {
    for (const { k, df, q, survival } of known.studentisedRange)
      close(studentisedRange(k, df).survival(q), survival, 1e-8);
  });

  it('of two is t times the root of two', () => {
    for (const df of [1, 2, 7, 40])
      for (const q of [0.5, 2, 6]) {
        const t = 2 * studentT.of({ df, location: 0, scale: 1 }).survival(q / Math.SQRT2);
        close(studentisedRange(2, df).survival(q), t, 1e-9);
      }
    const law = studentisedRange(4, 20);
    expect(law.survival(law.survivalQuantile(0.05))).toBeCloseTo(0.05, 9);
    // Tables print 3.96.
    expect(law.survivalQuantile(0.05)).toBeCloseTo(3.958, 3);
  });
});

describe('tolerance limits', () => {
  it('have the exact factors of the reference', () => {
    for (const { n, share, confidence, oneSided, twoSided } of known.tolerance) {
      close(oneSidedFactor(n, share, confidence), oneSided, 1e-8);
      close(twoSidedFactor(n, share, confidence), twoSided, 1e-8);
    }
  });

  it('without a distribution: 93 readings hold 95 % between their ends with 95 % confidence, 92 do not', () => {
    expect(confidenceOfExtremes(93, 0.95)).toBeGreaterThan(0.95);
    expect(confidenceOfExtremes(92, 0.95)).toBeLessThan(0.95);
    expect(confidenceOfExtremes(20, 0.9)).toBeCloseTo(1 - 20 * 0.9 ** 19 + 19 * 0.9 ** 20, 13);
  });
});

describe('an integral', () => {
  it('of smooth functions is what it is, and is taken where it counts', () => {
    expect(integrate((x) => x ** 30, 0, 1, 1)).toBeCloseTo(1 / 31, 14);
    expect(integrate(() => 1, 2, 5, 3)).toBeCloseTo(3, 14);
    const [low, high] = worthwhile((x) => -0.5 * (x - 3) ** 2, -100, 100);
    expect(low).toBeLessThan(3 - 9);
    expect(high).toBeGreaterThan(3 + 9);
    expect(high - low).toBeLessThan(20);
    expect(worthwhile((x) => -x, 0, 1)).toEqual([0, 1]);
  });
});
