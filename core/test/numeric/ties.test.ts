import { describe, expect, it } from 'vitest';
import { shareP } from '../../src/claims/shares.js';
import { exactCountsP } from '../../src/claims/counts.js';
import { binomial } from '../../src/distributions/families/binomial.js';
import { greatestTie, isTie, leastTie, scaleOfSum } from '../../src/numeric/ties.js';
import { createStream, nextOpenUnit } from '../../src/random/stream.js';

/** 2^n·P(X ≤ k) of a fair coin, exactly. */
function waysUpTo(n: number, k: number): bigint {
  let [ways, sum] = [1n, 1n];
  for (let i = 1; i <= k; i++) {
    ways = (ways * BigInt(n - i + 1)) / BigInt(i);
    sum += ways;
  }
  return sum;
}
const quotient = (a: bigint, b: bigint) => Number((a * 10n ** 18n) / b) / 1e18;

describe('statistics that are equal but for rounding', () => {
  it('tie: outcomes of a fair coin equally far from n/2 are equally likely, so p is twice one tail', () => {
    const n = 100;
    const law = binomial.of({ trials: n, probability: 0.5 });
    const parted = Array.from({ length: 50 }, (_, k) => k).filter((k) => law.density(k) !== law.density(n - k));
    expect(parted.length).toBeGreaterThan(0);
    for (let k = 20; k < 50; k++)
      expect(shareP(k, n, 0.5, 'two-sided')).toBeCloseTo(quotient(2n * waysUpTo(n, k), 2n ** BigInt(n)), 12);
  });

  it('tie whatever the order of 100 000 summands', () => {
    const state = createStream(7, 0);
    const values = Float64Array.from({ length: 100_000 }, () => nextOpenUnit(state) ** 2);
    const upwards = values.slice().sort();
    const sum = (list: Float64Array) => list.reduce((all, x) => all + x, 0);
    expect(sum(values)).not.toBe(sum(upwards));
    expect(isTie(sum(values), sum(upwards))).toBe(true);
  });

  it('tie for every pair of tables with the same χ², and for no other: by whole numbers', () => {
    const [n, shares] = [120, [1 / 6, 2 / 6, 3 / 6]];
    const found: { exact: number; chi: number }[] = [];
    for (let a = 0; a <= n; a++)
      for (let b = 0; a + b <= n; b++) {
        const counts = [a, b, n - a - b];
        const chi = counts.reduce((sum, count, i) => sum + (count - n * shares[i]!) ** 2 / (n * shares[i]!), 0);
        // n·(χ² + n).
        found.push({ exact: counts.reduce((sum, count, i) => sum + count ** 2 * [6, 3, 2][i]!, 0), chi });
      }
    found.sort((a, b) => a.exact - b.exact);
    const wrong = found.filter(({ exact, chi }, i) => {
      const next = found[i + 1];
      return next && isTie(chi, next.chi, scaleOfSum(chi)) !== (exact === next.exact);
    });
    expect(wrong).toEqual([]);
  });

  it('count as at least as extreme in the exact p of counts', () => {
    // All but the six tables with one in each place are at least as far from equal shares.
    expect(exactCountsP([2, 1, 0], [1 / 3, 1 / 3, 1 / 3])).toBeCloseTo(1 - 6 / 27, 12);
    expect(exactCountsP([0, 1, 2], [1 / 3, 1 / 3, 1 / 3])).toBeCloseTo(1 - 6 / 27, 12);
  });
});

describe('statistics that differ by little more than rounding', () => {
  /** P(X = k)/P(X = j) − 1 of 10⁶ trials with probability 1/4, j < k, from whole numbers. */
  function apart(j: number, k: number): number {
    let [above, below] = [1n, 1n];
    for (let i = j; i < k; i++) {
      above *= BigInt(1_000_000 - i);
      below *= 3n * BigInt(i + 1);
    }
    return Number(((above - below) * 10n ** 15n) / below) / 1e15;
  }

  it('do not tie: the closest two outcomes of a million trials differ by less than 1e-8, and p counts one of them', () => {
    const law = binomial.of({ trials: 1_000_000, probability: 0.25 });
    const likely = Array.from({ length: 8_000 }, (_, i) => ({ k: 246_000 + i, p: law.density(246_000 + i) }))
      .filter(({ p }) => p > 1e-12)
      .sort((a, b) => a.p - b.p);
    const gaps = likely.slice(1).map((next, i) => ({ less: likely[i]!, more: next, gap: next.p / likely[i]!.p - 1 }));
    const { less, more, gap } = gaps.reduce((best, one) => (one.gap < best.gap ? one : best));
    expect(gap).toBeLessThan(1e-8);
    const exact = less.k < more.k ? apart(less.k, more.k) : -apart(more.k, less.k);
    expect(gap / Math.abs(exact)).toBeCloseTo(1, 3);
    expect(isTie(less.p, more.p)).toBe(false);
    const atMost = 1 - likely.reduce((sum, { p }) => sum + (p > less.p ? p : 0), 0);
    expect(Math.abs(shareP(less.k, 1_000_000, 0.25, 'two-sided') - atMost)).toBeLessThan(less.p / 10);
  });
});

describe('limits of ties', () => {
  it('lie on either side of the observed statistic, at infinity too', () => {
    for (const x of [-3, -1e-300, 0, 1e-300, 2.5, 1e300]) {
      expect(leastTie(x)).toBeLessThanOrEqual(x);
      expect(greatestTie(x)).toBeGreaterThanOrEqual(x);
    }
    expect(leastTie(Infinity, 1)).toBe(Infinity);
    expect(greatestTie(-Infinity, 1)).toBe(-Infinity);
  });
});
