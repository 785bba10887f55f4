import { nextOpenUnit, nextWord, type StreamState } from './stream.js';

/** A whole number 0 … count − 1, every one exactly alike: multiply-high with rejection of the uneven rest (Lemire 2019), count ≤ 2^32. */
export function nextBelow(state: StreamState, count: number): number {
  if (count > 4294967296) return Math.floor(nextOpenUnit(state) * count);
  // What does not divide evenly: the products whose low half falls below it are drawn again.
  const uneven = 4294967296 % count;
  for (;;) {
    const product = BigInt(nextWord(state) >>> 0) * BigInt(count);
    if (Number(product & 0xffffffffn) >= uneven) return Number(product >> 32n);
  }
}
