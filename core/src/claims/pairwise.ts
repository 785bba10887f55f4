/** The number of pairs whose value is at most t; the values of pairs rise with both. */
type CountAtMost = (t: number) => number;
/** The least value of a pair above t. */
type NextAbove = (t: number) => number;

const HALVINGS = 70;

/** The k-th smallest value of all pairs, from 1: bracketed, then exact (Johnson & Mizoguchi 1978). */
function kthOf(k: number, ends: [number, number], atMost: CountAtMost, nextAbove: NextAbove): number {
  let [low, high] = ends;
  if (atMost(low) >= k) return low;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = low + (high - low) / 2;
    if (middle <= low || middle >= high) break;
    if (atMost(middle) >= k) high = middle;
    else low = middle;
  }
  return nextAbove(low);
}

/**
 * The k-th smallest of all differences between a reading of the first and one of the second sample, both sorted; k from 1. In O(n log n) steps,
 * without storing the pairs.
 */
export function kthDifference(a: Float64Array, b: Float64Array, k: number): number {
  const [m, n] = [a.length, b.length];
  const atMost: CountAtMost = (t) => {
    let count = 0;
    // The first of b whose difference is at most t moves up as a does.
    for (let i = 0, j = 0; i < m; i++) {
      while (j < n && a[i]! - b[j]! > t) j++;
      count += n - j;
    }
    return count;
  };
  const nextAbove: NextAbove = (t) => {
    let least = Infinity;
    for (let i = 0, j = 0; i < m; i++) {
      while (j < n && a[i]! - b[j]! > t) j++;
      if (j > 0) least = Math.min(least, a[i]! - b[j - 1]!);
    }
    return least;
  };
  return kthOf(k, [a[0]! - b[n - 1]!, a[m - 1]! - b[0]!], atMost, nextAbove);
}

/** The k-th smallest of the Walsh averages: means of all pairs of sorted readings, each with itself too (Walsh 1949); k from 1. */
export function kthWalshMean(x: Float64Array, k: number): number {
  const n = x.length;
  const mean = (i: number, j: number) => x[i]! / 2 + x[j]! / 2;
  const atMost: CountAtMost = (t) => {
    let count = 0;
    for (let i = 0, j = n - 1; i < n; i++) {
      while (j >= 0 && mean(i, j) > t) j--;
      if (j < i) break;
      count += j - i + 1;
    }
    return count;
  };
  const nextAbove: NextAbove = (t) => {
    let least = Infinity;
    for (let i = 0, j = n - 1; i < n; i++) {
      while (j >= 0 && mean(i, j) > t) j--;
      const next = Math.max(j + 1, i);
      if (next < n) least = Math.min(least, mean(i, next));
    }
    return least;
  };
  return kthOf(k, [x[0]!, x[n - 1]!], atMost, nextAbove);
}

/** The median of values accessed by rank: the mean of the two middle ones if their number is even. */
export function middleOf(count: number, kth: (k: number) => number): number {
  const half = Math.floor((count + 1) / 2);
  const low = kth(half);
  return count % 2 === 1 ? low : low + (kth(half + 1) - low) / 2;
}
