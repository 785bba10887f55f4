import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawClaims, type ClaimDraws } from '../../src/claims/draws.js';
import { tailsOfSums } from '../../src/claims/midrank-sums.js';
import { noncentralChiSquareSurvival, noncentralFSurvival } from '../../src/claims/noncentral-chi-square.js';
import { noncentralT } from '../../src/claims/noncentral-t.js';
import { leastNoticed, leastReadings } from '../../src/claims/noticing.js';
import { kthDifference, kthWalshMean, middleOf } from '../../src/claims/pairwise.js';
import { powerOfRate, powerOfShare, powerOfTwoShares } from '../../src/claims/power-of-shares.js';
import { powerOfRankSum, powerOfSignedRanks, powerOfSigns, powerOfZ } from '../../src/claims/power-of-shifts.js';
import { powerOfSpread, powerOfTwoSpreads } from '../../src/claims/power-of-spreads.js';
import { designOfTwo, powerOfT } from '../../src/claims/power-of-t.js';
import { mannWhitneyExact, shiftInterval } from '../../src/claims/rank-sum.js';
import { signedRank, signedRankByNormal, signedRankShares, walshCentre } from '../../src/claims/ranks.js';
import { oddsRatio, riskRatio } from '../../src/claims/risks.js';
import { powerOfSeveralMeans, powerOfSeveralMedians, welchSeveral } from '../../src/claims/several-means.js';
import { rateP, shareP } from '../../src/claims/shares.js';
import { tallyCountsAgainst, tallyRanks, tallyTables } from '../../src/claims/simulated-counts.js';
import { welch } from '../../src/claims/means.js';
import { exactCountsP, countsAgainst } from '../../src/claims/counts.js';
import { pOfTails } from '../../src/claims/alternative.js';
import { binomial } from '../../src/distributions/families/binomial.js';
import { chiSquare } from '../../src/distributions/families/chi-square.js';
import { piecewiseChebyshev } from '../../src/numeric/piecewise-chebyshev.js';
import { exp } from '../../src/numeric/elementary.js';
import { normalCumulative } from '../../src/numeric/standard-normal.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream } from '../../src/random/stream.js';
import { relativeError } from '../reference.js';

const close = (found: number, expected: number, tolerance = 1e-9) =>
  expect(relativeError(found, expected), `${found} for ${expected}`).toBeLessThan(tolerance);
/** Coarse readings, so that many are equal. */
const coarse = (least = 2, most = 14) =>
  fc.array(fc.integer({ min: -6, max: 6 }), { minLength: least, maxLength: most }).map((xs) => xs.map((x) => x / 2));
const sorted = (xs: readonly number[]) => Float64Array.from(xs).sort();

describe('values of pairs', () => {
  it('are found in their order, for differences', () => {
    fc.assert(
      fc.property(coarse(1), coarse(1), (a, b) => {
        const all = sorted(a.flatMap((x) => b.map((y) => x - y)));
        for (let k = 1; k <= all.length; k++) expect(kthDifference(sorted(a), sorted(b), k)).toBe(all[k - 1]);
      }),
      { numRuns: 60 },
    );
  });

  it('are found in their order, for the means of pairs', () => {
    fc.assert(
      fc.property(coarse(1), (x) => {
        const all = sorted(x.flatMap((u, i) => x.slice(i).map((v) => u / 2 + v / 2)));
        for (let k = 1; k <= all.length; k++) expect(kthWalshMean(sorted(x), k)).toBe(all[k - 1]);
        expect(middleOf(all.length, (k) => kthWalshMean(sorted(x), k))).toBe(
          all.length % 2 ? all[all.length >> 1] : (all[all.length / 2 - 1]! + all[all.length / 2]!) / 2,
        );
      }),
      { numRuns: 60 },
    );
  });

  it('are values of pairs at any size and spread: no value between them is made up', () => {
    const a = Float64Array.of(1e-300, 3, 1e300);
    expect(kthDifference(a, Float64Array.of(0), 2)).toBe(3);
    expect(kthDifference(a, Float64Array.of(0), 1)).toBe(1e-300);
    expect(kthWalshMean(Float64Array.of(1e15, 1e15 + 2), 2)).toBe(1e15 + 1);
  });
});

describe('the distribution of a rank sum with ties', () => {
  it('is that of all ways to choose, gone through one by one', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 2, maxLength: 10 }), fc.nat(), (ranks, of) => {
        const items = Int32Array.from(ranks).sort();
        const n = items.length;
        const m = 1 + (of % (n - 1));
        const sums: number[] = [];
        for (let chosen = 0; chosen < 2 ** n; chosen++) {
          const picked = [...items.keys()].filter((i) => (chosen >> i) & 1);
          if (picked.length === m) sums.push(picked.reduce((sum, i) => sum + items[i]!, 0));
        }
        const observed = sums[of % sums.length]!;
        const { lower, upper } = tailsOfSums(items, m, observed);
        expect(lower).toBeCloseTo(sums.filter((sum) => sum <= observed).length / sums.length, 12);
        expect(upper).toBeCloseTo(sums.filter((sum) => sum >= observed).length / sums.length, 12);
      }),
      { numRuns: 80 },
    );
  });

  it('stays exact where a hundred are dealt from two hundred: both tails meet in what is observed', () => {
    const values = Array.from({ length: 200 }, (_, i) => (i * 37) % 41);
    const [a, b] = [values.slice(0, 100), values.slice(100)];
    const { tails } = mannWhitneyExact(a, b);
    const turned = mannWhitneyExact(b, a).tails;
    close(tails.lower, turned.upper, 1e-12);
    expect(tails.lower + tails.upper).toBeGreaterThan(1);
    expect(tails.lower + tails.upper).toBeLessThan(1.01);
  });
});

describe('intervals by ranks', () => {
  it('hold the shifts that the test does not reject, and leave out those it does', () => {
    const a = [8.1, 8.4, 7.9, 8.6, 8.0, 8.35];
    const b = [7.7, 8.02, 7.95, 7.6, 8.2, 7.83, 7.99];
    const { lower, upper } = shiftInterval(a, b, 0.95, 'two-sided');
    const p = (shift: number) =>
      pOfTails(
        mannWhitneyExact(
          a,
          b.map((x) => x + shift),
        ).tails,
        'two-sided',
      );
    expect(p(lower! + 1e-6)).toBeGreaterThan(0.05);
    expect(p(upper! - 1e-6)).toBeGreaterThan(0.05);
    expect(p(lower! - 1e-6)).toBeLessThanOrEqual(0.05);
    expect(p(upper! + 1e-6)).toBeLessThanOrEqual(0.05);
  });

  it('do the same for the centre of one sample', () => {
    const x = [8.1, 8.4, 7.9, 8.62, 8.0, 8.35, 7.77, 8.21, 8.53];
    const { centre, interval } = walshCentre(x, 0.95, 'two-sided');
    const p = (claim: number) => pOfTails(signedRank(x, claim).tails, 'two-sided');
    expect(interval.lower! < centre && centre < interval.upper!).toBe(true);
    expect(p(interval.lower! + 1e-6)).toBeGreaterThan(0.05);
    expect(p(interval.lower! - 1e-6)).toBeLessThanOrEqual(0.05);
    expect(p(interval.upper! + 1e-6)).toBeLessThanOrEqual(0.05);
  });

  it('have no end where so few readings can reject nothing', () => {
    expect(shiftInterval([1, 2], [3, 4], 0.95, 'two-sided')).toEqual({ lower: null, upper: null });
    expect(walshCentre([1, 2, 3], 0.95, 'two-sided').interval).toEqual({ lower: null, upper: null });
  });

  it('by the normal are near the exact ones where both are to be had', () => {
    const x = Array.from({ length: 120 }, (_, i) => ((i * 73) % 97) / 10 - 4.6);
    const [exact, near] = [signedRank(x, 0), signedRankByNormal(x, 0)];
    expect(near.statistic).toBe(exact.statistic);
    expect(near.tails.lower).toBeCloseTo(exact.tails.lower, 3);
    expect(signedRankShares(6).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 14);
  });
});

describe('the noncentral distributions used for power', () => {
  it('χ² of one degree of freedom is the square of a normal that is off', () => {
    for (const delta of [0, 0.3, 2, 7])
      for (const x of [0.1, 2, 9, 60]) {
        const root = Math.sqrt(x);
        const expected = normalCumulative(delta - root) + normalCumulative(-delta - root);
        expect(noncentralChiSquareSurvival(x, 1, delta ** 2)).toBeCloseTo(expected, 12);
      }
    close(noncentralChiSquareSurvival(7, 5, 0), chiSquare.of({ df: 5 }).survival(7), 1e-13);
  });

  it('F of one degree of freedom above is the square of the noncentral t', () => {
    for (const [df, delta, t] of [
      [8, 1.2, 2.3],
      [30, 3, 2.04],
      [4, 0.5, 1.1],
    ] as const) {
      const law = noncentralT(df, delta);
      expect(noncentralFSurvival(t * t, [1, df], delta ** 2)).toBeCloseTo(law.survival(t) + law.cumulative(-t), 10);
    }
  });

  it('F over many degrees of freedom below is χ²', () => {
    expect(noncentralFSurvival(3, [4, 1e8], 6)).toBeCloseTo(noncentralChiSquareSurvival(12, 4, 6), 6);
  });
});

describe('several means', () => {
  it('by Welch are Welch’s t, squared, for two', () => {
    const [a, b] = [
      { n: 9, mean: 5.1, sd: 0.4 },
      { n: 23, mean: 5.5, sd: 1.1 },
    ] as const;
    const { statistic, df } = welch(a, b);
    const several = welchSeveral([a, b]);
    close(several.statistic, statistic ** 2, 1e-13);
    close(several.df[1], df!, 1e-13);
  });

  it('have for two groups the power of t', () => {
    close(powerOfSeveralMeans([14, 14], 0.8, 0.05), powerOfT(designOfTwo(14, 14), 0.8, 0.05, 'two-sided'), 1e-9);
    expect(powerOfSeveralMedians([40, 40, 40], 0, 0.05)).toBeCloseTo(0.05, 10);
  });
});

/** How often something happens to samples of normals. */
function often(trials: number, sizes: readonly number[], happens: (samples: Float64Array[]) => boolean): number {
  const samples = sizes.map((n) => new Float64Array(n));
  const stream = createStream(97, 0);
  let count = 0;
  for (let k = 0; k < trials; k++) {
    samples.forEach((sample) => fillNormals(stream, sample));
    if (happens(samples)) count++;
  }
  return count / trials;
}

describe('powers', () => {
  it('of shares and rates are the chance of the counts that the test rejects', () => {
    for (const alternative of ['two-sided', 'less', 'greater'] as const) {
      let share = 0;
      for (let k = 0; k <= 40; k++)
        if (shareP(k, 40, 0.2, alternative) < 0.05) share += binomial.of({ trials: 40, probability: 0.37 }).density(k);
      close(powerOfShare(40, 0.2, 0.37, 0.05, alternative), share, 1e-12);
    }
    let rate = 0;
    let chance = exp(-8);
    for (let k = 0; k < 80; chance *= 8 / ++k) if (rateP(k, 10, 0.4, 'greater') < 0.05) rate += chance;
    close(powerOfRate(10, 0.4, 0.8, 0.05, 'greater'), rate, 1e-10);
  });

  it('at the ends of a share are all or nothing', () => {
    expect(powerOfShare(20, 0.5, 0, 0.05, 'two-sided')).toBe(1);
    expect(powerOfShare(20, 0.5, 1, 0.05, 'less')).toBe(0);
    expect(powerOfShare(1, 0.5, 1, 0.05, 'two-sided')).toBe(0);
  });

  it('with no difference are the level', () => {
    for (const alternative of ['two-sided', 'less', 'greater'] as const) {
      close(powerOfZ(12, 0, 0.05, alternative), 0.05, 1e-12);
      close(powerOfSpread(12, 1, 0.05, alternative), 0.05, 1e-10);
      close(powerOfTwoSpreads([12, 7], 1, 0.05, alternative), 0.05, 1e-10);
      close(powerOfSignedRanks(30, 0, 0.05, alternative), 0.05, 1e-12);
      close(powerOfRankSum([30, 20], 0, 0.05, alternative), 0.05, 1e-12);
      close(powerOfTwoShares([30, 20], [0.3, 0.3], 0.05, alternative), 0.05, 1e-12);
    }
  });

  it('of ranks are near what simulation finds', () => {
    const trials = 3_000;
    const signed = often(
      trials,
      [25],
      ([x]) =>
        pOfTails(
          signedRank(
            x!.map((z) => z + 0.6),
            0,
          ).tails,
          'two-sided',
        ) < 0.05,
    );
    expect(Math.abs(powerOfSignedRanks(25, 0.6, 0.05, 'two-sided') - signed)).toBeLessThan(0.04);
    const signs = often(trials, [25], ([x]) => {
      const above = x!.filter((z) => z + 0.6 > 0).length;
      return shareP(above, 25, 0.5, 'two-sided') < 0.05;
    });
    expect(Math.abs(powerOfSigns(25, 0.6, 0.05, 'two-sided') - signs)).toBeLessThan(0.03);
    const sum = often(
      trials,
      [16, 20],
      ([x, y]) =>
        pOfTails(
          mannWhitneyExact(
            x!.map((z) => z + 0.9),
            y!,
          ).tails,
          'greater',
        ) < 0.05,
    );
    expect(Math.abs(powerOfRankSum([16, 20], 0.9, 0.05, 'greater') - sum)).toBeLessThan(0.04);
  });

  it('give the smallest difference and the smallest number of readings, or none', () => {
    const d = leastNoticed((x) => powerOfZ(25, x, 0.05, 'greater'))!;
    close(powerOfZ(25, d, 0.05, 'greater'), 0.8, 1e-9);
    expect(leastNoticed(() => 0.5)).toBeNull();
    expect(leastNoticed((x) => x, { most: 0.7 })).toBeNull();
    const n = leastReadings((at) => powerOfZ(at, 0.5, 0.05, 'greater'))!;
    expect(powerOfZ(n, 0.5, 0.05, 'greater')).toBeGreaterThanOrEqual(0.8);
    expect(powerOfZ(n - 1, 0.5, 0.05, 'greater')).toBeLessThan(0.8);
    expect(leastReadings(() => 0.5)).toBeNull();
    expect(leastReadings(() => 1)).toBe(2);
  });
});

describe('ratios of shares', () => {
  it('have the intervals that their logarithms have', () => {
    const [a, b] = [
      { count: 12, n: 40 },
      { count: 5, n: 50 },
    ];
    // By hand: ln(3) ± 1.959964·√(1/12 − 1/40 + 1/5 − 1/50) and ln(540/140) ± 1.959964·√(1/12 + 1/28 + 1/5 + 1/45).
    const risk = riskRatio(a, b, 0.95)!;
    expect(risk.value).toBeCloseTo(3, 12);
    expect(risk.interval[0]).toBeCloseTo(1.15231, 4);
    expect(risk.interval[1]).toBeCloseTo(7.81039, 4);
    const odds = oddsRatio(a, b, 0.95)!;
    expect(odds.value).toBeCloseTo(27 / 7, 12);
    expect(odds.interval[0] * odds.interval[1]).toBeCloseTo((27 / 7) ** 2, 9);
    expect(riskRatio({ count: 0, n: 3 }, b, 0.95)).toBeNull();
    expect(oddsRatio({ count: 3, n: 3 }, b, 0.95)).toBeNull();
  });
});

describe('what is simulated under a claim', () => {
  const share = (far: Float64Array, replicates: number) => far[0]! / replicates;

  it('counts against shares comes to the exact p, dealt one by one or place by place', () => {
    const shares = [0.5, 0.3, 0.2];
    for (const observed of [
      [9, 1, 2],
      [120, 44, 36],
    ]) {
      const n = observed.reduce((a, b) => a + b, 0);
      const { statistic } = countsAgainst(observed, shares);
      const found = tallyCountsAgainst({ n, shares, observed: statistic }, createStream(5, n), 40_000);
      const exact = exactCountsP(observed, shares);
      expect(Math.abs(share(found, 40_000) - exact)).toBeLessThan(5 * Math.sqrt((exact * (1 - exact)) / 40_000));
    }
  });

  it('a table with its totals comes to Fisher’s p, and ranks to all deals', () => {
    // χ² of 9.66 or more: the tables with 12 or more, or 3 or fewer, in the first cell, by the hypergeometric.
    const found = tallyTables(
      { rows: [17, 17], columns: [15, 19], observed: 9.663157894736843 },
      createStream(6, 0),
      40_000,
    );
    expect(Math.abs(share(found, 40_000) - 0.0048957925729217495)).toBeLessThan(0.0018);
    // 1 2 | 3 4 | 5 6 in three groups of two: 15 ways to part six things in pairs, each with 6 orders of the groups: the extreme one is 6 of 90.
    const ranks = [2, 4, 6, 8, 10, 12];
    const extreme = (6 ** 2 + 14 ** 2 + 22 ** 2) / 2;
    const deals = tallyRanks({ ranks, sizes: [2, 2, 2], observed: extreme }, createStream(7, 0), 40_000);
    expect(Math.abs(share(deals, 40_000) - 6 / 90)).toBeLessThan(0.006);
  });

  it.each([
    [{ of: 'mean', n: 12, known: false }, (s: number) => Math.abs(s) > 2.200985],
    [{ of: 'mean', n: 12, known: true }, (s: number) => Math.abs(s) > 1.959964],
    [{ of: 'spread', n: 12 }, (s: number) => s > 19.67514],
    [{ of: 'two-means', sizes: [6, 30], sds: [3, 1], method: 'welch' }, (s: number) => Math.abs(s) > 2.5],
    [{ of: 'several-means', sizes: [8, 8, 8], sds: [1, 1, 1], method: 'one-way' }, (s: number) => s > 3.4668],
    [{ of: 'counts', n: 200, shares: [0.25, 0.25, 0.25, 0.25] }, (s: number) => s > 7.8147],
    [{ of: 'signs', ranks: Array.from({ length: 30 }, (_, i) => 2 * i + 2) }, (s: number) => s <= 137 || s >= 328],
  ] as [ClaimDraws, (s: number) => boolean][])(
    '%j draws what is far about as often as its law says',
    (model, isFar) => {
      const drawn = drawClaims(model, createStream(11, 0), 4_000);
      const often = drawn.filter(isFar).length / 4_000;
      expect(often).toBeGreaterThan(0.033);
      expect(often).toBeLessThan(0.068);
    },
  );

  it('draws counts, events and rank sums about their means', () => {
    const mean = (model: ClaimDraws) =>
      drawClaims(model, createStream(12, 0), 4_000).reduce((a, b) => a + b, 0) / 4_000;
    expect(mean({ of: 'count', n: 50, share: 0.2 })).toBeCloseTo(10, 0);
    expect(mean({ of: 'events', mean: 7 })).toBeCloseTo(7, 0);
    expect(mean({ of: 'ranks', ranks: [2, 4, 6, 8, 10, 12, 14], first: 3 }) / 6).toBeCloseTo(1, 1);
    expect(mean({ of: 'spreads', sizes: [9, 9], method: 'f' })).toBeCloseTo(8 / 6, 0);
    expect(mean({ of: 'spreads', sizes: [30, 30], method: 'brown-forsythe' })).toBeCloseTo(1, 0);
  });
});

describe('a smooth function by stretches', () => {
  it('comes to fourteen digits of itself, whichever way it is asked', () => {
    const near = piecewiseChebyshev((x) => exp(-x * x), 0.75);
    for (let x = -3; x <= 3; x += 0.0371) expect(Math.abs(near(x) - exp(-x * x))).toBeLessThan(1e-14);
    expect(near(0)).toBeCloseTo(1, 14);
  });
});
