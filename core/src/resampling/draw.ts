import type { StreamState } from '../random/stream.js';

/**
 * Draws with replacement. Every loop is written out, with the words of the generator (`nextWord`) in locals and its counts and sums inside: a call
 * for each draw costs three times as much. All loops draw the same readings from the same state: by multiply-high of one word, each reading equally
 * likely to within n/2^32.
 */
const WORD = 2 ** -32;
/** Below this the high half of word·n is found in whole numbers, which is faster: the same as by doubles. From here on readings are picked first. */
const SHORT = 65_536;
const BLOCK = 4_096;

/** Picks `size` readings block by block. */
function inBlocks(state: StreamState, n: number, size: number, take: (picks: Int32Array) => void): void {
  const picks = new Int32Array(Math.min(BLOCK, size));
  for (let done = 0; done < size; done += BLOCK) {
    const block = picks.subarray(0, Math.min(BLOCK, size - done));
    pickDrawn(state, n, block);
    take(block);
  }
}

function sumPicked(state: StreamState, values: Float64Array, size: number): number {
  let sum = 0;
  inBlocks(state, values.length, size, (picks) => {
    for (let i = 0; i < picks.length; i++) sum += values[picks[i]!]!;
  });
  return sum;
}

function squaresPicked(state: StreamState, values: Float64Array, size: number, into: Float64Array): void {
  into.fill(0, 0, 2);
  inBlocks(state, values.length, size, (picks) => {
    for (let i = 0; i < picks.length; i++) {
      const value = values[picks[i]!]!;
      into[0]! += value;
      into[1]! += value * value;
    }
  });
}

function countPicked(state: StreamState, counts: Int32Array, size: number, pivot: number): number {
  let before = 0;
  inBlocks(state, counts.length, size, (picks) => {
    for (let i = 0; i < picks.length; i++) {
      const at = picks[i]!;
      counts[at]!++;
      if (at < pivot) before++;
    }
  });
  return before;
}

/** The sum of `size` readings drawn. */
export function sumDrawn(state: StreamState, values: Float64Array, size: number): number {
  const n = values.length;
  if (n >= SHORT) return sumPicked(state, values, size);
  let s0 = state[0]!;
  let s1 = state[1]!;
  let s2 = state[2]!;
  let s3 = state[3]!;
  let sum = 0;
  for (let i = 0; i < size; i++) {
    let t = Math.imul(s1, 5);
    const word = Math.imul((t << 7) | (t >>> 25), 9);
    t = s1 << 9;
    s2 ^= s0;
    s3 ^= s1;
    s1 ^= s2;
    s0 ^= s3;
    s2 ^= t;
    s3 = (s3 << 11) | (s3 >>> 21);
    const at = (Math.imul(word >>> 16, n) + (Math.imul(word & 0xffff, n) >>> 16)) >>> 16;
    sum += values[at]!;
  }
  state[0] = s0;
  state[1] = s1;
  state[2] = s2;
  state[3] = s3;
  return sum;
}

/** The sum of `size` readings drawn, and the sum of their squares. */
export function squaresDrawn(state: StreamState, values: Float64Array, size: number, into: Float64Array): void {
  const n = values.length;
  if (n >= SHORT) return squaresPicked(state, values, size, into);
  let s0 = state[0]!;
  let s1 = state[1]!;
  let s2 = state[2]!;
  let s3 = state[3]!;
  let sum = 0;
  let squares = 0;
  for (let i = 0; i < size; i++) {
    let t = Math.imul(s1, 5);
    const word = Math.imul((t << 7) | (t >>> 25), 9);
    t = s1 << 9;
    s2 ^= s0;
    s3 ^= s1;
    s1 ^= s2;
    s0 ^= s3;
    s2 ^= t;
    s3 = (s3 << 11) | (s3 >>> 21);
    const at = (Math.imul(word >>> 16, n) + (Math.imul(word & 0xffff, n) >>> 16)) >>> 16;
    const value = values[at]!;
    sum += value;
    squares += value * value;
  }
  state[0] = s0;
  state[1] = s1;
  state[2] = s2;
  state[3] = s3;
  into[0] = sum;
  into[1] = squares;
}

/** Adds to the count of each reading how often it is among `size` draws, and returns how many of them are before place `pivot`. */
export function countDrawn(state: StreamState, counts: Int32Array, size: number, pivot: number): number {
  const n = counts.length;
  if (n >= SHORT) return countPicked(state, counts, size, pivot);
  let s0 = state[0]!;
  let s1 = state[1]!;
  let s2 = state[2]!;
  let s3 = state[3]!;
  let before = 0;
  for (let i = 0; i < size; i++) {
    let t = Math.imul(s1, 5);
    const word = Math.imul((t << 7) | (t >>> 25), 9);
    t = s1 << 9;
    s2 ^= s0;
    s3 ^= s1;
    s1 ^= s2;
    s0 ^= s3;
    s2 ^= t;
    s3 = (s3 << 11) | (s3 >>> 21);
    const at = (Math.imul(word >>> 16, n) + (Math.imul(word & 0xffff, n) >>> 16)) >>> 16;
    counts[at]!++;
    // 1 where at < pivot, without a branch.
    before += (at - pivot) >>> 31;
  }
  state[0] = s0;
  state[1] = s1;
  state[2] = s2;
  state[3] = s3;
  return before;
}

/** The indices of the drawn readings, written into `picks`. */
export function pickDrawn(state: StreamState, n: number, picks: Int32Array): void {
  const { length } = picks;
  const scale = n * WORD;
  let s0 = state[0]!;
  let s1 = state[1]!;
  let s2 = state[2]!;
  let s3 = state[3]!;
  for (let i = 0; i < length; i++) {
    let t = Math.imul(s1, 5);
    const word = Math.imul((t << 7) | (t >>> 25), 9);
    t = s1 << 9;
    s2 ^= s0;
    s3 ^= s1;
    s1 ^= s2;
    s0 ^= s3;
    s2 ^= t;
    s3 = (s3 << 11) | (s3 >>> 21);
    picks[i] = ((word >>> 0) * scale) | 0;
  }
  state[0] = s0;
  state[1] = s1;
  state[2] = s2;
  state[3] = s3;
}
