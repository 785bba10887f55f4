import { nextWord, type StreamState } from '../random/stream.js';

const WORD = 2 ** -32;
/** As in draw.ts: below this the high half of word·n is found in whole numbers. */
const SHORT = 65_536;

/**
 * Shuffles the first `count` places of readings with the rest (Fisher & Yates 1938; Durstenfeld 1964), in place, again and again, and fills in their sums. The words of
 * the generator stand in locals, as in draw.ts, and the loop over the shuffles stands inside: a dozen readings are quickly shuffled.
 */
export function sumFronts(state: StreamState, values: Float64Array, count: number, out: Float64Array): void {
  const { length } = values;
  if (length >= SHORT) return sumLongFronts(state, values, count, out);
  let s0 = state[0]!;
  let s1 = state[1]!;
  let s2 = state[2]!;
  let s3 = state[3]!;
  for (let r = 0; r < out.length; r++) {
    let sum = 0;
    for (let i = 0; i < count; i++) {
      let t = Math.imul(s1, 5);
      const word = Math.imul((t << 7) | (t >>> 25), 9);
      t = s1 << 9;
      s2 ^= s0;
      s3 ^= s1;
      s1 ^= s2;
      s0 ^= s3;
      s2 ^= t;
      s3 = (s3 << 11) | (s3 >>> 21);
      const n = length - i;
      const other = i + ((Math.imul(word >>> 16, n) + (Math.imul(word & 0xffff, n) >>> 16)) >>> 16);
      const value = values[other]!;
      values[other] = values[i]!;
      values[i] = value;
      sum += value;
    }
    out[r] = sum;
  }
  state[0] = s0;
  state[1] = s1;
  state[2] = s2;
  state[3] = s3;
}

function sumLongFronts(state: StreamState, values: Float64Array, count: number, out: Float64Array): void {
  const { length } = values;
  for (let r = 0; r < out.length; r++) {
    let sum = 0;
    for (let i = 0; i < count; i++) {
      const other = i + (((nextWord(state) >>> 0) * ((length - i) * WORD)) | 0);
      const value = values[other]!;
      values[other] = values[i]!;
      values[i] = value;
      sum += value;
    }
    out[r] = sum;
  }
}

/** The same shuffle of places. */
export function shuffleFront(state: StreamState, items: Int32Array, count: number): void {
  const { length } = items;
  for (let i = 0; i < count; i++) {
    const other = i + (((nextWord(state) >>> 0) * ((length - i) * WORD)) | 0);
    const item = items[other]!;
    items[other] = items[i]!;
    items[i] = item;
  }
}

/** Gives every reading a random sign: 1 where it is reversed. */
export function flipAll(state: StreamState, flips: Int32Array): void {
  let bits = 0;
  for (let i = 0; i < flips.length; i++) {
    if ((i & 31) === 0) bits = nextWord(state);
    flips[i] = bits & 1;
    bits >>>= 1;
  }
}
