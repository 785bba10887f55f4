import type { Tails } from './alternative.js';

/** The ways to take k of some items, by their sum above the least that k of them can have: `ways[k][u]`. */
interface Sums {
  ways: Float64Array[];
  /** The least sum of k of them. */
  least: number[];
}

/** The least sums of 0, 1, 2 … items, or the greatest. */
function sumsFrom(items: Int32Array, most: number, at: (i: number) => number): number[] {
  const sums = [0];
  for (let i = 0; i < most; i++) sums.push(sums[i]! + items[at(i)]!);
  return sums;
}

/**
 * Dynamic programming, item by item from the least: a sum of k with the item is a sum of k − 1 without it. Sums of more than half of the items mirror
 * those of the rest.
 */
function sumsOf(items: Int32Array, most: number): Sums {
  const n = items.length;
  const needed = Math.min(most, n);
  const counted = Math.min(needed, n >> 1);
  const least = sumsFrom(items, needed, (i) => i);
  const greatest = sumsFrom(items, needed, (i) => n - 1 - i);
  const ways = least.slice(0, counted + 1).map((low, k) => new Float64Array(greatest[k]! - low + 1));
  ways[0]![0] = 1;
  /** How far the sums of k items reach by now. */
  const reach = new Int32Array(counted + 1);
  for (let i = 0; i < n; i++) {
    for (let k = Math.min(counted, i + 1); k >= 1; k--) {
      const [from, to] = [ways[k - 1]!, ways[k]!];
      const shift = items[i]! - items[k - 1]!;
      const last = reach[k - 1]!;
      for (let u = 0; u <= last; u++) to[u + shift]! += from[u]!;
      reach[k] = Math.max(reach[k]!, last + shift);
    }
  }
  for (let k = counted + 1; k <= needed; k++) ways.push(ways[n - k]!.slice().reverse());
  return { ways, least };
}

/**
 * Tail probabilities of the sum of m of these whole numbers, every choice of m being equally likely: the exact distribution of a rank sum with ties
 * (Streitberg & Röhmel 1986). The numbers are split into a lower and an upper half, each enumerated by itself; the two are combined for the tails
 * only, which keeps the cost low.
 */
export function tailsOfSums(sorted: Int32Array, m: number, observed: number): Tails {
  const half = sorted.length >> 1;
  const [low, high] = [sumsOf(sorted.subarray(0, half), m), sumsOf(sorted.subarray(half), m)];
  let [lower, upper, all] = [0, 0, 0];
  for (let k = Math.max(0, m - high.least.length + 1); k < low.least.length && k <= m; k++) {
    const [own, other] = [low.ways[k]!, high.ways[m - k]!];
    const atMost = other.slice();
    for (let u = 1; u < atMost.length; u++) atMost[u]! += atMost[u - 1]!;
    const total = atMost.at(-1)!;
    const atLeast = other.slice();
    for (let u = atLeast.length - 2; u >= 0; u--) atLeast[u]! += atLeast[u + 1]!;
    const room = observed - low.least[k]! - high.least[m - k]!;
    for (let u = 0; u < own.length; u++) {
      const [ways, left] = [own[u]!, room - u];
      all += ways * total;
      if (left >= 0) lower += ways * (left < atMost.length ? atMost[left]! : total);
      if (left < atLeast.length) upper += ways * (left > 0 ? atLeast[left]! : total);
    }
  }
  return { lower: Math.min(1, lower / all), upper: Math.min(1, upper / all) };
}
