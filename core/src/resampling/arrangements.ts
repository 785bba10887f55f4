import type { StreamState } from '../random/stream.js';
import { flipAll, shuffleFront } from './shuffle.js';

/** What is rearranged: readings among groups of these sizes, signs, or one column of pairs relative to the other. */
export type Arranged =
  { design: 'labels'; sizes: readonly number[] } | { design: 'signs'; n: number } | { design: 'pairs'; n: number };

/**
 * Arrangements, drawn at random or enumerated; `at` holds the current one. For two groups: the places of the smaller one. For several: the group of
 * every reading. For signs: 1 where the sign is reversed. For pairs: the index of the second column at each place of the first.
 */
export interface Arranging {
  at: Int32Array;
  shuffle(state: StreamState): void;
  /** Goes to arrangement k of all, from 0 on. */
  goTo(k: number): void;
  /** Goes to the next one. */
  next(): void;
}

/** The greatest number of arrangements that are enumerated. */
export const MOST_ARRANGEMENTS = 2_000_000;

/** n over k, exactly while it is below 2^53. */
function over(n: number, k: number): number {
  let ways = 1;
  const least = Math.min(k, n - k);
  for (let i = 1; i <= least; i++) ways = (ways * (n - least + i)) / i;
  return Math.round(ways);
}

/** The number of arrangements, with equal readings treated as different; Infinity beyond the range of doubles. */
export function countArrangements(arranged: Arranged): number {
  if (arranged.design === 'signs') return 2 ** arranged.n;
  let ways = 1;
  if (arranged.design === 'pairs') {
    for (let i = 2; i <= arranged.n && ways < Infinity; i++) ways *= i;
    return ways;
  }
  let placed = 0;
  for (const size of arranged.sizes) ways *= over((placed += size), size);
  return ways;
}

/** Of two groups the places of the smaller one are stored; those of the first if both are equal in size. */
export const smallerOf = ([a, b]: readonly number[]): 0 | 1 => (a! <= b! ? 0 : 1);

/** Two groups: combinations of places in rising order, in the order of a dictionary. */
function combining(n: number, k: number): Arranging {
  const at = Int32Array.from({ length: k }, (_, i) => i);
  const items = Int32Array.from({ length: n }, (_, i) => i);
  return {
    at,
    shuffle(state) {
      shuffleFront(state, items, k);
      at.set(items.subarray(0, k));
    },
    goTo(which) {
      let left = which;
      let place = 0;
      for (let i = 0; i < k; i++, place++) {
        for (let ways = over(n - place - 1, k - i - 1); left >= ways; ways = over(n - place - 1, k - i - 1)) {
          left -= ways;
          place++;
        }
        at[i] = place;
      }
    },
    next() {
      let i = k - 1;
      while (i >= 0 && at[i]! === n - k + i) i--;
      if (i < 0) return;
      at[i]!++;
      for (let j = i + 1; j < k; j++) at[j] = at[j - 1]! + 1;
    },
  };
}

/** The next arrangement in the order of a dictionary; equal items are one and the same. */
function nextInOrder(at: Int32Array): void {
  let i = at.length - 2;
  while (i >= 0 && at[i]! >= at[i + 1]!) i--;
  if (i < 0) return;
  let j = at.length - 1;
  while (at[j]! <= at[i]!) j--;
  [at[i], at[j]] = [at[j]!, at[i]!];
  at.subarray(i + 1).reverse();
}

/** Several groups: the label of every reading. */
function labelling(sizes: readonly number[]): Arranging {
  const at = Int32Array.from(sizes.flatMap((size, g) => new Array<number>(size).fill(g)));
  return {
    at,
    shuffle: (state) => shuffleFront(state, at, at.length - 1),
    goTo(which) {
      const left = [...sizes];
      let rest = which;
      for (let i = 0; i < at.length; i++) {
        for (let g = 0; g < left.length; g++) {
          if (left[g] === 0) continue;
          left[g]!--;
          const ways = countArrangements({ design: 'labels', sizes: left });
          if (rest < ways) {
            at[i] = g;
            break;
          }
          rest -= ways;
          left[g]!++;
        }
      }
    },
    next: () => nextInOrder(at),
  };
}

function flipping(n: number): Arranging {
  const at = new Int32Array(n);
  return {
    at,
    shuffle: (state) => flipAll(state, at),
    goTo(which) {
      for (let i = 0; i < n; i++) at[i] = Math.floor(which / 2 ** i) % 2;
    },
    next() {
      let i = 0;
      while (i < n && at[i] === 1) at[i++] = 0;
      if (i < n) at[i] = 1;
    },
  };
}

function pairing(n: number): Arranging {
  const at = Int32Array.from({ length: n }, (_, i) => i);
  return {
    at,
    shuffle: (state) => shuffleFront(state, at, n - 1),
    goTo(which) {
      const left = Array.from({ length: n }, (_, i) => i);
      let rest = which;
      for (let i = 0; i < n; i++) {
        const ways = countArrangements({ design: 'pairs', n: n - i - 1 });
        const place = Math.floor(rest / ways);
        rest -= place * ways;
        at[i] = left.splice(place, 1)[0]!;
      }
    },
    next: () => nextInOrder(at),
  };
}

export function arranging(arranged: Arranged): Arranging {
  switch (arranged.design) {
    case 'signs':
      return flipping(arranged.n);
    case 'pairs':
      return pairing(arranged.n);
    case 'labels': {
      const { sizes } = arranged;
      if (sizes.length > 2) return labelling(sizes);
      return combining(sizes[0]! + sizes[1]!, Math.min(sizes[0]!, sizes[1]!));
    }
  }
}
