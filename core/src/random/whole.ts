import { nextOpenUnit, nextWord, type StreamState } from './stream.js';

const WORDS = 4294967296;
/** Up to here a product with a word is exact in a double. */
const SMALL = 2 ** 21;

/** A uniform whole number 0 … count − 1, exactly: multiply-high with rejection of the uneven remainder (Lemire 2019), count ≤ 2^32. */
export function nextBelow(state: StreamState, count: number): number {
  if (count > WORDS) return Math.floor(nextOpenUnit(state) * count);
  if (count <= SMALL)
    for (;;) {
      const product = (nextWord(state) >>> 0) * count;
      const high = Math.floor(product / WORDS);
      const low = product - high * WORDS;
      // What does not divide evenly is less than the count: seldom must it be known.
      if (low >= count || low >= WORDS % count) return high;
    }
  const uneven = WORDS % count;
  for (;;) {
    const product = BigInt(nextWord(state) >>> 0) * BigInt(count);
    if (Number(product & 0xffffffffn) >= uneven) return Number(product >> 32n);
  }
}
