import { describe, expect, it } from 'vitest';
import { pOfTails } from '../../src/claims/alternative.js';
import { countsAgainst } from '../../src/claims/counts.js';
import { equivalenceP, meanByT, pOfMean, welch, type MeanFigures } from '../../src/claims/means.js';
import { tukeyKramer } from '../../src/claims/pairs-of-means.js';
import { mannWhitneyExact, shiftInterval } from '../../src/claims/rank-sum.js';
import { signedRank, walshCentre } from '../../src/claims/ranks.js';
import { welchSeveral } from '../../src/claims/several-means.js';
import { newcombe, rateInterval, shareP, wilson } from '../../src/claims/shares.js';
import { tallyCountsAgainst } from '../../src/claims/simulated-counts.js';
import { brownForsythe } from '../../src/claims/spreads.js';
import { studentisedRange } from '../../src/claims/studentised-range.js';
import { oneSidedFactor, twoSidedFactor } from '../../src/claims/tolerance.js';
import { binomial } from '../../src/distributions/families/binomial.js';
import { poisson } from '../../src/distributions/families/poisson.js';
import { clopperPearson } from '../../src/numeric/clopper-pearson.js';
import { normalCumulative } from '../../src/numeric/standard-normal.js';
import { centralMoments } from '../../src/numeric/sums.js';
import { fillNormals } from '../../src/random/normal.js';
import { createStream, nextOpenUnit } from '../../src/random/stream.js';

/** Slices of `npm run calibrate -- held-claims`: how often a test finds what is not there, and what an interval holds. */
const LEVEL = 0.05;
const SAMPLES = 1_500;
const ERROR = 4 * Math.sqrt((LEVEL * (1 - LEVEL)) / SAMPLES);

function often(
  sizes: readonly number[],
  sds: readonly number[],
  happens: (samples: Float64Array[]) => boolean,
): number {
  const stream = createStream(31, sizes.length);
  const samples = sizes.map((n) => new Float64Array(n));
  let count = 0;
  for (let k = 0; k < SAMPLES; k++) {
    samples.forEach((sample, i) => {
      fillNormals(stream, sample);
      for (let j = 0; j < sample.length; j++) sample[j]! *= sds[i]!;
    });
    if (happens(samples)) count++;
  }
  return count / SAMPLES;
}
const figures = (values: Float64Array): MeanFigures => {
  const { n, mean, s2 } = centralMoments(values);
  return { n, mean, sd: Math.sqrt(s2 / (n - 1)) };
};
const just = (share: number) => expect(Math.abs(share - LEVEL), String(share)).toBeLessThan(ERROR);
const atMost = (share: number) => expect(share).toBeLessThan(LEVEL + ERROR);
const halves = (values: Float64Array) => values.map((z) => Math.round(2 * z) / 2);

describe('effects that do not exist are found at about the significance level', () => {
  it('by t, and by Welch of groups that differ in size and spread', () => {
    just(often([5], [2], ([x]) => pOfMean(meanByT(figures(x!), 0), 'two-sided') < LEVEL));
    just(often([5], [2], ([x]) => pOfMean(meanByT(figures(x!), 0), 'greater') < LEVEL));
    just(often([6, 30], [3, 1], ([x, y]) => pOfMean(welch(figures(x!), figures(y!)), 'two-sided') < LEVEL));
    just(often([8, 12, 20], [3, 1, 2], (groups) => welchSeveral(groups.map(figures)).pValue < LEVEL));
  });

  it('by Brown–Forsythe, and by the pairs of Tukey and Kramer', () => {
    atMost(often([10, 15], [1, 1], (groups) => brownForsythe(groups).pValue < LEVEL));
    const sizes = [6, 9, 7];
    const reach = studentisedRange(3, 19).survivalQuantile(LEVEL);
    const anyPair = (groups: Float64Array[]) => {
      const all = groups.map((values) => centralMoments(values));
      const variance = all.reduce((sum, { s2 }) => sum + s2, 0) / 19;
      return all.some((a, i) =>
        all
          .slice(i + 1)
          .some((b) => Math.abs(a.mean - b.mean) > reach * Math.sqrt((variance / 2) * (1 / a.n + 1 / b.n))),
      );
    };
    atMost(often(sizes, [1, 1, 1], anyPair));
    // The same as the pairs say of one sample.
    const groups = sizes.map((n, i) => Float64Array.from({ length: n }, (_, k) => ((k * 7 + i * 3) % 5) + i));
    expect(tukeyKramer(groups, 1 - LEVEL).some(({ pValue }) => pValue < LEVEL)).toBe(anyPair(groups));
  });

  it('by ranks of coarse readings, with their ties', () => {
    const ranks = ([x, y]: Float64Array[]) =>
      pOfTails(mannWhitneyExact(halves(x!), halves(y!)).tails, 'two-sided') < LEVEL;
    atMost(often([8, 11], [1, 1], ranks));
    atMost(often([14], [1], ([x]) => pOfTails(signedRank(halves(x!), 0).tails, 'two-sided') < LEVEL));
  });

  it('by χ² simulated where one is expected in each cell', () => {
    const shares = Array.from({ length: 8 }, () => 1 / 8);
    const stream = createStream(32, 0);
    const trials = 400;
    let found = 0;
    for (let k = 0; k < trials; k++) {
      const counts = new Array<number>(8).fill(0);
      for (let i = 0; i < 8; i++) counts[Math.floor(8 * nextOpenUnit(stream))]!++;
      const { statistic } = countsAgainst(counts, shares);
      const [far] = tallyCountsAgainst({ n: 8, shares, observed: statistic }, createStream(33, k % 20), 499);
      if ((far! + 1) / 500 < LEVEL) found++;
    }
    expect(found / trials).toBeLessThan(LEVEL + 4 * Math.sqrt((LEVEL * (1 - LEVEL)) / trials));
  });

  it('by the exact binomial never more often, whatever the share', () => {
    for (const claimed of [0.02, 0.3, 0.5])
      for (const alternative of ['two-sided', 'less', 'greater'] as const) {
        const law = binomial.of({ trials: 35, probability: claimed });
        let chance = 0;
        for (let k = 0; k <= 35; k++) if (shareP(k, 35, claimed, alternative) < LEVEL) chance += law.density(k);
        expect(chance).toBeLessThanOrEqual(LEVEL);
      }
  });

  it('by the two tests of being close enough, at the edge of the margin', () => {
    just(
      often([40], [1], ([x]) => {
        const own = figures(x!.map((z) => z + 0.5));
        return equivalenceP(own.mean, meanByT(own, 0), 0.5) < LEVEL;
      }),
    );
  });
});

describe('an interval holds what it says', () => {
  const shares = Array.from({ length: 49 }, (_, i) => (i + 1) / 50);
  const held = (n: number, p: number, ends: readonly (readonly [number, number])[]) => {
    const law = binomial.of({ trials: n, probability: p });
    return ends.reduce((sum, [low, high], k) => (low <= p && p <= high ? sum + law.density(k) : sum), 0);
  };

  it('of a share by Clopper and Pearson never less, by Wilson on average', () => {
    for (const n of [9, 30]) {
      const all = (of: typeof wilson) => Array.from({ length: n + 1 }, (_, k) => of(k, n, 0.95));
      const [exact, near] = [all(clopperPearson), all(wilson)];
      for (const p of shares) expect(held(n, p, exact)).toBeGreaterThanOrEqual(0.95);
      const mean = shares.reduce((sum, p) => sum + held(n, p, near), 0) / shares.length;
      expect(Math.abs(mean - 0.95)).toBeLessThan(0.012);
    }
  });

  it('of the difference of two shares by Newcombe on average', () => {
    const [n, m] = [12, 18];
    let [sum, pairs] = [0, 0];
    for (const p of [0.1, 0.35, 0.6, 0.85])
      for (const q of [0.1, 0.35, 0.6, 0.85]) {
        const [a, b] = [binomial.of({ trials: n, probability: p }), binomial.of({ trials: m, probability: q })];
        for (let i = 0; i <= n; i++)
          for (let j = 0; j <= m; j++) {
            const [low, high] = newcombe({ count: i, n }, { count: j, n: m }, 0.95);
            if (low <= p - q && p - q <= high) sum += a.density(i) * b.density(j);
          }
        pairs++;
      }
    expect(Math.abs(sum / pairs - 0.95)).toBeLessThan(0.015);
  });

  it('of a rate never less', () => {
    for (const mean of [0.4, 3, 11.7]) {
      const law = poisson.of({ mean });
      let sum = 0;
      for (let k = 0; k < 60; k++) {
        const [low, high] = rateInterval(k, 1, 0.95);
        if (low <= mean && mean <= high) sum += law.density(k);
      }
      expect(sum).toBeGreaterThanOrEqual(0.95);
    }
  });

  it('by ranks: the shift of two groups, the centre of one', () => {
    const missed = often([7, 9], [1, 1], ([x, y]) => {
      const { lower, upper } = shiftInterval(
        x!.map((z) => z + 1),
        y!,
        0.95,
        'two-sided',
      );
      return lower! > 1 || upper! < 1;
    });
    atMost(missed);
    atMost(
      often([10], [1], ([x]) => {
        const { lower, upper } = walshCentre(x!, 0.95, 'two-sided').interval;
        return lower! > 0 || upper! < 0;
      }),
    );
  });

  it('of tolerance covers its proportion with the stated confidence', () => {
    const both = twoSidedFactor(12, 0.9, 1 - LEVEL);
    just(
      often([12], [1], ([x]) => {
        const { mean, sd } = figures(x!);
        return normalCumulative(mean + both * sd) - normalCumulative(mean - both * sd) < 0.9;
      }),
    );
    const upper = oneSidedFactor(12, 0.95, 1 - LEVEL);
    just(
      often([12], [1], ([x]) => {
        const { mean, sd } = figures(x!);
        return normalCumulative(mean + upper * sd) < 0.95;
      }),
    );
  });
});
