/**
 * Random words by xoshiro128** 1.1 (Blackman & Vigna 2021), seeded by splitmix32, with the authors' jump of 2^64
 * draws between streams. The state is four 32-bit words in an Int32Array; hot loops copy it to locals.
 */
export type StreamState = Int32Array;

const JUMP = [0x8764000b, 0xf542d2d3, 0x6fa035c3, 0x77f2db5b];

export const GREATEST_SEED = 0xffffffff;

/** One draw: a signed 32-bit word; advances the state. */
export function nextWord(state: StreamState): number {
  const s1 = state[1]!;
  const five = Math.imul(s1, 5);
  const result = Math.imul((five << 7) | (five >>> 25), 9);
  const t = s1 << 9;
  const s2 = state[2]! ^ state[0]!;
  const s3 = state[3]! ^ s1;
  state[1] = s1 ^ s2;
  state[0] = state[0]! ^ s3;
  state[2] = s2 ^ t;
  state[3] = (s3 << 11) | (s3 >>> 21);
  return result;
}

/** A uniform double in (0, 1): 53 bits from two draws, moved half a step off zero. */
export function nextOpenUnit(state: StreamState): number {
  const high = nextWord(state) >>> 5;
  const low = nextWord(state) >>> 6;
  return (high * 67108864 + low + 0.5) / 9007199254740992;
}

/** Moves the state on by 2^64 draws. */
export function jump(state: StreamState): void {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  for (const word of JUMP) {
    for (let bit = 0; bit < 32; bit++) {
      if (word & (1 << bit)) {
        s0 ^= state[0]!;
        s1 ^= state[1]!;
        s2 ^= state[2]!;
        s3 ^= state[3]!;
      }
      nextWord(state);
    }
  }
  state[0] = s0;
  state[1] = s1;
  state[2] = s2;
  state[3] = s3;
}

const BITS = 128;
/**
 * LEAPS[k] is 2^k jumps as a matrix over the bits of the state: column b, four words, is where the state with bit b alone comes to. A jump is linear, so that
 * twice as many jumps are the matrix applied to its own columns; a stream of any number is then at most 32 products away.
 */
const LEAPS: Int32Array[] = [];

/** The column of every bit that is set, added up. */
function leap(matrix: Int32Array, state: Int32Array, into: Int32Array): void {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  for (let bit = 0; bit < BITS; bit++) {
    if (((state[bit >> 5]! >>> (bit & 31)) & 1) === 0) continue;
    const at = 4 * bit;
    s0 ^= matrix[at]!;
    s1 ^= matrix[at + 1]!;
    s2 ^= matrix[at + 2]!;
    s3 ^= matrix[at + 3]!;
  }
  into[0] = s0;
  into[1] = s1;
  into[2] = s2;
  into[3] = s3;
}

/** The matrix of 2^k jumps; lower powers are computed on the way. */
function leapOf(k: number): Int32Array {
  for (let made = LEAPS.length; made <= k; made++) {
    const matrix = new Int32Array(4 * BITS);
    for (let bit = 0; bit < BITS; bit++) {
      const column = matrix.subarray(4 * bit, 4 * bit + 4);
      if (made === 0) {
        column[bit >> 5] = 1 << (bit & 31);
        jump(column);
      } else {
        const half = LEAPS[made - 1]!;
        leap(half, half.subarray(4 * bit, 4 * bit + 4), column);
      }
    }
    LEAPS.push(matrix);
  }
  return LEAPS[k]!;
}

/** Stream number `index` of a seed (0 … 2^32 − 1): the seed's state moved on by index jumps. */
export function createStream(seed: number, index: number): StreamState {
  const state = new Int32Array(4);
  let s = seed | 0;
  for (let i = 0; i < 4; i++) {
    s = (s + 0x9e3779b9) | 0;
    let z = s;
    z = Math.imul(z ^ (z >>> 16), 0x85ebca6b);
    z = Math.imul(z ^ (z >>> 13), 0xc2b2ae35);
    state[i] = z ^ (z >>> 16);
  }
  for (let k = 0; k < 32 && index >>> k > 0; k++) if ((index >>> k) & 1) leap(leapOf(k), state, state);
  return state;
}
